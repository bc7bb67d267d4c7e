package polymetron.output.image;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Random;
import java.util.function.Consumer;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.Fingerprint;
import polymetron.outside.Tool;

/** Offsets are those of the System V gABI, chapters 4 and 5, for ELFCLASS32. */
final class ElfReaderTest {
    private static final int FIRST_SEGMENT = 52;

    /** Two segments of the same sort, as a linker would write them, with room to spoil them. */
    private static byte[] twoSegments() {
        ByteBuffer file = ByteBuffer.allocate(256).order(ByteOrder.LITTLE_ENDIAN);
        file.put(new byte[] {0x7F, 'E', 'L', 'F', 1, 1, 1});
        file.putShort(16, (short) 2).putShort(18, (short) 243).putInt(20, 1);
        file.putInt(24, 0x100).putInt(28, FIRST_SEGMENT);
        file.putShort(40, (short) 52).putShort(42, (short) 32).putShort(44, (short) 2);
        for (int index = 0; index < 2; index++) {
            int at = FIRST_SEGMENT + 32 * index;
            file.putInt(at, 1).putInt(at + 4, 128 + 32 * index);
            file.putInt(at + 8, 0x100 + 0x20 * index).putInt(at + 12, 0x100 + 0x20 * index);
            file.putInt(at + 16, 32).putInt(at + 20, 32).putInt(at + 24, 5);
        }
        return file.array();
    }

    private static void refused(byte[] file, Consumer<ByteBuffer> spoil, String message) {
        byte[] spoilt = file.clone();
        spoil.accept(ByteBuffer.wrap(spoilt).order(ByteOrder.LITTLE_ENDIAN));
        assertThatThrownBy(() -> ElfReader.read(spoilt))
                .isInstanceOf(ProgramFileException.class)
                .hasMessageContaining(message);
    }

    @Test
    void refusesWhatIsNoProgramForTheProcessorAndSaysWhy() {
        byte[] good = twoSegments();
        assertThat(ElfReader.read(good).segments()).hasSize(2);
        refused(good, file -> file.put(1, (byte) 'F'), "not an ELF file");
        refused(good, file -> file.put(4, (byte) 2), "64-bit");
        refused(good, file -> file.put(5, (byte) 2), "not little-endian");
        refused(good, file -> file.putShort(16, (short) 1), "relocatable object");
        refused(good, file -> file.putShort(18, (short) 40), "machine 40");
        refused(good, file -> file.putShort(44, (short) 0), "no loadable segment");
        refused(good, file -> file.putShort(42, (short) 8), "entries of 8 bytes");
        refused(good, file -> file.putInt(28, -4), "cut off");
        refused(good, file -> file.putInt(FIRST_SEGMENT + 4, 250), "cut off");
        refused(good, file -> file.putInt(FIRST_SEGMENT + 20, 16), "only 16 in memory");
        refused(good, file -> file.putInt(FIRST_SEGMENT + 20, -1), "32-bit address space");
        refused(good, file -> file.putInt(FIRST_SEGMENT + 16, 0x7FFF_FFFF), "bytes in the file");
        refused(good, file -> file.putInt(FIRST_SEGMENT + 12, 0x110), "loaded over each other");
        refused(good, file -> file.putInt(FIRST_SEGMENT + 20, 64), "used over each other");
    }

    @Test
    void refusesForeignProgramsOfTheMachine(@TempDir Path folder) throws IOException {
        assertThatThrownBy(() -> ElfReader.read(Files.readAllBytes(Path.of("/bin/sh"))))
                .isInstanceOf(ProgramFileException.class)
                .hasMessageContaining("64-bit");
        Tool.write(folder, "e.c", "int main(void) { return 0; }");
        Tool.run(
                folder,
                "riscv64-unknown-elf-gcc",
                "-march=rv32imc",
                "-mabi=ilp32",
                "-nostdlib",
                "-Wl,-emain",
                "e.c",
                "-o",
                "compressed");
        ProgramFile compressed = ElfReader.read(Files.readAllBytes(folder.resolve("compressed")));
        assertThat(compressed.isCompressed()).isTrue();
        assertThat(
                        ProgramImage.of(Shipped.elaborate(Shipped.demo()), compressed, (byte) 0)
                                .problems())
                .anyMatch(
                        problem ->
                                problem.contains(
                                        "cpu has none; compile with -march=rv32im -mabi=ilp32"
                                                + " -misa-spec=2.2"));
        Tool.run(
                folder,
                "riscv64-unknown-elf-gcc",
                "-march=rv32im",
                "-misa-spec=2.2",
                "-mabi=ilp32",
                "-c",
                "e.c",
                "-o",
                "object");
        assertThatThrownBy(() -> ElfReader.read(Files.readAllBytes(folder.resolve("object"))))
                .hasMessageContaining("link it");
    }

