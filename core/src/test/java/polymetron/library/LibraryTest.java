package polymetron.library;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.Shipped;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.Register;
import polymetron.expression.Expression;
import polymetron.json.Documents;
import polymetron.outside.Tool;
import tools.jackson.databind.JsonNode;

final class LibraryTest {
    @TestFactory
    List<DynamicTest> everyDefinitionIsConsistent() {
        return Shipped.LIBRARY.types().stream()
                .map(
                        type ->
                                DynamicTest.dynamicTest(
                                        type.identity().toString(), () -> checkType(type)))
                .toList();
    }

    private static void checkType(BlockType type) {
        BlockShape shape = new BlockShape(type, Map.of());
        assertThat(shape.faults()).isEmpty();
        assertThat(type.format()).isEqualTo(BlockType.FORMAT);
        for (String text : List.of(type.title(), type.summary(), type.description())) {
            assertThat(text).isNotBlank();
        }
        for (Formula formula : formulas(type)) {
            assertThat(shape.number(formula.formula(), -1)).as(formula.name()).isNotNegative();
        }
    }

    private record Formula(String name, Expression formula) {}

    private static List<Formula> formulas(BlockType type) {
        List<Formula> formulas = new ArrayList<>();
        formulas.add(new Formula("lookupTables", type.resources().lookupTables()));
        formulas.add(new Formula("flipFlops", type.resources().flipFlops()));
        for (MemoryType memory : type.memories()) {
            formulas.add(new Formula(memory.name() + " depth", memory.depth()));
            formulas.add(new Formula(memory.name() + " width", memory.width()));
        }
        formulas.add(new Formula("multipliers", type.resources().multipliers()));
        formulas.removeIf(each -> Objects.isNull(each.formula()));
        return formulas;
    }

    /** RISC-V Platform-Level Interrupt Controller specification 1.0.0, "Memory Map". */
    @Test
    void interruptControllerHasTheOffsetsOfItsSpecification() {
        Map<String, Long> offsets = offsets(Shipped.CONTROLLER);
        assertThat(offsets)
                .containsEntry("PRIORITY", 0x4L) // source 1; 0x0 is reserved
                .containsEntry("PENDING", 0x1000L)
                .containsEntry("ENABLE", 0x2000L)
                .containsEntry("THRESHOLD", 0x20_0000L)
                .containsEntry("CLAIM", 0x20_0004L);
    }

    /** RISC-V ACLINT specification 1.0. */
    @Test
    void machineTimerHasTheOffsetsOfItsSpecification() {
        Map<String, Long> offsets = offsets(Shipped.TIMER);
        assertThat(offsets)
                .containsEntry("MSIP", 0x0L)
                .containsEntry("MTIMECMP", 0x4000L)
                .containsEntry("MTIME", 0xBFF8L);
    }

    /** PC16550D data sheet, table "Register addresses", one word apart. */
    @Test
    void uartHasTheRegistersOfItsDataSheet() {
        Map<String, Long> offsets = offsets(Shipped.UART);
        assertThat(offsets)
                .containsEntry("RBR", 0L)
                .containsEntry("THR", 0L)
                .containsEntry("DLL", 0L)
                .containsEntry("IER", 4L)
                .containsEntry("DLM", 4L)
                .containsEntry("IIR", 8L)
                .containsEntry("FCR", 8L)
                .containsEntry("LCR", 12L)
                .containsEntry("MCR", 16L)
                .containsEntry("LSR", 20L)
                .containsEntry("MSR", 24L)
                .containsEntry("SCR", 28L);
    }

    private static Map<String, Long> offsets(Vlnv type) {
        return new BlockShape(Shipped.LIBRARY.type(type).orElseThrow(), Map.of())
                .registers().stream().collect(Collectors.toMap(Register::name, Register::offset));
    }

    @Test
    void driversCompileWithoutAWarning(@TempDir Path folder) {
        StringBuilder all = new StringBuilder();
        for (BlockType type : Shipped.LIBRARY.types()) {
            Shipped.LIBRARY
                    .driverFiles(type.identity())
                    .forEach(
                            (name, text) -> {
                                Tool.write(folder, name, text);
                                all.append("#include \"").append(name).append("\"\n");
                            });
        }
        all.append("int main(void) { return 0; }\n");
        Tool.write(folder, "all.c", all.toString());
        String[] strict = {"-std=c11", "-Wall", "-Wextra", "-Werror", "-pedantic", "-c", "all.c"};
        for (String compiler : List.of("gcc", "riscv64-unknown-elf-gcc")) {
            List<String> command = new ArrayList<>(List.of(compiler));
            if (!compiler.equals("gcc")) {
                command.addAll(List.of("-march=rv32im", "-misa-spec=2.2", "-mabi=ilp32"));
                command.add("-ffreestanding");
            }
            command.addAll(List.of(strict));
            Tool.run(folder, command.toArray(String[]::new));
        }
    }

    @Test
    void boardPinsExistAndAreUsedOnce() {
        for (Board board : Shipped.LIBRARY.boards()) {
            Device device = Shipped.LIBRARY.device(board.device()).orElseThrow();
            List<String> pins = new ArrayList<>();
            board.clocks().forEach(clock -> pins.add(clock.pin()));
            board.resets().forEach(reset -> pins.add(reset.pin()));
            board.parts()
                    .forEach(part -> part.signals().forEach(signal -> pins.addAll(signal.pins())));
            assertThat(pins).doesNotHaveDuplicates().allMatch(device::hasPin);
            for (Board.Part part : board.parts()) {
                for (Board.Driver driver : part.drivers()) {
                    BlockType type = Shipped.LIBRARY.type(driver.type()).orElseThrow();
                    assertThat(type.outward()).anyMatch(out -> out.name().equals(driver.outward()));
                }
            }
        }
    }

