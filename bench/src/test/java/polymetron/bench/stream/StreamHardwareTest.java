package polymetron.bench.stream;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigInteger;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.SizedStream;
import polymetron.outside.Tool;

/**
 * Stream blocks under random back pressure, hardware beside model: whatever source and sinks do, the same words come out in the same
 * order with the same marks, none is lost or invented, and what is offered stays until it is taken.
 */
final class StreamHardwareTest {
    private static final int WORDS = 200;

    @TempDir private Path folder;

    @ParameterizedTest
    @CsvSource({
        "stream:fifo:1.0, WIDTH=16 DEPTH=5 LANES=1",
        "stream:fifo:1.0, WIDTH=32 DEPTH=2 PACKETS=0",
        "stream:splitter:1.0, WIDTH=8 OUTPUTS=3",
        "stream:splitter:1.0, WIDTH=32 OUTPUTS=8",
        "stream:width-adapter:1.0, IN_WIDTH=8 OUT_WIDTH=32",
        "stream:width-adapter:1.0, IN_WIDTH=16 OUT_WIDTH=48",
        "stream:width-adapter:1.0, IN_WIDTH=64 OUT_WIDTH=16",
        "stream:width-adapter:1.0, IN_WIDTH=24 OUT_WIDTH=8",
        "stream:width-adapter:1.0, IN_WIDTH=32 OUT_WIDTH=32",
        "stream:clock-crossing:1.0, WIDTH=16 DEPTH=8"
    })
    void sameWordsWhateverTheEndsDo(String type, String settings) {
        Map<String, String> parameters = new TreeMap<>();
        for (String each : settings.split(" ")) {
            parameters.put(each.split("=")[0], each.split("=")[1]);
        }
        StreamRig rig = StreamRig.of(type, parameters);
        SizedStream in = rig.block().shape().stream("in").orElseThrow();
        for (long seed = 1; seed <= 3; seed++) {
            List<StreamWord> words = words(in.dataWidth() / 8, new Random(seed));
            Map<String, List<StreamWord>> expected = rig.through(words, seed);
            Map<String, List<String>> made = simulate(rig.block(), words, seed);
            expected.forEach(
                    (name, out) ->
                            assertThat(made.get(name))
                                    .as("%s %s, seed", type, name)
                                    .isEqualTo(
                                            out.stream().map(StreamHardwareTest::text).toList()));
        }
    }

    /** Packets of random lengths; in the last word the bytes behind some place do not count. */
    private static List<StreamWord> words(int bytes, Random random) {
        List<StreamWord> words = new ArrayList<>();
        while (words.size() < WORDS) {
            byte[] word = new byte[bytes];
            random.nextBytes(word);
            boolean last = random.nextInt(4) == 0;
            boolean[] keep = new boolean[bytes];
            int counts = last ? 1 + random.nextInt(bytes) : bytes;
            for (int at = 0; at < counts; at++) {
                keep[at] = true;
            }
            words.add(new StreamWord(word, keep, last));
        }
        return words;
    }

    /** Mark, bytes that count, and those bytes, as the test bench writes them. */
    private static String text(StreamWord word) {
        BigInteger keep = BigInteger.ZERO;
        BigInteger bytes = BigInteger.ZERO;
        for (int at = word.bytes().length - 1; at >= 0; at--) {
            keep = keep.shiftLeft(1).or(BigInteger.valueOf(word.keeps(at) ? 1 : 0));
            bytes = bytes.shiftLeft(8);
            if (word.keeps(at)) {
                bytes = bytes.or(BigInteger.valueOf(word.bytes()[at] & 0xFF));
            }
        }
        return "%s %s %s".formatted(word.last() ? 1 : 0, keep.toString(16), bytes.toString(16));
    }

    private Map<String, List<String>> simulate(
            ElaboratedBlock block, List<StreamWord> words, long seed) {
        var own = Shipped.LIBRARY.hardware().of(block.type().identity());
        var all = new TreeMap<>(Shipped.LIBRARY.hardware().common());
        all.putAll(own);
        all.forEach((name, text) -> Tool.write(folder, name, text));
        Tool.write(folder, "words.hex", memory(words));
        Tool.write(folder, "bench.v", bench(block, words, seed));
        Tool.run(folder, ("iverilog -g2005 -s bench -y . -o bench.vvp bench.v").split(" "));
        Map<String, List<String>> out = new TreeMap<>();
        for (String line : Tool.run(folder, "vvp", "-n", "bench.vvp").lines().toList()) {
            assertThat(line).doesNotContain("changed").doesNotContain("x");
            int blank = line.indexOf(' ');
            out.computeIfAbsent(line.substring(0, blank), name -> new ArrayList<>())
                    .add(line.substring(blank + 1).replaceAll("\\b0+([0-9a-f])", "$1"));
        }
        return out;
    }

