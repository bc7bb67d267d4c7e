package polymetron.output.software;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.TargetRange;
import polymetron.library.Vlnv;
import polymetron.output.Fingerprint;
import polymetron.output.handoff.Handoff;
import polymetron.outside.Tool;
import polymetron.platform.Bus;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.software.SoftwareView;

/** The devicetree source against {@code dtc} with every check it has, and read back with {@code fdtget}. */
final class DeviceTreeTest {
    @TempDir private Path folder;

    private void compile(ElaboratedPlatform platform) {
        Tool.write(folder, "t.dts", file(platform, ".dts"));
        List<String> command =
                new ArrayList<>(List.of("dtc", "-I", "dts", "-O", "dtb", "-o", "t.dtb"));
        // A warning would not change the exit status, so every check is made an error.
        for (String check : CHECKS.strip().split("\\s+")) {
            command.add("-E");
            command.add(check);
        }
        command.add("t.dts");
        assertThat(Tool.run(folder, command.toArray(String[]::new))).isEmpty();
    }

    /** The checks of dtc 1.6.1 that look at what such a tree can say. */
    private static final String CHECKS =
            """
            graph_endpoint graph_port graph_child_address graph_nodes interrupts_property
            interrupt_provider deprecated_gpio_property gpios_property resets_property
            interrupts_extended_property interrupts_extended_is_cell clocks_property clocks_is_cell
            chosen_node_stdout_path chosen_node_bootargs chosen_node_is_root unique_unit_address
            unique_unit_address_if_enabled avoid_unnecessary_addr_size avoid_default_addr_size
            unit_address_format simple_bus_reg simple_bus_bridge reg_format addr_size_cells
            alias_paths names_is_string_list compatible_is_string_list label_is_string
            status_is_string model_is_string device_type_is_string size_cells_is_cell
            address_cells_is_cell omit_unused_nodes path_references phandle_references name_properties
            name_is_string explicit_phandles duplicate_label property_name_chars_strict
            property_name_chars unit_address_vs_reg node_name_vs_property_name node_name_format
            node_name_chars_strict node_name_chars duplicate_property_names duplicate_node_names
            obsolete_chosen_interrupt_controller
            """;

    private static String file(ElaboratedPlatform platform, String ending) {
        return Handoff.of(platform).files().stream()
                .filter(each -> each.path().endsWith(ending))
                .findFirst()
                .orElseThrow()
                .text();
    }

    private String get(String type, String node, String property) {
        return Tool.run(folder, "fdtget", "-t", type, "t.dtb", node, property).strip();
    }

    @Test
    void readsBackEveryBaseSizeAndInterrupt() {
        ElaboratedPlatform platform = Shipped.elaborate(Shipped.demo());
        compile(platform);
        SoftwareView view = SoftwareView.of(platform);
        int interrupts = 0;
        for (TargetRange target : view.targets()) {
            String node = node(target);
            assertThat(get("x", node, "reg"))
                    .isEqualTo("%x %x".formatted(target.range().base(), target.form().sizeBytes()));
            for (InterruptLink link : view.linksOf(target.block())) {
                if (link.source().type().line().equals("device")) {
                    String[] cells = get("x", node, "interrupts-extended").split(" ");
                    assertThat(cells[0]).isEqualTo(get("x", CONTROLLER, "phandle"));
                    assertThat(Integer.parseInt(cells[1], 16)).isEqualTo(link.wire().input());
                    interrupts++;
                }
            }
        }
        assertThat(interrupts).isEqualTo(2);
        // Causes of the Privileged ISA: software 3, timer 7, external 11.
        String hart = get("x", "/cpus/cpu@0/interrupt-controller", "phandle");
        assertThat(get("x", "/soc/timer@10010000", "interrupts-extended"))
                .isEqualTo("%s 3 %s 7".formatted(hart, hart));
        assertThat(get("x", CONTROLLER, "interrupts-extended")).isEqualTo(hart + " b");
        assertThat(get("u", CONTROLLER, "riscv,ndev")).isEqualTo("15");
        assertThat(get("s", "/chosen", "stdout-path")).isEqualTo("/soc/serial@10000000:115200n8");
        assertThat(get("s", "/soc/serial@10000000", "compatible")).startsWith("ns16550a");
        assertThat(get("u", "/cpus", "timebase-frequency")).isEqualTo("1000000");
        assertThat(get("s", "/", "polymetron,fingerprint")).isEqualTo(Fingerprint.of(platform));
    }

