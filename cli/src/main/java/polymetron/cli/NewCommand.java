package polymetron.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import polymetron.library.Board;
import polymetron.library.Library;
import polymetron.library.LibraryLoader;
import polymetron.library.Recipe;
import polymetron.platform.PlatformDocument;
import polymetron.wiring.Starter;

/** Starts a platform from a board and a recipe. */
@Command(
        name = "new",
        description = "Starts a platform on a board, empty or from a recipe.",
        mixinStandardHelpOptions = true)
final class NewCommand implements Callable<Integer> {
    @Spec private CommandSpec spec;

    @Parameters(paramLabel = "NAME", description = "name of the platform")
    private String name;

    @Option(
            names = "--board",
            paramLabel = "BOARD",
            required = true,
            description = "name of the board, such as foreland")
    private String board;

    @Option(
            names = "--recipe",
            paramLabel = "RECIPE",
            description = "name of the recipe; empty without one")
    private String recipe;

    @Option(
            names = "--out",
            paramLabel = "FILE",
            description = "file to write; standard output without it")
    private Path out;

    @Override
    public Integer call() throws Exception {
        Library library = LibraryLoader.load();
        Board chosen =
                library.boards().stream()
                        .filter(each -> each.identity().name().equals(board))
                        .findFirst()
                        .orElseThrow(
                                () ->
                                        new BadInput(
                                                "there is no board %s; there is %s"
                                                        .formatted(
                                                                board,
                                                                library.boards().stream()
                                                                        .map(
                                                                                each ->
                                                                                        each.identity()
                                                                                                .name())
                                                                        .toList())));
        Recipe start = null;
        if (recipe != null) {
            start =
                    library.recipe(recipe)
                            .orElseThrow(
                                    () ->
                                            new BadInput(
                                                    "there is no recipe %s; there is %s"
                                                            .formatted(
                                                                    recipe,
                                                                    library.recipes().stream()
                                                                            .map(Recipe::name)
                                                                            .toList())));
        }
        String text =
                PlatformDocument.write(Starter.start(library, name, chosen.identity(), start));
        if (out == null) {
            PrintWriter console = spec.commandLine().getOut();
            console.print(text);
            console.flush();
        } else {
            Inputs.write(out, text.getBytes(StandardCharsets.UTF_8));
        }
        return 0;
    }
}
