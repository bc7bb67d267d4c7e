package polymetron.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.finding.Checks;
import polymetron.finding.Finding;
import polymetron.finding.Fix;

/** Prints the findings of a platform. */
@Command(
        name = "check",
        description = "Prints what is wrong with a platform.",
        mixinStandardHelpOptions = true)
final class CheckCommand implements Callable<Integer> {
    @Spec private CommandSpec spec;

    @Mixin private OwnBlocks blocks;

    @Parameters(paramLabel = "PLATFORM.json", description = "the platform document")
    private Path file;

    @Override
    public Integer call() throws Exception {
        List<Finding> findings = Checks.run(Inputs.platform(file, blocks));
        print(spec.commandLine().getOut(), findings);
        return Checks.hasErrors(findings) ? CommandLineApplication.FINDINGS : 0;
    }

    /** Prints the findings when one of them is of error grade: nothing is made from such a platform. */
    static boolean refuses(ElaboratedPlatform platform, PrintWriter err) {
        List<Finding> findings = Checks.run(platform);
        boolean refused = Checks.hasErrors(findings);
        if (refused) {
            print(err, findings);
        }
        return refused;
    }

    static void print(PrintWriter out, List<Finding> findings) {
        if (findings.isEmpty()) {
            out.println("no findings");
        }
        for (Finding finding : findings) {
            String accepted =
                    finding.isAccepted() ? " (accepted: " + finding.acceptedReason() + ")" : "";
            out.printf(
                    "%s %s %s: %s%s%n",
                    finding.grade(), finding.rule(), finding.subject(), finding.what(), accepted);
            for (Fix fix : finding.isAccepted() ? List.<Fix>of() : finding.fixes()) {
                out.printf("    fix: %s%n", fix.label());
            }
        }
        out.flush();
    }
}
