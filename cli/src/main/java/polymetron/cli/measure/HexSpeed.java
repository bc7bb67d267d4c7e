package polymetron.cli.measure;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.LibraryLoader;
import polymetron.output.image.ElfReader;
import polymetron.output.image.IntelHex;
import polymetron.output.image.ProgramImage;

/** A program of 16 MiB from ELF to Intel HEX, beside objcopy; both from file to file. */
final class HexSpeed implements Measurement {
    private static final int SIZE = 16 * 1024 * 1024;

    private final Path folder;

    HexSpeed(Path folder) {
        this.folder = folder;
    }

    @Override
    public String title() {
        return "ELF to Intel HEX, 16 MiB, beside objcopy";
    }

    @Override
    public String measure() throws Exception {
        byte[] contents = new byte[SIZE];
        new Random(16).nextBytes(contents);
        Files.write(folder.resolve("contents.bin"), contents);
        Outside.write(
                folder,
                "large.ld",
                "ENTRY(_start)\nSECTIONS { . = 0; .text : { *(.text) } /DISCARD/ : { *(*) } }\n");
        Outside.compile(folder, "large.S", "large.elf", List.of("-T", "large.ld"));
        ElaboratedPlatform platform =
                new Elaborator(LibraryLoader.load())
                        .elaborate(
                                Blocks.platform(
                                        "Large program",
                                        List.of(Blocks.memory("memory", 0, SIZE))));
        Repeat.Pair times =
                Repeat.inTurns(
                        3,
                        9,
                        () -> convert(platform),
                        () ->
                                Outside.run(
                                        folder,
                                        List.of(
                                                "riscv64-unknown-elf-objcopy",
                                                "-O",
                                                "ihex",
                                                "large.elf",
                                                "theirs.hex")));
        boolean same =
                Arrays.equals(data(folder.resolve("ours.hex")), data(folder.resolve("theirs.hex")));
        return """
        | | time |
        |---|---:|
        | Polymetron, without the start of its JVM | %s |
        | riscv64-unknown-elf-objcopy | %s |
        | ratio | %s |

        Both outputs carry %s bytes. Aim: a ratio of at most 1.
        """
                .formatted(
                        Machine.millis(times.one()),
                        Machine.millis(times.other()),
                        Machine.ratio(times.ratio()),
                        same ? "the same" : "DIFFERENT");
    }

    private Path convert(ElaboratedPlatform platform) throws Exception {
        ProgramImage image =
                ProgramImage.of(
                        platform,
                        ElfReader.read(Files.readAllBytes(folder.resolve("large.elf"))),
                        (byte) 0);
        return Files.write(
                folder.resolve("ours.hex"),
                IntelHex.write(image.chunks(), image.program().entry()));
    }

    /** The data records alone: both say in their own way where the program starts. */
    private static byte[] data(Path file) throws Exception {
        StringBuilder records = new StringBuilder();
        for (String line : Files.readAllLines(file)) {
            if (line.startsWith("00", 7)) {
                records.append(line.strip()).append('\n');
            }
        }
        return records.toString().getBytes(java.nio.charset.StandardCharsets.US_ASCII);
    }
}
