package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import polymetron.Shipped;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.BlockModels;
import polymetron.bench.foreign.SharedModels;
import polymetron.bench.foreign.VerilatedModel;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedInterface;
import polymetron.library.BlockType;
import polymetron.outside.Tool;
import polymetron.ownblock.DriverSkeleton;
import polymetron.ownblock.LogicSkeleton;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;

/**
 * Random descriptions of registers: all widths, rows, expressions, accesses, on each protocol. Their description as the
 * bench executes it and the hardware that is made from it answer thousands of accesses alike. More seeds by hand with
 * -Dpolymetron.own.seeds=3,4,5.
 */
final class RandomOwnBlockTest {
    private static final int ACCESSES = 4000;
    private static final String[] PROTOCOLS = {
        "axi4-lite", "apb", "ahb-lite", "wishbone-b4", "axi4"
    };
    private static final String[] ACCESS = {
        "\"software\": \"read-write\"",
        "\"software\": \"read-only\"",
        "\"software\": \"write-only\"",
        "\"software\": \"read-write\", \"onWrite\": \"clear-ones\", \"hardware\": \"set\"",
        "\"software\": \"read-write\", \"onWrite\": \"set-ones\"",
        "\"software\": \"write-only\", \"onWrite\": \"pulse\"",
        "\"software\": \"read-only\", \"onRead\": \"clear\", \"hardware\": \"set\"",
        "\"software\": \"read-write\", \"hardware\": \"load\"",
        "\"software\": \"read-write\", \"hardware\": \"count\""
    };

    private static String register(Random random, int number) {
        int width = new int[] {8, 16, 32, 32, 32, 64}[random.nextInt(6)];
        String row =
                random.nextInt(4) == 0 ? "\"count\": %s, ".formatted(1 + random.nextInt(5)) : "";
        return register(random, number, width, row);
    }

    /**
     * @param row how often it is there, and where
     */
    private static String register(Random random, int number, int width, String row) {
        List<String> fields = new ArrayList<>();
        int next = 0;
        while (next < width) {
            int low = next + (random.nextInt(3) == 0 ? random.nextInt(4) : 0);
            int bits = 1 + random.nextInt(Math.min(32, width));
            if (low + bits > width) {
                break;
            }
            String access = ACCESS[random.nextInt(ACCESS.length)];
            String reset =
                    random.nextBoolean()
                            ? ", \"reset\": \"32'd%s\""
                                    .formatted(random.nextLong(1L << Math.min(31, bits)))
                            : "";
            fields.add(
                    "{ \"name\": \"F%s\", %s\"width\": %s, %s%s, \"explains\": \"\" }"
                            .formatted(
                                    fields.size(),
                                    low == next ? "" : "\"lowBit\": %s, ".formatted(low),
                                    random.nextInt(4) == 0 && bits == 8 ? "\"EIGHT\"" : bits,
                                    access,
                                    reset));
            next = low + bits;
        }
        boolean isWhole = width == 64 && random.nextInt(3) > 0;
        return "{ \"name\": \"R%s\", \"width\": %s, %s%s\"explains\": \"\", \"fields\": [%s] }"
                .formatted(
                        number,
                        width,
                        isWhole ? "\"whole\": true, " : "",
                        row,
                        String.join(", ", fields));
    }

    static OwnBlock block(long seed) {
        return block(seed, 12);
    }

    /** With so many registers or rows of them. */
    static OwnBlock block(long seed, int count) {
        Random random = new Random(seed);
        List<String> registers = new ArrayList<>();
        for (int number = 0; number < count; number++) {
            registers.add(register(random, number));
        }
        // A register file: three times two registers.
        for (int member = 0; member < 2; member++) {
            String place =
                    "\"offset\": %s, \"count\": 3, \"stride\": 16, ".formatted(0x400 + 8 * member);
            registers.add(register(random, count + member, 64, place));
        }
        return block(seed, registers);
    }

    private static String document(long seed, List<String> registers) {
        return """
        {
          "format": "polymetron-own-block/1",
          "definition": {
            "format": "polymetron-block-type/2", "identity": "any:io:any:1.0", "kind": "peripheral", "title": "Any",
            "summary": "Any", "description": "Any.", "defaultName": "own",
            "parameters": [{ "name": "EIGHT", "title": "eight", "form": "integer", "initial": "8", "explains": "8" }],
            "clocks": [{ "name": "clk" }], "resets": [{ "name": "rst", "clock": "clk" }],
            "busInterfaces": [{ "name": "registers", "role": "target", "protocols": ["%s"], "dataWidth": 32,
              "size": 4096, "usage": "registers", "executable": false }],
            "outward": [{ "name": "lines", "title": "lines", "partKinds": ["lamps"],
              "ports": [{ "name": "value", "direction": "\\"out\\"", "width": 4 }] }],
            "registers": [%s],
            "resources": { "lookupTables": 1, "flipFlops": 1, "multipliers": 0 },
            "hardware": { "module": "any_any", "files": ["any_any.v"], "parameters": { "EIGHT": "EIGHT" } },
            "software": {}
          }
        }
        """
                .formatted(
                        PROTOCOLS[(int) (seed % PROTOCOLS.length)], String.join(",\n", registers));
    }

