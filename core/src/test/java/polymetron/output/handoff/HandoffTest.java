package polymetron.output.handoff;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.elaborate.Field;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;
import polymetron.json.Documents;
import polymetron.output.Fingerprint;
import polymetron.output.HandoffFile;
import polymetron.outside.Tool;
import polymetron.ownblock.OwnBlockExamples;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.software.SoftwareView;

final class HandoffTest {
    private static final String[] STRICT = {"-std=c11", "-Wall", "-Wextra", "-Werror", "-pedantic"};
    private final Editor editor = new Editor(Shipped.LIBRARY);
    private final ElaboratedPlatform demo = Shipped.elaborate(Shipped.demo());
    private final Handoff handoff = Handoff.of(demo);

    private void writeAll(Path folder) {
        handoff.files().forEach(file -> Tool.write(folder, file.path(), file.bytes()));
    }

    private static String[] command(String... parts) {
        List<String> all = new ArrayList<>(List.of(parts));
        all.addAll(1, List.of(STRICT));
        return all.toArray(String[]::new);
    }

    /** What a C compiler makes of the header, against the elaborated platform. */
    @Test
    void headerSaysWhatThePlatformIs(@TempDir Path folder) {
        writeAll(folder);
        StringBuilder program =
                new StringBuilder("#include \"ridge_station.h\"\n#include <stdio.h>\n");
        program.append("int main(void)\n{\n");
        List<String> wanted = new ArrayList<>();
        SoftwareView view = SoftwareView.of(demo);
        for (TargetRange target : view.targets()) {
            String name = target.label().toUpperCase(java.util.Locale.ROOT);
            print(program, wanted, name + "_BASE", target.range().base());
            print(program, wanted, name + "_SIZE", target.form().sizeBytes());
            for (InterruptLink link : view.linksOf(target.block())) {
                if (link.source().type().line().equals("device")) {
                    print(
                            program,
                            wanted,
                            name
                                    + "_"
                                    + link.source().name().toUpperCase(java.util.Locale.ROOT)
                                    + "_PLIC_SOURCE",
                            link.wire().input());
                }
            }
            for (Register register : target.block().shape().registers()) {
                String macro = name + "_" + register.name();
                String at = register.isRow() ? "_OFFSET(" + register.first() + "u)" : "_OFFSET";
                print(program, wanted, macro + at, register.offset());
                for (Field field : register.fields()) {
                    if (field.bits() < register.width()) {
                        String bits = macro + "_" + field.name();
                        print(program, wanted, bits + "_MASK", field.mask());
                        print(program, wanted, bits + "_SHIFT", field.lowBit());
                    }
                }
            }
        }
        print(program, wanted, "CLOCK_MAIN_HZ", 50_000_000);
        print(program, wanted, "CONSOLE_DIVISOR", 27);
        program.append("return 0;\n}\n");
        Tool.write(folder, "check.c", program.toString());
        Tool.run(folder, command("gcc", "check.c", "-o", "check"));
        assertThat(Tool.run(folder, folder.resolve("check").toString()).strip().split("\n"))
                .containsExactlyElementsOf(wanted);
        Tool.run(
                folder,
                command(
                        "riscv64-unknown-elf-gcc",
                        "-march=rv32im",
                        "-misa-spec=2.2",
                        "-mabi=ilp32",
                        "-ffreestanding",
                        "-include",
                        "ridge_station.h",
                        "-c",
                        "-x",
                        "c",
                        "/dev/null",
                        "-o",
                        "none.o"));
    }

    private static void print(
            StringBuilder program, List<String> wanted, String macro, long value) {
        program.append(
                "printf(\"%s %%llu\\n\", (unsigned long long)(%s));\n".formatted(macro, macro));
        wanted.add(macro + " " + Long.toUnsignedString(value));
    }

    @Test
    void headerRefusesAMapThatOverlaps(@TempDir Path folder) {
        Platform broken =
                editor.apply(
                        Shipped.demo(),
                        new Edit.Attach(
                                "lamps", "registers", "system", new Address(0x1000_0800), null));
        Handoff.of(Shipped.elaborate(broken))
                .files()
                .forEach(file -> Tool.write(folder, file.path(), file.bytes()));
        Tool.Outcome outcome =
                Tool.tryRun(
                        folder,
                        command(
                                "gcc",
                                "-include",
                                "ridge_station.h",
                                "-c",
                                "-x",
                                "c",
                                "/dev/null",
                                "-o",
                                "none.o"));
        assertThat(outcome.status()).isNotZero();
        assertThat(outcome.output()).contains("overlap");
    }

