package polymetron.everything;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.cost.AccessCost;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.output.hardware.Hardware;
import polymetron.outside.Tool;
import polymetron.platform.Platform;
import polymetron.software.Harts;

/**
 * The stated worst case of an access: in the generated hardware each processor is replaced by one that reads and writes all it
 * sees at random without a break, on both sides, and no access takes longer than was said, nor shorter than is possible.
 */
final class TrafficTest {
    private static final long SEEDS = Long.getLong("polymetron.traffic", 5);
    private static final long FIRST = Long.getLong("polymetron.traffic.first", 1);
    private static final String CORE = "hdl/polymetron_rv32_small.v";

    @TempDir private Path folder;

    private int accesses;
    private int contended;

    /** Part of the stated worst case that an access came to; of all the largest one, and of each way summed up. */
    private final List<Double> reached = new ArrayList<>();

    @Test
    void noAccessTakesLongerThanTheStatedWorstCase() throws IOException {
        List<String> wrong = new ArrayList<>();
        for (long seed : LongStream.range(FIRST, FIRST + SEEDS).toArray()) {
            Optional<Platform> platform = RandomPlatform.built(seed);
            if (platform.isPresent()) {
                check(seed, Shipped.elaborate(platform.get()), wrong);
            }
        }
        System.out.printf(
                "traffic: %s accesses, %s of them had to wait; of the worst case ways came to %.2f,"
                        + " the closest to %.2f%n",
                accesses,
                contended,
                reached.stream().mapToDouble(each -> each).average().orElse(0),
                reached.stream().mapToDouble(each -> each).max().orElse(0));
        assertThat(wrong).isEmpty();
        assertThat(contended).isGreaterThan(accesses / 20);
    }

    private void check(long seed, ElaboratedPlatform platform, List<String> wrong)
            throws IOException {
        Path here = Files.createDirectories(folder.resolve("p" + seed));
        Hardware.of(platform).files().forEach(file -> Tool.write(here, file.path(), file.bytes()));
        String core = Files.readString(here.resolve(CORE));
        String header =
                core.substring(core.indexOf("module "), core.indexOf(");\n    // --- states"));
        Files.writeString(
                here.resolve(CORE), header + ");\n" + body(platform, seed) + "endmodule\n");
        Tool.tryRun(here, "make -s -C sim run CYCLES=15000".split(" "));
        Map<String, TreeSet<Long>> measured = new TreeMap<>();
        Map<String, AccessCost> predicted = new TreeMap<>();
        List<String> lines = new ArrayList<>();
        for (var hart : Harts.of(platform).all()) {
            lines.addAll(
                    Files.readAllLines(here.resolve("sim/traffic%s.txt".formatted(hart.id()))));
        }
        for (String line : lines) {
            String[] words = line.split(" ");
            AddressSpace space = platform.space(new InterfaceRef(words[0], words[1])).orElseThrow();
            TargetRange target = space.at(Long.parseLong(words[3], 16)).orElseThrow();
            String way = "%s.%s %s %s".formatted(words[0], words[1], words[2], target.ref());
            measured.computeIfAbsent(way, each -> new TreeSet<>()).add(Long.parseLong(words[4]));
            AccessCost cost =
                    predicted.computeIfAbsent(way, each -> AccessCost.of(platform, space, target));
            accesses++;
            contended += Long.parseLong(words[4]) > cost.cycles() ? 1 : 0;
        }
        assertThat(measured).as("seed " + seed).isNotEmpty();
        measured.forEach(
                (way, cycles) -> {
                    AccessCost cost = predicted.get(way);
                    long least =
                            way.contains(" write ")
                                    ? cost.write().leastCycles()
                                    : cost.leastCycles();
                    long most = cost.worstCycles().orElse(Long.MAX_VALUE);
                    if (most > cost.cycles()) {
                        reached.add((double) cycles.last() / most);
                    }
                    boolean isEarly =
                            cycles.first() < least && !MeasuredReads.isFlash(platform, way);
                    if (isEarly || cycles.last() > most) {
                        wrong.add(
                                "seed %s, %s: %s to %s said, %s measured"
                                        .formatted(seed, way, least, most, cycles));
                    }
                });
    }

