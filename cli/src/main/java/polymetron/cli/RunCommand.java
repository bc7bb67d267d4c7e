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
import polymetron.bench.block.UartModel;
import polymetron.bench.machine.Machine;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.image.ProgramImage;

/** Runs a program on the simulated board; the console goes to standard output. */
@Command(
        name = "run",
        description = "Runs a program on the simulated board.",
        mixinStandardHelpOptions = true)
final class RunCommand implements Callable<Integer> {
    private static final double SLICE_SECONDS = 0.002;
    private static final double DEFAULT_SECONDS = 10;

    @Spec private CommandSpec spec;

    @Parameters(paramLabel = "PLATFORM.json", description = "the platform document")
    private Path file;

    @Option(names = "--elf", paramLabel = "FILE", required = true, description = "the program")
    private Path elf;

    @Option(
            names = "--until",
            paramLabel = "TEXT",
            description = "stop when the console has said this")
    private String until;

    @Option(
            names = "--seconds",
            paramLabel = "N",
            description = "stop after so many seconds of the board's own time (default 10)")
    private Double seconds;

    @Option(
            names = "--type",
            paramLabel = "TEXT",
            description = "characters that arrive at the console; \\n is a line end")
    private String typed;

    @Override
    public Integer call() throws Exception {
        double limit = seconds == null ? DEFAULT_SECONDS : seconds;
        if (!(limit > 0 && limit <= 86_400)) {
            throw new BadInput("--seconds lies between 0 and 86400");
        }
        ElaboratedPlatform platform = Inputs.platform(file);
        if (CheckCommand.refuses(platform, spec.commandLine().getErr())) {
            return CommandLineApplication.FINDINGS;
        }
        Machine machine = new Machine(platform);
        ProgramImage image = Inputs.image(platform, elf, 0);
        Inputs.warn(image, spec.commandLine().getErr());
        machine.load(image);
        UartModel console =
                machine.console()
                        .orElseThrow(() -> new BadInput("the platform has no UART for a console"));
        if (typed != null) {
            console.arrive(typed.replace("\\n", "\n").getBytes(StandardCharsets.UTF_8));
            machine.settle();
        }
        PrintWriter out = spec.commandLine().getOut();
        StringBuilder said = new StringBuilder();
        long slice = Math.max(1, (long) (machine.clockHz() * SLICE_SECONDS));
        boolean found = until == null;
        while (machine.seconds() < limit) {
            machine.run(slice);
            String text = new String(console.takeSent(), StandardCharsets.ISO_8859_1);
            if (!text.isEmpty()) {
                out.print(text);
                out.flush();
                said.append(text);
                if (until != null && said.indexOf(until) >= 0) {
                    found = true;
                    break;
                }
            }
        }
        if (!found) {
            spec.commandLine()
                    .getErr()
                    .printf("polymetron: the console did not say '%s' within %s s%n", until, limit);
            return CommandLineApplication.FINDINGS;
        }
        return 0;
    }
}