    /** The demo program, built from source with the exported files, is the one that is shipped. */
    @Test
    void demoProgramIsBuiltFromTheHandoff(@TempDir Path folder) throws IOException {
        writeAll(folder);
        Tool.write(folder, "demo/station.c", Shipped.file("demo/station.c"));
        Tool.write(folder, "demo/build", Shipped.file("demo/build"));
        Tool.run(
                folder,
                "sh",
                "demo/build",
                folder.toString(),
                "ridge_station",
                folder.resolve("built.elf").toString());
        assertThat(java.nio.file.Files.readAllBytes(folder.resolve("built.elf")))
                .isEqualTo(Shipped.demoProgram());
        String headers = Tool.run(folder, "riscv64-unknown-elf-readelf", "-hlSW", "built.elf");
        assertThat(headers)
                .contains("Entry point address:               0x0")
                .containsPattern("\\.text +PROGBITS +00000000")
                .containsPattern("LOAD +0x\\w+ 0x00000000 0x00000000");
    }

    /** The large station and the lock have programs of their own, with every driver of them. */
    @ParameterizedTest
    @CsvSource({
        "highland-station, highland.c, 25",
        "canal-lock, lock.c, 13",
        "harbour-light, harbour.c, 7"
    })
    void demoProgramsAreBuiltFromTheirHandoff(
            String name, String source, int blocks, @TempDir Path folder) throws IOException {
        Platform large =
                PlatformDocument.read(
                        name + ".json",
                        new String(
                                Shipped.file("demo/" + name + ".json"),
                                java.nio.charset.StandardCharsets.UTF_8));
        assertThat(large.blocks()).hasSizeGreaterThanOrEqualTo(blocks);
        for (HandoffFile file :
                Handoff.of(new Elaborator(OwnBlockExamples.harbour()).elaborate(large)).files()) {
            Tool.write(folder, file.path(), file.text());
        }
        Tool.write(folder, "demo/" + source, Shipped.file("demo/" + source));
        Tool.write(folder, "demo/build", Shipped.file("demo/build"));
        Tool.run(
                folder,
                "sh",
                "demo/build",
                folder.toString(),
                name.replace('-', '_'),
                folder.resolve("built.elf").toString(),
                source);
        assertThat(java.nio.file.Files.readAllBytes(folder.resolve("built.elf")))
                .isEqualTo(Shipped.file("demo/" + name + ".elf"));
    }

    @Test
    void everyFileCarriesTheFingerprint() {
        assertThat(handoff.files()).hasSizeGreaterThan(7);
        assertThat(handoff.files())
                .allSatisfy(file -> assertThat(file.text()).contains(handoff.fingerprint()));
    }

    @Test
    void sameInputGivesTheSameBytes() {
        Handoff again = Handoff.of(Shipped.elaborate(Shipped.demo()));
        assertThat(again.files()).isEqualTo(handoff.files());
        assertThat(again.zip()).isEqualTo(handoff.zip());
    }

