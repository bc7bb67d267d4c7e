package polymetron.cli.measure;

import java.util.List;
import java.util.Locale;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.finding.Checks;
import polymetron.library.Library;
import polymetron.library.LibraryLoader;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.wiring.WiringPlan;
import tools.jackson.databind.json.JsonMapper;

/** Working a platform out and checking it, beside parsing the JSON text of the same document. */
final class CheckSpeed implements Measurement {
    private static final List<Integer> SIZES = List.of(25, 100, 300, 1_000, 3_000);

    private final Library library = LibraryLoader.load();
    private final Elaborator elaborator = new Elaborator(library);
    private final Editor editor = new Editor(library);
    private final JsonMapper mapper = new JsonMapper();

    @Override
    public String title() {
        return "Elaborate and check, beside the JSON parse of the same document";
    }

    @Override
    public String measure() throws Exception {
        StringBuilder table =
                new StringBuilder(
                        "| blocks | elaborate and check | JSON parse (Jackson, to a tree) | ratio |"
                                + " one edit, without the database | ratio | wiring plan |\n"
                                + "|---:|---:|---:|---:|---:|---:|---:|\n");
        for (int size : SIZES) {
            row(table, size, 1);
        }
        row(table, 300, 32);
        row(table, 1_000, 32);
        return table
                + "\n"
                + growth()
                + "One edit is: apply it, write the document, elaborate, check. Aim: a ratio of at"
                + " most 5 at 1,000 blocks.\n";
    }

    /** How the time grows with the number of blocks: the power of n, and what n log n would have. */
    private String growth() throws Exception {
        int few = 300;
        int many = 3_000;
        Platform small = LargePlatform.of(few);
        Platform large = LargePlatform.of(many);
        Repeat.Pair pair =
                Repeat.inTurns(
                        20,
                        30,
                        () -> Checks.run(elaborator.elaborate(large)),
                        () -> Checks.run(elaborator.elaborate(small)));
        double tenfold = Math.log(many / (double) few);
        return String.format(
                Locale.ROOT,
                "From %d to %d blocks, elaborate and check takes %.1f times as long: n to the power"
                        + " of %.2f. n log n would be %.1f times, n to the power of %.2f.%n%n",
                few,
                many,
                pair.ratio(),
                Math.log(pair.ratio()) / tenfold,
                many * Math.log(many) / (few * Math.log(few)),
                Math.log(many * Math.log(many) / (few * Math.log(few))) / tenfold);
    }

    private void row(StringBuilder table, int size, int processors) throws Exception {
        Platform platform = LargePlatform.of(size, processors);
        String text = PlatformDocument.write(platform);
        // A server runs for days: what is measured is code that the virtual machine has compiled.
        int warmUps = Math.clamp(150_000L / size, 150, 1_500);
        Repeat.Pair pair =
                Repeat.inTurns(
                        warmUps,
                        60,
                        () -> {
                            ElaboratedPlatform worked = elaborator.elaborate(platform);
                            return Checks.run(worked);
                        },
                        () -> mapper.readTree(text));
        Edit edit = new Edit.SetParameter("lamps2", "WIDTH", "5");
        Repeat.Pair change =
                Repeat.inTurns(
                        30,
                        30,
                        () -> {
                            Platform changed = editor.apply(platform, edit);
                            PlatformDocument.write(changed);
                            return Checks.run(elaborator.elaborate(changed));
                        },
                        () -> mapper.readTree(text));
        Repeat.Pair plan =
                Repeat.inTurns(
                        5,
                        9,
                        () -> WiringPlan.propose(platform, library, WiringPlan.Decisions.NONE),
                        () -> mapper.readTree(text));
        table.append(
                "| %s | %s | %s | %s | %s | %s | %s |%n"
                        .formatted(
                                processors == 1
                                        ? "" + size
                                        : size + ", " + 2 * processors + " initiators",
                                Machine.millis(pair.one()),
                                Machine.millis(pair.other()),
                                Machine.ratio(pair.ratio()),
                                Machine.millis(change.one()),
                                Machine.ratio(change.ratio()),
                                Machine.millis(plan.one())));
    }
}
