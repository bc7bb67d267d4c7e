package polymetron.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import polymetron.bench.block.UartModel;
import polymetron.bench.foreign.ForeignModels;
import polymetron.bench.hart.MemoryShare;
import polymetron.bench.machine.Machine;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.image.ProgramImage;

/** Runs a program on the simulated board; the console goes to standard output. */
@Command(
        name = "run",
        description = "Runs a program on the simulated board.",
        mixinStandardHelpOptions = true)
final class RunCommand implements Callable<Integer> {
    private static final double SLICE_SECONDS = 0.002;
    private static final double DEFAULT_SECONDS = 10;
    private static final int LAST_SLICES = 10;

    @Spec private CommandSpec spec;

    @Mixin private OwnBlocks blocks;

    @Parameters(paramLabel = "PLATFORM.json", description = "the platform document")
    private Path file;

    @Mixin private ProgramOptions program;

    @Option(
            names = "--beside",
            paramLabel = "PROCESSOR=FILE",
            description = "a program for a further processor, which runs at the same time")
    private Map<String, Path> beside = new LinkedHashMap<>();

    @Option(
            names = "--check-memory",
            description =
                    "say what is read before it was written, what blocks write over instructions or"
                            + " the stack, and what they read without a FENCE before")
    private boolean checkMemory;

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

    /** What is typed, and when. */
    static final class Typed {
        @Option(
                names = "--after",
                paramLabel = "PROMPT",
                description = "what the console has to have said before the next --type")
        private String prompt;

        @Option(
                names = "--type",
                paramLabel = "TEXT",
                required = true,
                description = "characters that arrive at the console; \\n is a line end")
        private String text;
    }

    @ArgGroup(exclusive = false, multiplicity = "0..*")
    private List<Typed> typed = new ArrayList<>();

    @Override
    public Integer call() throws Exception {
        double limit = seconds == null ? DEFAULT_SECONDS : seconds;
        if (!(limit > 0 && limit <= 86_400)) {
            throw new BadInput("--seconds lies between 0 and 86400");
        }
        ElaboratedPlatform platform = Inputs.platform(file, blocks);
        if (CheckCommand.refuses(platform, spec.commandLine().getErr())) {
            return CommandLineApplication.FINDINGS;
        }
        PrintWriter err = spec.commandLine().getErr();
        ProgramImage image = program.image(platform, 0, err);
        Machine machine = new Machine(image.view(), MemoryShare.ample(), models());
        List<ProgramImage> others = new ArrayList<>();
        for (Map.Entry<String, Path> each : beside.entrySet()) {
            others.add(ProgramOptions.beside(platform, each.getKey(), each.getValue(), err));
        }
        if (checkMemory) {
            machine.checkMemory();
        }
        machine.load(image, others);
        UartModel console =
                machine.console()
                        .orElseThrow(
                                () ->
                                        new BadInput(
                                                "%s reaches no UART for a console"
                                                        .formatted(image.view().name())));
        int status = new Run(machine, console, limit).call(spec.commandLine().getOut(), err);
        machine.close();
        machine.notices().forEach(notice -> err.println("polymetron: " + notice.text()));
        return machine.notices().isEmpty() ? status : CommandLineApplication.FINDINGS;
    }

    /** One run: says what the console says, types what is to be typed, and ends when there is a reason. */
    private final class Run {
        private final Machine machine;
        private final UartModel console;
        private final double limit;
        private final StringBuilder said = new StringBuilder();
        private int next;
        private int seen;

        private Run(Machine machine, UartModel console, double limit) {
            this.machine = machine;
            this.console = console;
            this.limit = limit;
        }

        private int call(PrintWriter out, PrintWriter err) {
            long slice = Math.max(1, (long) (machine.clockHz() * SLICE_SECONDS));
            // A program that has come to its end may still be sending.
            int last = 0;
            while (machine.seconds() < limit && last < LAST_SLICES) {
                type();
                machine.run(slice);
                last = machine.isStuck() ? last + 1 : 0;
                String text = new String(console.takeSent(), StandardCharsets.ISO_8859_1);
                if (!text.isEmpty()) {
                    out.print(text);
                    out.flush();
                    said.append(text);
                    if (until != null && said.indexOf(until) >= 0) {
                        return 0;
                    }
                }
            }
            return end(err, last >= LAST_SLICES);
        }

        /** Types what is next, once its prompt was there after the one before. */
        private void type() {
            while (next < typed.size()) {
                Typed each = typed.get(next);
                if (each.prompt != null) {
                    int at = said.indexOf(each.prompt, seen);
                    if (at < 0) {
                        return;
                    }
                    seen = at + each.prompt.length();
                }
                console.arrive(each.text.replace("\\n", "\n").getBytes(StandardCharsets.UTF_8));
                machine.settle();
                next++;
            }
        }

        private int end(PrintWriter err, boolean stuck) {
            if (stuck) {
                err.println("polymetron: " + machine.lastTrap());
                return CommandLineApplication.FINDINGS;
            }
            if (until != null) {
                err.printf(
                        Locale.ROOT,
                        "polymetron: the console did not say '%s' within %s s%n",
                        until,
                        limit);
                return CommandLineApplication.FINDINGS;
            }
            if (next < typed.size()) {
                err.printf(
                        Locale.ROOT,
                        "polymetron: the console did not say '%s' within %s s, so '%s' was not"
                                + " typed%n",
                        typed.get(next).prompt,
                        limit,
                        typed.get(next).text);
                return CommandLineApplication.FINDINGS;
            }
            return 0;
        }
    }

    /** Models of own blocks are kept between runs, where no other user can put programs that run here. */
    static ForeignModels models() {
        return new ForeignModels(
                Path.of(System.getProperty("user.home"), ".cache", "polymetron", "models"));
    }
}
