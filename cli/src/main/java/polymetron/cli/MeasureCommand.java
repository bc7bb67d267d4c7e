package polymetron.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import polymetron.cli.measure.Measurements;

/** Measures speed, as ratios to something outside measured in the same run. */
@Command(
        name = "measure",
        description = "Measures speed against outside tools.",
        mixinStandardHelpOptions = true)
final class MeasureCommand implements Callable<Integer> {
    @Spec private CommandSpec spec;

    @Option(
            names = "--write",
            paramLabel = "FILE",
            description = "write the figures to this file as well")
    private Path write;

    @Override
    public Integer call() throws Exception {
        String report = Measurements.run(spec.commandLine().getErr());
        spec.commandLine().getOut().print(report);
        spec.commandLine().getOut().flush();
        if (write != null) {
            Files.writeString(write, report);
        }
        return 0;
    }
}
