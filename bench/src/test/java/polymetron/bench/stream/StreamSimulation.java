package polymetron.bench.stream;

import java.math.BigInteger;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import polymetron.Shipped;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.SizedStream;
import polymetron.outside.Tool;

/** The hardware of a stream block between a source and sinks that are valid and ready at random. */
final class StreamSimulation {
    private static final String USUAL = "($random(GENERATOR) & 3) != 0";

    private final Path folder;
    private final ElaboratedBlock block;

    /** Writes the files of the block into a folder. */
    StreamSimulation(Path folder, ElaboratedBlock block) {
        this.folder = folder;
        this.block = block;
        var all = new TreeMap<>(Shipped.LIBRARY.hardware().common());
        all.putAll(Shipped.LIBRARY.hardware().of(block.type().identity()));
        all.forEach((name, text) -> Tool.write(folder, name, text));
    }

    /** Builds it for some words; what is random follows from a seed: of three one has slow sinks and one a slow source. */
    void build(List<StreamWord> words, long seed) {
        String slow = "($random(GENERATOR) & 7) == 0";
        build(
                words,
                bench(block, words, seed)
                        .replace(
                                "VALID",
                                (seed % 3 == 0 ? slow : USUAL).replace("GENERATOR", "seed"))
                        .replace(
                                "READY",
                                (seed % 3 == 2 ? slow : USUAL).replace("GENERATOR", "seed_out")));
    }

    /** Builds it with ends that are never busy: it says in how many cycles of the source's clock all has come out. */
    void buildFlowing(List<StreamWord> words) {
        build(
                words,
                bench(block, words, 1)
                        .replace("VALID", "1")
                        .replace("READY", "1")
                        .replace(
                                "/* FLOWS */",
                                "if (rst == 0) cycles = cycles + (next > 0 || valid);")
                        .replace("$finish;", "$display(\"cycles %0d\", last_out); $finish;")
                        .replace("/* OUT */", "last_out = cycles;"));
    }

    private void build(List<StreamWord> words, String bench) {
        Tool.write(folder, "words.hex", memory(words));
        Tool.write(folder, "bench.v", bench);
        Tool.run(folder, ("iverilog -g2005 -s bench -y . -o bench.vvp bench.v").split(" "));
    }

    /**
     * What comes out of each stream: mark, bytes that count, and those bytes.
     *
     * @param mutant which change of the hardware is on; 0 for none
     */
    Map<String, List<String>> run(int mutant) {
        Map<String, List<String>> out = new TreeMap<>();
        String said = Tool.run(folder, "vvp", "-n", "bench.vvp", "+MUTANT=" + mutant);
        for (String line : said.lines().toList()) {
            int blank = line.indexOf(' ');
            out.computeIfAbsent(
                            blank < 0 ? line : line.substring(0, blank), name -> new ArrayList<>())
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
                    integer cycles = 0;
                    integer last_out = 0;
                    always @(posedge clk) begin /* FLOWS */ end
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
                        if (!valid || ready) valid <= VALID && next + (valid && ready) < COUNT;
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
                if (N_tvalid && N_tready) begin $display("N %b %h %h", N_tlast, N_tkeep, {MASKED}); /* OUT */ end
                if (N_before[W+K+1] && (!N_tvalid || N_before[W+K:0] !== {N_tlast, N_tkeep, N_tdata})) $display("changed");
                N_before <= {N_tvalid && !N_tready, N_tlast, N_tkeep, N_tdata};
                N_tready <= READY;
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