    private static final String CONTROLLER = "/soc/interrupt-controller@14000000";

    private static String node(TargetRange target) {
        String base = "%x".formatted(target.range().base());
        return switch (target.block().type().identity().name()) {
            case "block-memory" -> "/memory@" + base;
            case "uart" -> "/soc/serial@" + base;
            case "gpio" -> "/soc/gpio@" + base;
            case "machine-timer" -> "/soc/timer@" + base;
            default -> "/soc/" + target.block().type().identity().name() + "@" + base;
        };
    }

    @Test
    void usesTwoCellsAbove32Bits() {
        Editor editor = new Editor(Shipped.LIBRARY);
        var wide =
                editor.apply(
                        Shipped.demo(),
                        new Edit.Several(
                                "wide",
                                List.of(
                                        // A 32-bit hart would not see it.
                                        new Edit.RemoveBlock("cpu"),
                                        new Edit.ChangeBus(
                                                new Bus(
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
        compile(Shipped.elaborate(wide));
        assertThat(get("x", "/soc/gpio@1200000000", "reg")).isEqualTo("12 0 0 1000");
    }

    @Test
    void titlesCannotBreakOutOfTheText() {
        Editor editor = new Editor(Shipped.LIBRARY);
        compile(
                Shipped.elaborate(
                        editor.apply(
                                Shipped.demo(),
                                new Edit.RenamePlatform("A \"b\" */ \\ ??/ { } ; é"))));
    }

    @Test
    void everyRecipeGivesATreeWithoutWarnings() {
        for (var recipe : Shipped.LIBRARY.recipes()) {
            compile(Shipped.elaborate(Shipped.recipe(recipe.name())));
        }
    }

    /** Of two UARTs standard output is the one on the board's console; memory that cannot be written is no memory node. */
    @Test
    void standardOutputIsTheConsoleOfTheBoard() {
        compile(Shipped.elaborate(Shipped.recipe("lock")));
        assertThat(get("s", "/chosen", "stdout-path")).isEqualTo("/soc/serial@40000000:115200n8");
        compile(
                Shipped.elaborate(
                        new Editor(Shipped.LIBRARY)
                                .apply(
                                        Shipped.demo(),
                                        new Edit.SetParameter("code", "WRITABLE", "0"))));
        assertThat(get("s", "/rom@0", "compatible")).isEqualTo("mtd-rom");
    }

    /** A context for each hart in order, and a controller in cascade; dtc checks the cells. */
    @Test
    void severalHartsAndControllersInCascadeAreToldInOrder() {
        Editor editor = new Editor(Shipped.LIBRARY);
        ElaboratedPlatform platform =
                Shipped.elaborate(
                        editor.apply(
                                Shipped.demo(),
                                new Edit.Several(
                                        null,
                                        List.of(
                                                new Edit.SetType(
                                                        "interrupts",
                                                        Vlnv.parse(
                                                                "polymetron:interrupt:interrupt-controller:1.1")),
                                                new Edit.SetParameter(
                                                        "interrupts", "CONTEXTS", "2"),
                                                new Edit.AddBlock(
                                                        "second", Shipped.CONTROLLER, null),
                                                new Edit.Attach(
                                                        "second",
                                                        "registers",
                                                        "system",
                                                        Address.parse("0x2000_0000"),
                                                        null),
                                                new Edit.ConnectInterrupt(
                                                        "second",
                                                        "external",
                                                        "interrupts",
                                                        "inputs",
                                                        9),
                                                new Edit.ConnectInterrupt(
                                                        "interrupts",
                                                        "external1",
                                                        "cpu",
                                                        "external",
                                                        0),
                                                new Edit.DisconnectInterrupt(
                                                        "interrupts", "external")))));
        compile(platform);
        String source = file(platform, ".dts");
        assertThat(source)
                .contains("interrupts-extended = <0xffffffff>, <&cpu_interrupts 11>;")
                .contains("interrupts-extended = <&interrupts 9>;");
    }

    /** Generic node names, cells for children, caches, memories and buffers: Devicetree Specification 0.4, 2.2.2 and 3. */
    @Test
    void devicesAreNamedAndDescribedAsTheSpecificationRecommends() {
        Platform station =
                PlatformDocument.read(
                        "highland",
                        new String(
                                Shipped.file("demo/highland-station.json"),
                                StandardCharsets.UTF_8));
        ElaboratedPlatform platform =
                Shipped.elaborate(
                        new Editor(Shipped.LIBRARY)
                                .apply(station, new Edit.Several("recorder", RECORDER)));
        compile(platform);
        String text = file(platform, ".dts");
        assertThat(text)
                .contains(": i2c@")
                .contains(": spi@")
                .contains(": serial@")
                .contains(": adc@");
        for (String line : text.lines().filter(each -> each.matches(".*: (i2c|spi)@.*")).toList()) {
            String node = "/soc/" + line.strip().replaceAll("^\\w+: | \\{$", "");
            assertThat(get("u", node, "#address-cells")).isEqualTo("1");
            assertThat(get("u", node, "#size-cells")).isEqualTo("0");
        }
        // 8 KiB of lines of 32 bytes: 256 of them, each in one place only.
        assertThat(get("u", "/cpus/cpu@0", "d-cache-size")).isEqualTo("8192");
        assertThat(get("u", "/cpus/cpu@0", "d-cache-block-size")).isEqualTo("32");
        assertThat(get("u", "/cpus/cpu@0", "d-cache-sets")).isEqualTo("256");
        // The recorder writes behind the back of that cache, into memory outside the device.
        assertThat(text).contains("dma-noncoherent;").contains("memory-region = <&");
        assertThat(text).containsPattern("device_type = \"memory\";\\s+reg = <0x4000000 ");
        assertThat(text).containsPattern("sram@0 \\{\\s+compatible = \"mmio-sram\";");
        assertThat(text).contains("rom@2000000 {");
    }

    /** Writes round and round into memory outside the device, from reset on. */
    private static final List<Edit> RECORDER =
            List.of(
                    new Edit.AddBlock(
                            "recorder",
                            Vlnv.parse("polymetron:data-movement:ring-writer:1.0"),
                            Map.of("RUN", "1", "BASE", "0x0500_0000", "SIZE", "65536")),
                    new Edit.SetDomain("recorder", "clk", "main"),
                    new Edit.SetDomain("recorder", "rst", "main"),
                    new Edit.Attach("recorder", "writes", "system", null, null),
                    new Edit.AddBlock(
                            "port", Vlnv.parse("polymetron:serial:spi-controller:1.0"), Map.of()),
                    new Edit.SetDomain("port", "clk", "main"),
                    new Edit.Attach("port", "registers", "system", new Address(0x1019_0000), null),
                    new Edit.Attach(
                            "recorder", "registers", "system", new Address(0x1018_0000), null));

    /** Two timers of different rate are told for each hart; one rate for all is told once. */
    @Test
    void eachHartHasItsOwnTimebaseWhereTheyDiffer() {
        Platform two =
                new Editor(Shipped.LIBRARY)
                        .apply(
                                Shipped.demo(),
                                new Edit.Several(
                                        null,
                                        List.of(
                                                Shipped.secondProcessor("0x0000_0000"),
                                                new Edit.AddBlock(
                                                        "timer2",
                                                        Shipped.TIMER,
                                                        Map.of("DIVIDER", "25")),
                                                new Edit.SetDomain("timer2", "clk", "main"),
                                                new Edit.SetDomain("timer2", "rst", "main"),
                                                new Edit.Attach(
                                                        "timer2",
                                                        "registers",
                                                        "system",
                                                        new Address(0x1008_0000),
                                                        null),
                                                new Edit.ConnectInterrupt(
                                                        "timer2", "timer", "cpu2", "timer", 0),
                                                new Edit.ConnectInterrupt(
                                                        "timer2",
                                                        "software",
                                                        "cpu2",
                                                        "software",
                                                        0))));
        compile(Shipped.elaborate(two));
        assertThat(get("u", "/cpus/cpu@0", "timebase-frequency")).isEqualTo("1000000");
        assertThat(get("u", "/cpus/cpu@1", "timebase-frequency")).isEqualTo("2000000");
    }
}
