package polymetron.cli.measure;

import java.util.List;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.finding.Checks;
import polymetron.library.LibraryLoader;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.wiring.WiringPlan;
import tools.jackson.databind.json.JsonMapper;

/** Working a platform out and checking it, beside parsing the JSON text of the same document. */
final class CheckSpeed implements Measurement {
    private static final List<Integer> SIZES = List.of(25, 100, 300, 1_000);

    @Override
    public String title() {
        return "Elaborate and check, beside the JSON parse of the same document";
    }

    @Override
    public String measure() throws Exception {
        var library = LibraryLoader.load();
        Elaborator elaborator = new Elaborator(library);
        Editor editor = new Editor(library);
        JsonMapper mapper = new JsonMapper();
        StringBuilder table =
                new StringBuilder(
                        "| blocks | elaborate and check | JSON parse (Jackson, to a tree) | ratio |"
                                + " one edit, without the database | ratio | wiring plan |\n"
                                + "|---:|---:|---:|---:|---:|---:|---:|\n");
        for (int size : SIZES) {
            Platform platform = LargePlatform.of(size);
            String text = PlatformDocument.write(platform);
            Repeat.Pair pair =
                    Repeat.inTurns(
                            60,
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
                    "| %d | %s | %s | %s | %s | %s | %s |%n"
                            .formatted(
                                    size,
                                    Machine.millis(pair.one()),
                                    Machine.millis(pair.other()),
                                    Machine.ratio(pair.ratio()),
                                    Machine.millis(change.one()),
                                    Machine.ratio(change.ratio()),
                                    Machine.millis(plan.one())));
        }
        return table
                + "\n"
                + "One edit is: apply it, write the document, elaborate, check. Aim: a ratio of at"
                + " most 5 at 1,000 blocks.\n";
    }
}
