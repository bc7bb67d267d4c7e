package polymetron.cli;

import java.util.List;
import picocli.CommandLine.Command;
import polymetron.bench.foreign.CompilerCheck;
import polymetron.library.Library;
import polymetron.ownblock.OwnBlock;

/** What compilers say of a block. */
@Command(
        name = "compile",
        description =
                "Prints what Verilator and GHDL say of a block type's HDL, with up to three sets"
                        + " of its parameters.",
        mixinStandardHelpOptions = true)
final class CompileBlockCommand extends BlockTrialCommand {
    @Override
    int trial(OwnBlock block, Library library) throws InterruptedException {
        CompilerCheck check =
                RunCommand.models().compilers().orElseThrow(BlockTrialCommand::toolsAreMissing);
        List<CompilerCheck.Said> said = check.of(block, library.hardware()).said();
        for (CompilerCheck.Said each : said) {
            out().printf(
                            "%s%s: %s%s%n",
                            each.at().isEmpty() ? "" : each.at() + ": ",
                            each.isError() ? "error" : "warning",
                            each.what(),
                            each.with().isEmpty() ? "" : " (with " + each.with() + ")");
        }
        if (said.isEmpty()) {
            out().println("nothing is wrong");
        }
        return said.stream().anyMatch(CompilerCheck.Said::isError)
                ? CommandLineApplication.FINDINGS
                : 0;
    }
}