    private static OwnBlock block(long seed, List<String> registers) {
        String text = document(seed, registers);
        OwnBlock described = OwnBlockDocument.read("any.json", text);
        TreeMap<String, String> files = new TreeMap<>();
        files.put(
                "any_any.v",
                LogicSkeleton.of(described.type())
                        .replace("#(", "#(\n    parameter EIGHT = 8) (")
                        .replace("module any_any (", "module any_any #(parameter EIGHT = 8) ("));
        if (LogicSkeleton.of(described.type()).contains("parameter EIGHT")) {
            files.put("any_any.v", LogicSkeleton.of(described.type()));
        }
        OwnBlock whole =
                new OwnBlock(described.type(), described.definition(), files, new TreeMap<>());
        assertThat(OwnBlockChecks.of(whole, Shipped.LIBRARY)).isEmpty();
        return whole;
    }

    /** The driver that follows from a description is legal C, whatever is described. */
    @ParameterizedTest
    @org.junit.jupiter.params.provider.ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
    void theDriverCompiles(long seed, @TempDir Path folder) {
        Tool.write(folder, "any.c", DriverSkeleton.of(block(seed).type()));
        Tool.run(
                folder,
                "gcc -std=c11 -Wall -Wextra -Werror -Wno-unused-function -c any.c".split(" "));
    }

    /** Names of registers and fields that lead to one name of a function, or to that of the driver's own. */
    @Test
    void theDriverCompilesWhereNamesClash(@TempDir Path folder) {
        String narrow =
                "{ \"name\": \"%s\", \"explains\": \"\", \"fields\": [{ \"name\": \"%s\","
                        + " \"width\": 8, \"software\": \"read-write\", \"explains\": \"\" }] }";
        String wide =
                "{ \"name\": \"%s\", \"width\": 64, \"whole\": true, \"explains\": \"\","
                        + " \"fields\": [{ \"name\": \"ALL\", \"width\": 64, \"software\":"
                        + " \"read-write\", \"explains\": \"\" }] }";
        List<String> registers =
                List.of(
                        narrow.formatted("A", "B_C"),
                        narrow.formatted("A_B", "C"),
                        narrow.formatted("SET_A", "B_C"),
                        narrow.formatted("CLEAR_A_B", "C"),
                        wide.formatted("WORD"),
                        wide.formatted("A_B_C"),
                        wide.formatted("SET_WORD"));
        BlockType type = OwnBlockDocument.read("any.json", document(1, registers)).type();
        Tool.write(folder, "any.c", DriverSkeleton.of(type));
        Tool.run(
                folder,
                "gcc -std=c11 -Wall -Wextra -Werror -Wno-unused-function -c any.c".split(" "));
    }

    static long[] seeds() {
        String[] given = System.getProperty("polymetron.own.seeds", "1,2,3").split(",");
        return java.util.Arrays.stream(given).mapToLong(Long::parseLong).toArray();
    }

    @ParameterizedTest
    @org.junit.jupiter.params.provider.MethodSource("seeds")
    void descriptionAndHardwareAnswerAlike(long seed, @TempDir Path folder) {
        // Not where a machine forbids the namespaces of the sandbox.
        assumeThat(SharedModels.get().isPossible()).isTrue();
        ElaboratedPlatform platform = OwnBlockRunsTest.platform(block(seed), "lines");
        ElaboratedBlock own = platform.blockIndex().get("own");
        SizedInterface form = own.shape().busInterface("registers").orElseThrow();
        BlockModel described =
                BlockModels.create(platform, own, form, platform.frequencyHz(own)).orElseThrow();
        List<Register> registers = own.shape().registersOf("registers");
        long last = registers.getLast().offset() + 64;
        Random random = new Random(seed);
        try (VerilatedModel hardware =
                (VerilatedModel) SharedModels.get().of(platform, own, form).orElseThrow()) {
            described.reset();
            hardware.reset();
            List<String> different = new ArrayList<>();
            for (int access = 0; access < ACCESSES; access++) {
                int offset = random.nextInt((int) last / 4) * 4;
                int value = random.nextInt();
                int mask = 0;
                for (int lane = 0; lane < 4; lane++) {
                    mask |= random.nextInt(4) > 0 ? 0xFF << 8 * lane : 0;
                }
                described.advance(20L * access);
                hardware.advance(20L * access);
                if (random.nextBoolean()) {
                    described.write(offset, value, mask);
                    hardware.write(offset, value, mask);
                } else {
                    int one = described.read(offset);
                    int other = hardware.read(offset);
                    if (one != other) {
                        different.add(
                                "access %s at 0x%X: %08x described, %08x in hardware"
                                        .formatted(access, offset, one, other));
                    }
                }
            }
            assertThat(different).as("%s", registers).isEmpty();
        }
    }
}
