package polymetron.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.OptionalLong;
import picocli.CommandLine.Option;
import polymetron.address.Address;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramFile;
import polymetron.output.image.ProgramFileException;
import polymetron.output.image.ProgramImage;
import polymetron.output.image.ProgramReader;
import polymetron.software.Programs;
import polymetron.software.SoftwareView;

/** The program that a command is given, and the processor that it is for. */
final class ProgramOptions {
    @Option(
            names = {"--program", "--elf"},
            paramLabel = "FILE",
            required = true,
            description = "the program: ELF, Intel HEX, S-record or plain bytes")
    private Path file;

    @Option(
            names = "--at",
            paramLabel = "ADDRESS",
            description = "where a program of plain bytes begins; other programs say it themselves")
    private String at;

    @Option(
            names = "--processor",
            paramLabel = "NAME",
            description = "the processor that runs it, where a platform has several")
    private String processor;

    /** The program laid out in the memories of its processor. */
    ProgramImage image(ElaboratedPlatform platform, int fill, PrintWriter err) throws IOException {
        SoftwareView chosen = chosen(platform);
        ProgramFile program = read(file, base());
        ProgramImage image =
                chosen == null
                        ? ProgramImage.of(platform, program, (byte) fill)
                        : ProgramImage.of(chosen, program, (byte) fill);
        List<String> others =
                Programs.of(platform).names().stream()
                        .filter(name -> !name.equals(image.view().name()))
                        .toList();
        if (!others.isEmpty()) {
            err.println(
                    "for %s; not for %s, which --processor chooses"
                            .formatted(image.view().name(), String.join(", ", others)));
        }
        if (image.mismatch() != null) {
            err.println("warning: " + image.mismatch());
        }
        return image;
    }

    /** A program for a further processor, beside the first one. */
    static ProgramImage beside(
            ElaboratedPlatform platform, String processor, Path file, PrintWriter err)
            throws IOException {
        ProgramImage image =
                ProgramImage.of(
                        named(platform, "--beside", processor),
                        read(file, OptionalLong.empty()),
                        (byte) 0);
        if (image.mismatch() != null) {
            err.println("warning: " + image.mismatch());
        }
        return image;
    }

    private SoftwareView chosen(ElaboratedPlatform platform) {
        return processor == null ? null : named(platform, "--processor", processor);
    }

    private static SoftwareView named(
            ElaboratedPlatform platform, String option, String processor) {
        return Programs.of(platform)
                .named(processor)
                .orElseThrow(
                        () ->
                                new BadInput(
                                        "%s: there is no processor %s with a data side on a bus; there is %s"
                                                .formatted(
                                                        option,
                                                        processor,
                                                        Programs.of(platform).names().isEmpty()
                                                                ? "none"
                                                                : String.join(
                                                                        ", ",
                                                                        Programs.of(platform)
                                                                                .names()))));
    }

    private static ProgramFile read(Path file, OptionalLong base) throws IOException {
        Inputs.requireFile(file);
        if (Files.size(file) > ElfReader.LARGEST) {
            throw new ProgramFileException(
                    "%s has %s bytes; at most %s are read"
                            .formatted(file, Files.size(file), ElfReader.LARGEST));
        }
        try {
            return ProgramReader.read(Files.readAllBytes(file), base);
        } catch (ProgramFileException wrong) {
            throw new ProgramFileException("%s: %s".formatted(file, wrong.getMessage()));
        }
    }

    private OptionalLong base() {
        if (at == null) {
            return OptionalLong.empty();
        }
        try {
            return OptionalLong.of(Address.parse(at).bits());
        } catch (IllegalArgumentException wrong) {
            throw new BadInput("--at: " + wrong.getMessage());
        }
    }
}
