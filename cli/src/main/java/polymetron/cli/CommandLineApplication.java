package polymetron.cli;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import polymetron.bench.machine.BenchException;
import polymetron.edit.RejectedEdit;
import polymetron.json.DocumentException;
import polymetron.output.image.ProgramFileException;

/** Polymetron without a browser and without a database: the same core, the same bytes. */
@Command(
        name = "polymetron",
        description = "Checks, exports and runs hardware platforms.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            NewCommand.class,
            BlockCommand.class,
            CheckCommand.class,
            ExportCommand.class,
            ImageCommand.class,
            RunCommand.class,
            ProveCommand.class,
            MeasureCommand.class
        })
public final class CommandLineApplication {
    static final int FINDINGS = 1;
    static final int BAD_INPUT = 2;

    private CommandLineApplication() {}

    public static void main(String[] arguments) {
        System.exit(
                execute(
                        new PrintWriter(System.out, true),
                        new PrintWriter(System.err, true),
                        arguments));
    }

    /**
     * Runs one command.
     *
     * @return 0, 1 for findings of error grade, 2 for bad input, which is explained in one line
     */
    public static int execute(PrintWriter out, PrintWriter err, String... arguments) {
        CommandLine line = commands();
        line.setOut(out);
        line.setErr(err);
        line.setParameterExceptionHandler(
                (wrong, args) -> {
                    err.println("polymetron: " + oneLine(wrong.getMessage()));
                    return BAD_INPUT;
                });
        line.setExecutionExceptionHandler(
                (failure, command, parsed) -> {
                    err.println("polymetron: " + oneLine(explain(failure)));
                    return BAD_INPUT;
                });
        return line.execute(arguments);
    }

    /** All commands with their options. */
    static CommandLine commands() {
        return new CommandLine(new CommandLineApplication());
    }

    private static String explain(Exception failure) {
        return switch (failure) {
            case NoSuchFileException missing -> "there is no file " + missing.getFile();
            case DocumentException wrong -> wrong.getMessage();
            case ProgramFileException wrong -> wrong.getMessage();
            case RejectedEdit wrong -> wrong.getMessage();
            case BenchException wrong -> wrong.getMessage();
            case java.io.IOException wrong -> "cannot read or write: " + wrong.getMessage();
            case BadInput wrong -> wrong.getMessage();
            default -> {
                Path report = report(failure);
                yield "this is a defect of Polymetron%s"
                        .formatted(
                                report == null
                                        ? ""
                                        : "; please send %s with what you did".formatted(report));
            }
        };
    }

    /** Writes down what a person need not read; null when that is not possible either. */
    private static Path report(Exception failure) {
        try {
            Path file = Files.createTempFile("polymetron-defect-", ".txt");
            StringWriter trace = new StringWriter();
            failure.printStackTrace(new PrintWriter(trace));
            return Files.writeString(file, trace.toString());
        } catch (java.io.IOException none) {
            return null;
        }
    }

    private static String oneLine(String message) {
        return message == null ? "unknown" : message.replaceAll("\\s*\\R\\s*", " ");
    }
}