    /** Common practice, no source: a DMA length register of 26 bits moves at most 67,108,863 bytes at a time. */
    @Test
    void lengthRegisterLimitsATransfer() {
        assertThat(shape("data-movement:dma", Map.of("LENGTH", "26")).number("LONGEST"))
                .isEqualTo(67_108_863);
    }

    /** Common practice, no source: a filter with 32-bit samples grows to 48 bits inside. */
    @Test
    void filtersGrowInside() {
        Map<String, String> chosen = Map.of("SAMPLE", "32", "COEFFICIENT", "16");
        assertThat(shape("stream:fir-filter", chosen).number("INSIDE")).isEqualTo(48);
        // Hogenauer 1981, equation 11: growth of N integrators at a rate R is N log2 R.
        BlockShape decimator =
                shape(
                        "stream:decimating-filter",
                        Map.of("SAMPLE", "24", "RATE", "16", "ORDER", "3"));
        assertThat(decimator.number("INSIDE")).isEqualTo(36);
    }

    /** Common practice, no source: flags at 1.0, 1.5, 2.0 and 2.5 V. One of 4096 steps of 3.3 V is 0.806 mV. */
    @Test
    void thresholdsInVoltsBecomeSteps() {
        List<Long> thresholds =
                shape("io:analog-monitor", Map.of()).registers().stream()
                        .filter(register -> register.name().startsWith("THRESHOLD"))
                        .map(register -> register.reset(0, 0))
                        .toList();
        assertThat(thresholds).containsExactly(1241L, 1862L, 2482L, 3103L);
    }

    /** Common practice, no source: a splitter is useful from one up to eight outputs. */
    @Test
    void splitterHasOneToEightOutputs() {
        for (int outputs = 1; outputs <= 8; outputs++) {
            assertThat(shape("stream:splitter", Map.of("OUTPUTS", "" + outputs)).streams())
                    .hasSize(outputs + 1);
        }
        assertThat(shape("stream:splitter", Map.of("OUTPUTS", "9")).faults()).isNotEmpty();
    }

    /** Macros of a driver could be those of a platform's header, which are made of the names of its blocks. */
    @Test
    void driversDefineNoMacrosButTheirGuards() {
        for (BlockType type : Shipped.LIBRARY.types()) {
            Shipped.LIBRARY
                    .driverFiles(type.identity())
                    .forEach(
                            (name, text) ->
                                    assertThat(
                                                    text.lines()
                                                            .filter(
                                                                    line ->
                                                                            line.contains(
                                                                                    "#define")))
                                            .as(name)
                                            .containsExactly(
                                                    "#define DRIVER_"
                                                            + name.replace('.', '_')
                                                                    .toUpperCase(
                                                                            java.util.Locale
                                                                                    .ROOT)));
        }
    }

    /**
     * A parameter that changes what software may do is handed over: one that registers, their fields or interrupts depend
     * on, or that says what a block is to the rest. Where it is the size of a range, the header has it as that.
     */
    @ParameterizedTest
    @MethodSource("types")
    void whatSoftwareNeedsOfParametersIsHandedOver(BlockType type) {
        TreeSet<String> needed = new TreeSet<>();
        JsonNode definition = Documents.tree("type", Documents.write(type));
        for (String part : List.of("registers", "interrupts")) {
            collect(definition.path(part), type, needed);
        }
        // Software gets clocks, and not how they are made.
        definition
                .path("provides")
                .forEach(
                        each -> {
                            if (!each.has("pll")) {
                                collect(each, type, needed);
                            }
                        });
        TreeSet<String> handed = new TreeSet<>();
        for (ParameterType parameter : type.parameters()) {
            boolean isSize =
                    type.busInterfaces().stream()
                            .filter(form -> form.size() != null)
                            .anyMatch(form -> form.size().toString().equals(parameter.name()));
            // The header gives the clocks and rates themselves.
            boolean isFrequency = "Hz".equals(parameter.unit());
            if (parameter.macro() != null || isSize || isFrequency) {
                handed.add(parameter.name());
            }
        }
        assertThat(handed).containsAll(needed);
        assertThat(type.parameters().stream().map(ParameterType::macro).filter(Objects::nonNull))
                .doesNotHaveDuplicates();
    }

    static Stream<BlockType> types() {
        return Shipped.LIBRARY.types().stream();
    }

    /** Parameters that any text of a part of a definition names. */
    private static void collect(JsonNode part, BlockType type, Set<String> found) {
        if (part.isString()) {
            for (ParameterType parameter : type.parameters()) {
                boolean isNamed =
                        part.asString()
                                .replaceAll("\"[^\"]*\"", "")
                                .matches("(?s).*\\b" + parameter.name() + "\\b.*");
                if (isNamed) {
                    found.add(parameter.name());
                }
            }
        }
        part.properties()
                .forEach(
                        entry -> {
                            boolean isText =
                                    List.of("explains", "selectedBy", "lockedBy", "enable", "name")
                                            .contains(entry.getKey());
                            if (!isText) {
                                collect(entry.getValue(), type, found);
                            }
                        });
        part.values().forEach(each -> collect(each, type, found));
    }

    private static BlockShape shape(String type, Map<String, String> chosen) {
        return new BlockShape(
                Shipped.LIBRARY.type(Vlnv.parse("polymetron:" + type + ":1.0")).orElseThrow(),
                chosen);
    }
}
