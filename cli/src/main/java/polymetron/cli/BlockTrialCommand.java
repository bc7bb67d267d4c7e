package polymetron.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import polymetron.bench.machine.BenchException;
import polymetron.library.Library;
import polymetron.library.LibraryLoader;
import polymetron.ownblock.BlockProblem;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;

/** Does something with the HDL of a block type that has nothing wrong. */
abstract class BlockTrialCommand implements Callable<Integer> {
    @Spec private CommandSpec spec;

    @Parameters(paramLabel = "BLOCK.json", description = "the block type's document")
    private Path file;

    final PrintWriter out() {
        return spec.commandLine().getOut();
    }

    /**
     * @return how the command ends
     */
    abstract int trial(OwnBlock block, Library library) throws InterruptedException;

    @Override
    public final Integer call() throws IOException, InterruptedException {
        OwnBlock block = OwnBlocks.read(file);
        Library library = LibraryLoader.load();
        List<BlockProblem> problems = OwnBlockChecks.of(block, library);
        if (!problems.isEmpty()) {
            return OwnBlocks.print(out(), problems);
        }
        if (block.hardware().isEmpty()) {
            throw new BadInput("%s has no HDL yet".formatted(file));
        }
        try {
            int end = trial(block, library);
            out().flush();
            return end;
        } catch (BenchException cannot) {
            throw new BadInput(cannot.getMessage());
        }
    }

    static BadInput toolsAreMissing() {
        return new BadInput(
                "verilator, g++, bubblewrap and prlimit are needed, and a system that lets them"
                        + " make namespaces");
    }
}