    @Test
    void archiveHoldsEveryFileBelowOneFolder() throws IOException {
        List<String> names = new ArrayList<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(handoff.zip()))) {
            for (var entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                names.add(entry.getName());
            }
        }
        assertThat(names)
                .containsExactlyElementsOf(
                        handoff.files().stream()
                                .map(file -> "ridge_station/" + file.path())
                                .toList());
        assertThat(names).noneMatch(name -> name.contains("..") || name.startsWith("/"));
    }

    @Test
    void fingerprintChangesWithWhatSoftwareSeesAndNothingElse() {
        String before = Fingerprint.of(demo);
        Edit[] visible = {
            new Edit.Attach("lamps", "registers", "system", new Address(0x1000_8000), null),
            new Edit.SetParameter("console", "BAUD", "9600"),
            new Edit.RenameBlock("lamps", "lights"),
            new Edit.ConnectInterrupt("service", "irq", "interrupts", "inputs", 9),
            new Edit.RemoveBlock("gain"),
        };
        Edit[] invisible = {
            new Edit.RenamePlatform("Another name"),
            new Edit.Unbind("lamps", "lines"),
            new Edit.Attach("lamps", "registers", "system", new Address(0x1000_2000), true),
        };
        for (Edit edit : visible) {
            assertThat(of(edit)).as(edit.describe()).isNotEqualTo(before);
        }
        for (Edit edit : invisible) {
            assertThat(of(edit)).as(edit.describe()).isEqualTo(before);
        }
    }

    private String of(Edit edit) {
        return Fingerprint.of(Shipped.elaborate(editor.apply(Shipped.demo(), edit)));
    }

    @Test
    void tableAndDocumentAgreeOnTheMap() {
        var map = Documents.tree("map", text("_map.json"));
        List<String> rows = new ArrayList<>();
        for (var space : map.path("spaces")) {
            for (var range : space.path("ranges")) {
                rows.add(
                        "%s,%s,%s,%s,%s,%s,%d"
                                .formatted(
                                        handoff.fingerprint(),
                                        space.path("initiator").stringValue(),
                                        range.path("block").stringValue(),
                                        range.path("busInterface").stringValue(),
                                        range.path("base").stringValue(),
                                        range.path("last").stringValue(),
                                        range.path("sizeBytes").longValue()));
            }
        }
        String[] lines = text("_map.csv").split("\n");
        assertThat(rows).hasSize(lines.length - 1).hasSize(8);
        for (int at = 0; at < rows.size(); at++) {
            assertThat(lines[at + 1]).startsWith(rows.get(at) + ",");
        }
    }

    private String text(String ending) {
        return handoff.files().stream()
                .filter(file -> file.path().endsWith(ending))
                .findFirst()
                .orElseThrow()
                .text();
    }

    @Test
    void referenceGivesEveryRegisterItsAbsoluteAddress() {
        assertThat(text("_registers.md"))
                .contains("| LSR | `0x1000_0014` | `+0x14` | 8 | read-only | `0x60` |")
                .contains("| CLAIM | `0x1420_0004` |")
                .contains("Interrupt `irq`: source 1 of interrupts (RISC-V PLIC).");
    }

    @Test
    void aPlannedPriorityIsInTheHeader() {
        polymetron.platform.Platform planned =
                new polymetron.edit.Editor(Shipped.LIBRARY)
                        .apply(
                                Shipped.demo(),
                                new polymetron.edit.Edit.SetInterruptPriority("console", "irq", 3));
        String header =
                Handoff.of(Shipped.elaborate(planned)).files().stream()
                        .filter(file -> file.path().endsWith(".h") && !file.path().contains("/"))
                        .findFirst()
                        .orElseThrow()
                        .text();
        assertThat(header).contains("CONSOLE_IRQ_PRIORITY").contains("PLATFORM_U(3)");
        assertThat(Fingerprint.of(Shipped.elaborate(planned)))
                .isNotEqualTo(Fingerprint.of(Shipped.elaborate(Shipped.demo())));
    }

    /** Documents made elsewhere may have any title: the header compiles, and the checks say what is wrong with it. */
    @Test
    void aTitleOfSeveralLinesMakesAHeaderThatCompiles(@TempDir Path folder) {
        Platform strange =
                Shipped.demo()
                        .withName("Ridge\n#error Station\r\u2028\u202Eback\u0007 */ \\ \"??/");
        ElaboratedPlatform elaborated = Shipped.elaborate(strange);
        assertThat(polymetron.finding.Checks.run(elaborated))
                .anyMatch(finding -> finding.rule().equals("platform-name"));
        Handoff made = Handoff.of(elaborated);
        for (HandoffFile file : made.files()) {
            Tool.write(folder, file.path(), file.bytes());
            assertThat(file.text().codePoints().filter(each -> each == 0x202E || each == 0x2028))
                    .as(file.path())
                    .isEmpty();
        }
        Tool.write(
                folder,
                "t.c",
                "#include \"%s.h\"\nint main(void) { return 0; }".formatted(made.baseName()));
        Tool.run(folder, command("gcc", "-trigraphs", "t.c", "-o", "t"));
        for (String name : new String[] {"two\nlines", "to\u202Ethe left", "zero\u200Bwidth"}) {
            org.assertj.core.api.Assertions.assertThatThrownBy(
                            () -> editor.apply(Shipped.demo(), new Edit.RenamePlatform(name)))
                    .hasMessageContaining("not shown");
        }
    }

    /** A 32-bit hart names nothing from 4 GiB on: no macro, no row of its map, no region. */
    @Test
    void whatAHartCannotAddressIsInNothingOfIts() {
        Platform far =
                editor.apply(
                        Shipped.demo(),
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.ChangeBus(
                                                new polymetron.platform.Bus(
                                                        "system",
                                                        Protocol.AXI4_LITE,
                                                        32,
                                                        40,
                                                        "main")),
                                        new Edit.Attach(
                                                "lamps",
                                                "registers",
                                                "system",
                                                new Address(0x12_0000_0000L),
                                                null))));
        for (HandoffFile file : Handoff.of(Shipped.elaborate(far)).files()) {
            if (!file.path().endsWith("_pins.csv") && !file.path().endsWith("_timing.tcl")) {
                assertThat(file.text()).as(file.path()).doesNotContainIgnoringCase("lamps_base");
                assertThat(file.text()).as(file.path()).doesNotContain("0x1200000000");
            }
        }
    }
}