    private static String body(ElaboratedPlatform platform, long seed) {
        return """
            integer seed = %d + HART_ID;
            integer traffic;
            reg [127:0] file;
            initial begin
                $sformat(file, "traffic%%0d.txt", HART_ID);
                traffic = $fopen(file, "w");
            end
        %s%s%s%s\
        """
                .formatted(
                        seed,
                        addresses(platform, "instruction"),
                        addresses(platform, "data"),
                        side("instruction", "1'b0"),
                        side("data", "write"));
    }

    /** Accesses one after the other; the first ones may wait for the end of a reset behind a crossing. */
    private static String side(String side, String write) {
        String outputs =
                side.equals("data")
                        ? """
                        reg write = 1'b0;
                        assign data_write = write;
                        assign data_value = data_address;
                        assign data_bytes = 4'hF;
                        always @(posedge clk) if (!data_requests || data_done) write <= $random(seed);
                        """
                        : "";
        return """
        reg SIDE_requests = 1'b0;
        integer SIDE_before = 0;
        reg [31:0] SIDE_now = 32'd0;
        integer SIDE_cycles = 0;
        assign SIDE_request = SIDE_requests;
        assign SIDE_address = SIDE_now;
        always @(posedge clk) begin
            if (rst) SIDE_requests <= 1'b0;
            else begin
                if (SIDE_requests) SIDE_cycles = SIDE_cycles + 1;
                if (!SIDE_requests || SIDE_done) begin
                    if (SIDE_requests) begin
                        if (SIDE_before > 50) $fdisplay(traffic, "%0s SIDE %0s %h %0d", SIDE_name(0), WRITE ? "write" : "read", SIDE_now, SIDE_cycles);
                        SIDE_before = SIDE_before + 1;
                    end
                    SIDE_cycles = 0;
                    SIDE_requests <= SIDE_many(0) != 0;
                    SIDE_now <= SIDE_at($unsigned($random(seed)) % SIDE_many(0));
                end
            end
        end
        """
                        .replace("SIDE", side)
                        .replace("WRITE", write)
                + outputs;
    }

    /** What each processor sees, by its number: functions, as all are one module. */
    private static String addresses(ElaboratedPlatform platform, String side) {
        StringBuilder names = new StringBuilder();
        StringBuilder counts = new StringBuilder();
        StringBuilder places = new StringBuilder();
        for (var hart : Harts.of(platform).all()) {
            ElaboratedBlock block = hart.block();
            AddressSpace space = platform.space(new InterfaceRef(block.name(), side)).orElseThrow();
            names.append("32'd%d: N = \"%s\";\n".formatted(hart.id(), block.name()));
            counts.append("32'd%d: N = %d;\n".formatted(hart.id(), 2 * space.ranges().size()));
            places.append("32'd%d: case (index)\n".formatted(hart.id()));
            int index = 0;
            for (TargetRange target : space.ranges()) {
                long last = target.range().last() & ~3L;
                for (long address : new long[] {target.range().base(), last}) {
                    places.append("%d: N = 32'h%x;\n".formatted(index++, address));
                }
            }
            places.append("default: N = 32'd0;\nendcase\n");
        }
        return function("[255:0]", side + "_name", names, "256'd0")
                + function("integer", side + "_many", counts, "0")
                + function("[31:0]", side + "_at", places, "32'd0");
    }

    private static String function(
            String type, String name, StringBuilder cases, String otherwise) {
        return """
        function %1$s %2$s(input integer index);
        case (HART_ID)
        %3$sdefault: %2$s = %4$s;
        endcase
        endfunction
        """
                .formatted(type, name, cases.toString().replace("N = ", name + " = "), otherwise);
    }
}
