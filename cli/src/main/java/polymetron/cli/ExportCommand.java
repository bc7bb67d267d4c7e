package polymetron.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.HandoffFile;
import polymetron.output.handoff.Delivery;
import polymetron.output.handoff.Handoff;
import polymetron.output.hardware.NotBuilt;

/** Writes the hand-off of a platform. */
@Command(
        name = "export",
        description = "Writes the files for software teams.",
        mixinStandardHelpOptions = true)
final class ExportCommand implements Callable<Integer> {
    @Spec private CommandSpec spec;

    @Mixin private OwnBlocks blocks;

    @Parameters(paramLabel = "PLATFORM.json", description = "the platform document")
    private Path file;

    @Option(
            names = "--out",
            paramLabel = "DIR",
            required = true,
            description = "folder to write to")
    private Path out;

    @Override
    public Integer call() throws Exception {
        ElaboratedPlatform platform = Inputs.platform(file, blocks);
        if (CheckCommand.refuses(platform, spec.commandLine().getErr())) {
            return CommandLineApplication.FINDINGS;
        }
        Delivery delivery = Delivery.of(platform);
        Handoff handoff = delivery.handoff();
        List<String> others = OtherHandoffs.in(out, handoff.baseName());
        if (!others.isEmpty()) {
            spec.commandLine()
                    .getErr()
                    .printf(
                            "warning: %s also has the hand-off of %s: drivers and start-up code are"
                                    + " now those of %s%n",
                            out, String.join(", ", others), handoff.baseName());
        }
        for (HandoffFile each : delivery.files()) {
            Inputs.write(out, each.path(), each.bytes());
        }
        Inputs.write(out, handoff.baseName() + ".zip", delivery.zip());
        List<NotBuilt> notBuilt = delivery.hardware().notBuilt();
        if (!notBuilt.isEmpty()) {
            spec.commandLine()
                    .getErr()
                    .println(
                            "note: no hardware was written, because not everything can be built"
                                    + " yet:");
            notBuilt.forEach(
                    each ->
                            spec.commandLine()
                                    .getErr()
                                    .printf("  %s: %s%n", each.subject(), each.why()));
        }
        return 0;
    }
}