    @Test
    void everyTruncationIsAClearError() {
        byte[] good = Shipped.demoProgram();
        for (int length = 0; length < good.length; length += length < 200 ? 1 : 97) {
            byte[] cut = Arrays.copyOf(good, length);
            assertThatThrownBy(() -> ElfReader.read(cut)).isInstanceOf(ProgramFileException.class);
        }
    }

    /** Whatever bytes are spoilt, it is a program or a clear error, and never anything else. */
    @RepeatedTest(20)
    void spoiltBytesNeverDoHarm(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        for (int count = 0; count < 400; count++) {
            byte[] file = random.nextBoolean() ? twoSegments() : Shipped.demoProgram();
            for (int spoilt = 0; spoilt < 4; spoilt++) {
                file[random.nextInt(Math.min(file.length, 200))] = (byte) random.nextInt();
            }
            try {
                ProgramImage.of(Shipped.elaborate(Shipped.demo()), ElfReader.read(file), (byte) 0);
            } catch (ProgramFileException clear) {
                assertThat(clear.getMessage()).isNotBlank();
            }
        }
    }

    @Test
    void agreesWithReadelf(@TempDir Path folder) {
        Tool.write(folder, "demo.elf", Shipped.demoProgram());
        String table = Tool.run(folder, "riscv64-unknown-elf-readelf", "-SW", "demo.elf");
        ProgramFile program = ElfReader.read(Shipped.demoProgram());
        assertThat(program.sections()).isNotEmpty();
        for (ProgramFile.Section section : program.sections()) {
            assertThat(table)
                    .containsPattern(
                            "\\] %s +\\w+ +%08x \\w+ %06x"
                                    .formatted(
                                            section.name().replace(".", "\\."),
                                            section.address(),
                                            section.sizeBytes()));
        }
    }

    /** readelf finds the same note, owner and bytes, and it is that of the platform the program was linked for. */
    @Test
    void theNoteSaysWhichPlatformTheProgramIsFor(@TempDir Path folder) {
        Tool.write(folder, "demo.elf", Shipped.demoProgram());
        String notes = Tool.run(folder, "riscv64-unknown-elf-readelf", "-n", "demo.elf");
        ElaboratedPlatform demo = Shipped.elaborate(Shipped.demo());
        String fingerprint = Fingerprint.of(demo);
        StringBuilder digits = new StringBuilder();
        fingerprint.chars().forEach(digit -> digits.append("%02x ".formatted(digit)));
        assertThat(notes).contains("polymetron", "description data: " + digits);
        ProgramFile program = ElfReader.read(Shipped.demoProgram());
        assertThat(program.fingerprint()).isEqualTo(fingerprint);
        assertThat(ProgramImage.of(demo, program, (byte) 0).mismatch()).isNull();

        ElaboratedPlatform moved =
                Shipped.elaborate(
                        new Editor(Shipped.LIBRARY)
                                .apply(
                                        Shipped.demo(),
                                        new Edit.Attach(
                                                "lamps",
                                                "registers",
                                                "system",
                                                new Address(0x1000_8000),
                                                null)));
        ProgramImage elsewhere = ProgramImage.of(moved, program, (byte) 0);
        assertThat(elsewhere.fits()).isTrue();
        assertThat(elsewhere.mismatch()).contains(fingerprint, Fingerprint.of(moved));
    }
}