    private static String memory(List<StreamWord> words) {
        return words.stream()
                .map(
                        word -> {
                            BigInteger bits = BigInteger.valueOf(word.last() ? 1 : 0);
                            for (int at = word.bytes().length - 1; at >= 0; at--) {
                                bits =
                                        bits.shiftLeft(1)
                                                .or(BigInteger.valueOf(word.keeps(at) ? 1 : 0));
                            }
                            for (int at = word.bytes().length - 1; at >= 0; at--) {
                                bits =
                                        bits.shiftLeft(8)
                                                .or(BigInteger.valueOf(word.bytes()[at] & 0xFF));
                            }
                            return bits.toString(16);
                        })
                .collect(Collectors.joining("\n"));
    }

    /** Clocks of two periods where the block has two; valid and ready are random, and what is offered must stay. */
    private static String bench(ElaboratedBlock block, List<StreamWord> words, long seed) {
        int width = block.shape().stream("in").orElseThrow().dataWidth();
        boolean crosses = block.type().clocks().size() > 1;
        StringBuilder text = new StringBuilder();
        StringBuilder ports = new StringBuilder();
        text.append(
                """
                `timescale 1ns/1ps
                module bench;
                    reg clk = 0; always #5 clk = !clk;
                    reg out_clk = 0; always #3.7 out_clk = !out_clk;
                    reg rst = 1;
                    integer seed = SEED;
                    integer seed_out = SEED;
                    reg [BITS-1:0] words [0:COUNT-1];
                    integer next = 0;
                    reg valid = 0;
                    wire ready;
                    initial begin
                        $readmemh("words.hex", words);
                        repeat (6) @(posedge clk);
                        rst <= 0;
                        repeat (20000) @(posedge clk);
                        $finish;
                    end
                    always @(posedge clk) if (!rst) begin
                        if (valid && ready) next <= next + 1;
                        if (!valid || ready) valid <= ($random(seed) & 3) != 0 && next + (valid && ready) < COUNT;
                    end
                    wire [BITS-1:0] word = words[next % COUNT];
                """
                        .replace("SEED", Long.toString(seed))
                        .replace("BITS", Integer.toString(1 + width / 8 + width))
                        .replace("COUNT", Integer.toString(words.size())));
        ports.append(
                ".in_tdata(word[%s:0]), .in_tvalid(valid), .in_tready(ready)".formatted(width - 1));
        ports.append(
                ", .in_tkeep(word[%s:%s]), .in_tlast(word[%s])"
                        .formatted(width + width / 8 - 1, width, width + width / 8));
        for (SizedStream out : block.shape().streams()) {
            if (out.isSource()) {
                text.append(taker(out.name(), out.dataWidth(), crosses ? "out_clk" : "clk"));
                for (String signal : List.of("tdata", "tvalid", "tready", "tlast", "tkeep")) {
                    ports.append(", .%1$s_%2$s(%1$s_%2$s)".formatted(out.name(), signal));
                }
            }
        }
        String settings =
                block.type().hardware().parameters().entrySet().stream()
                        .map(
                                each ->
                                        ".%s(%s)"
                                                .formatted(
                                                        each.getKey(),
                                                        block.shape().number(each.getValue(), 0)))
                        .collect(Collectors.joining(", "));
        text.append(
                "    %s #(%s) block (.clk(clk), .rst(rst)%s, %s);\nendmodule\n"
                        .formatted(
                                block.type().hardware().module(),
                                settings,
                                crosses ? ", .out_clk(out_clk), .out_rst(rst)" : "",
                                ports));
        return text.toString();
    }

    private static String taker(String name, int width, String clock) {
        StringBuilder masked = new StringBuilder();
        for (int at = width / 8 - 1; at >= 0; at--) {
            masked.append(
                    "%s_tdata[%s:%s] & {8{%s_tkeep[%s]}}%s"
                            .formatted(name, 8 * at + 7, 8 * at, name, at, at > 0 ? ", " : ""));
        }
        return """
            wire [W-1:0] N_tdata; wire N_tvalid; reg N_tready = 0; wire N_tlast; wire [K-1:0] N_tkeep;
            reg [W+K+1:0] N_before = 0;
            always @(posedge CLOCK) if (!rst) begin
                if (N_tvalid && N_tready) $display("N %b %h %h", N_tlast, N_tkeep, {MASKED});
                if (N_before[W+K+1] && (!N_tvalid || N_before[W+K:0] !== {N_tlast, N_tkeep, N_tdata})) $display("changed");
                N_before <= {N_tvalid && !N_tready, N_tlast, N_tkeep, N_tdata};
                N_tready <= ($random(seed_out) & 3) != 0;
            end
        """
                .replace("MASKED", masked)
                .replace("CLOCK", clock)
                .replace("W", Integer.toString(width))
                .replace("K", Integer.toString(width / 8))
                .replace("N_", name + "_")
                .replace("\"N ", "\"" + name + " ");
    }
}
