package polymetron.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.library.Vlnv;
import polymetron.platform.Bus;
import polymetron.platform.Platform;

/** What goes wrong for software: programs, buffers, names and harts. Each finding is provoked, and each fix settles it. */
final class SoftwareChecksTest {
    static final List<String> PROVOKED =
            breakages().map(each -> (String) each.get()[0]).distinct().toList();

    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private static Arguments breaking(String rule, String subject, String words, Edit... edits) {
        return Arguments.of(rule, subject, words, List.of(edits));
    }

    private static Edit add(String name, String type, Map<String, String> parameters, long base) {
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddBlock(name, Vlnv.parse("polymetron:" + type + ":1.0"), parameters));
        edits.add(new Edit.SetDomain(name, "clk", "main"));
        edits.add(new Edit.SetDomain(name, "rst", "main"));
        edits.add(new Edit.Attach(name, "registers", "system", new Address(base), null));
        return new Edit.Several(null, edits);
    }

    /** A block that writes a buffer by itself. */
    static Edit recorder(String base, String size) {
        return new Edit.Several(
                null,
                List.of(
                        add(
                                "recorder",
                                "data-movement:ring-writer",
                                Map.of("RUN", "1", "BASE", base, "SIZE", size),
                                0x1006_0000),
                        new Edit.Attach("recorder", "writes", "system", null, null)));
    }

    static Stream<Arguments> breakages() {
        return Stream.of(
                breaking(
                        "target-beyond-addresses",
                        "lamps.registers",
                        "beyond the 32 address bits of cpu · data side",
                        new Edit.ChangeBus(new Bus("system", Protocol.AXI4_LITE, 32, 40, "main")),
                        new Edit.Attach(
                                "lamps",
                                "registers",
                                "system",
                                new Address(0x12_0000_0000L),
                                null)),
                breaking(
                        "header-name",
                        "flash",
                        "flash_memory and flash both lead to the macro FLASH_MEMORY_BASE",
                        new Edit.RenameBlock("lamps", "flash_memory"),
                        add("flash", "memory:flash-controller", Map.of(), 0x1007_0000),
                        new Edit.Attach(
                                "flash", "memory", "system", new Address(0x2000_0000), null)),
                breaking(
                        "header-name",
                        "int8",
                        "int8 leads to the macro INT8_WIDTH, which C or the header itself has",
                        add("int8", "timer:general-timer", Map.of(), 0x1007_0000)),
                breaking(
                        "platform-name",
                        "platform",
                        "stdint.h is a header of C or POSIX",
                        new Edit.RenamePlatform("Stdint")),
                breaking(
                        "buffer-outside-memory",
                        "recorder.BASE",
                        "where it reaches no memory",
                        recorder("0x3000_0000", "4096")),
                breaking(
                        "buffer-outside-memory",
                        "recorder.BASE",
                        "past the end of code",
                        recorder("0x3000", "8192")),
                breaking(
                        "buffer-over-program",
                        "recorder.BASE",
                        "over the start of the program of cpu",
                        recorder("0x0000", "4096")),
                breaking(
                        "buffer-over-program",
                        "recorder.BASE",
                        "over nearly all the memory of the program of cpu",
                        recorder("0x0100", "4096")),
                breaking(
                        "program-room",
                        "cpu.RESET_VECTOR",
                        "the program of cpu has 64 bytes of code",
                        Shipped.secondProcessor("0x40")),
                breaking(
                        "memory-divided",
                        "code",
                        "code is divided: cpu has 0x0000_0000–0x0000_1FFF, cpu2 has"
                                + " 0x0000_2000–0x0000_3FFF",
                        Shipped.secondProcessor("0x2000")),
                breaking(
                        "hart-never-released",
                        "cpu2",
                        "no software interrupt that cpu reaches releases cpu2",
                        Shipped.secondProcessor("0x0")),
                breaking(
                        "consoles-several",
                        "console",
                        "the console is console; debug could be it as well",
                        new Edit.Unbind("console", "serial"),
                        add("debug", "serial:uart", Map.of(), 0x1007_0000)),
                breaking(
                        "time-missing",
                        "cpu",
                        "cpu has counters, and no machine timer that interrupts it",
                        new Edit.SetType("cpu", Vlnv.parse("polymetron:processor:rv32-small:1.1")),
                        new Edit.DisconnectInterrupt("timer", "timer")),
                breaking(
                        "timers-differ",
                        "timer2",
                        "timer counts 1000000 ticks a second and timer2 500000",
                        Shipped.secondProcessor("0x0"),
                        add("timer2", "timer:machine-timer", Map.of("DIVIDER", "100"), 0x1008_0000),
                        new Edit.ConnectInterrupt("timer2", "timer", "cpu2", "timer", 0)));
    }

    @ParameterizedTest(name = "{0} {1}")
    @MethodSource("breakages")
    void isFoundAndFixed(String rule, String subject, String words, List<Edit> edits) {
        Platform broken = EDITOR.apply(Shipped.demo(), new Edit.Several("break", edits));
        Finding finding = find(broken, rule, subject);
        assertThat(finding)
                .as("%s at %s in %s", rule, subject, Checks.run(Shipped.elaborate(broken)))
                .isNotNull();
        assertThat(finding.what()).contains(words);
        for (Fix fix : finding.fixes()) {
            Platform fixed = EDITOR.apply(broken, fix.edit());
            assertThat(find(fixed, rule, subject)).as(fix.label()).isNull();
        }
    }

    private static Finding find(Platform platform, String rule, String subject) {
        return Checks.run(Shipped.elaborate(platform)).stream()
                .filter(each -> each.rule().equals(rule) && each.subject().equals(subject))
                .findFirst()
                .orElse(null);
    }
}
