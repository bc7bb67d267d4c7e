package polymetron.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Option;
import polymetron.library.Library;
import polymetron.library.LibraryLoader;
import polymetron.ownblock.BlockProblem;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;

/** Block types of one's own that a platform uses, beside the library. */
final class OwnBlocks {
    @Option(
            names = "--block",
            paramLabel = "BLOCK.json",
            description = "a block type of one's own that the platform uses; can be repeated")
    private List<Path> files = new ArrayList<>();

    static OwnBlock read(Path file) throws IOException {
        return OwnBlockDocument.read(String.valueOf(file.getFileName()), Inputs.text(file));
    }

    /**
     * Says what is wrong with a block.
     *
     * @return how the command ends
     */
    static int print(PrintWriter out, List<BlockProblem> problems) {
        for (BlockProblem each : problems) {
            out.printf("%s%s%n", each.at().isEmpty() ? "" : each.at() + ": ", each.what());
        }
        if (problems.isEmpty()) {
            out.println("nothing is wrong");
        }
        out.flush();
        return problems.isEmpty() ? 0 : CommandLineApplication.FINDINGS;
    }

    /** The library with them. */
    Library library() throws IOException {
        Library library = LibraryLoader.load();
        for (Path file : files) {
            OwnBlock block = read(file);
            List<BlockProblem> problems = OwnBlockChecks.of(block, library);
            if (!problems.isEmpty()) {
                throw new BadInput(
                        "%s, at %s: %s"
                                .formatted(
                                        file,
                                        problems.getFirst().at(),
                                        problems.getFirst().what()));
            }
            library = library.with(block.type(), block.hardware(), block.drivers());
        }
        return library;
    }
}
