package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.Shipped;
import polymetron.bench.mutant.EvidenceFile;
import polymetron.outside.Tool;

/**
 * What the common hardware promises, proved for every input up to a number of steps from the reset (bounded model checking by
 * yosys-smtbmc and z3). Assumptions are about inputs only. Each proof reaches what it is about, and fails for a module with one
 * wrong place.
 */
final class HardwareProofTest {
    /**
     * @param statement file of the statement
     * @param modules common modules that it is about
     * @param defines options for reading it
     * @param steps cycles; with two clocks, times at which any of them may change
     * @param mutants a place in one of the modules and what is wrong there, one after the other
     */
    private record Proof(
            String statement, List<String> modules, String defines, int steps, String... mutants) {
        @Override
        public String toString() {
            return statement;
        }
    }

    private static final int STEPS = 20;
    private static final int TWO_CLOCKS = 30;

    /** Where more takes minutes. */
    private static final int TEN = 10;

    private static final int EIGHT = 8;
    private static final int SIX = 6;

    static Stream<Proof> proofs() {
        return Stream.of(
                new Proof(
                        "fifo",
                        List.of("fifo"),
                        "",
                        STEPS,
                        "push && !is_full",
                        "push",
                        "if (pops) first",
                        "if (pop) first",
                        "words[next[DEPTH_BITS-1:0]] <= in",
                        "words[first[DEPTH_BITS-1:0]] <= in"),
                new Proof(
                        "turns",
                        List.of("turns"),
                        "",
                        STEPS,
                        "requests & after",
                        "{INITIATORS{1'b0}}",
                        "else if (ends) turn",
                        "else if (!ends && |turn) turn",
                        "(~among + {{INITIATORS - 1{1'b0}}, 1'b1})",
                        "{INITIATORS{1'b1}}",
                        "preferred : requests;",
                        "preferred : ~requests;"),
                new Proof(
                        "priority",
                        List.of("turns"),
                        "",
                        STEPS,
                        "BY_PRIORITY != 0 ? {INITIATORS{1'b0}}",
                        "BY_PRIORITY == 0 ? {INITIATORS{1'b0}}"),
                new Proof(
                        "axi4_bus",
                        List.of("axi4_bus", "turns"),
                        "-D READS",
                        STEPS,
                        "read_answers <= read_target",
                        "read_answers <= ~read_target",
                        "read_failed <= is_read_nowhere",
                        "read_failed <= 1'b0",
                        "{INITIATORS{is_read_answered}} & read_initiator",
                        "{INITIATORS{is_read_answered}}"),
                new Proof(
                        "axi4_bus",
                        List.of("axi4_bus", "turns"),
                        "-D WRITES",
                        STEPS,
                        "address_sent <= 1'b1;\n                write_answers <= write_to",
                        "address_sent <= 1'b1;\n                write_answers <= ~write_to",
                        "write_failed <= is_nowhere",
                        "write_failed <= 1'b0",
                        "{INITIATORS{is_answered}} & write_initiator",
                        "{INITIATORS{is_answered}}"),
                new Proof(
                        "axi4_lite_target",
                        List.of("axi4_lite_target"),
                        "",
                        STEPS,
                        "busy ? busy_writes : ",
                        "",
                        "if (request && done) write_first <= !write;",
                        "",
                        "s_rdata <= answer",
                        "s_rdata <= s_rdata",
                        "(!s_bvalid || s_bready)",
                        "1'b1",
                        "read_failed <= error",
                        "read_failed <= 1'b0"),
                new Proof(
                        "axi4_lite_initiator",
                        List.of("axi4_lite_initiator"),
                        "",
                        STEPS,
                        "request && !write && !address_taken",
                        "request && !write",
                        "request && write && !data_taken",
                        "request && write && !data_taken && address_taken && m_awready",
                        "if (rst || done)",
                        "if (rst)",
                        "m_bresp[1] : m_rresp[1]",
                        "m_bresp[1] : 1'b0"),
                new Proof(
                        "apb",
                        List.of("apb_initiator", "apb_target"),
                        "",
                        STEPS,
                        "m_penable <= request && !done",
                        "m_penable <= request",
                        "write ? bytes : {DATA_BITS / 8{1'b0}}",
                        "bytes",
                        "assign m_psel = request",
                        "assign m_psel = request && !m_penable"),
                new Proof(
                        "ahb_lite",
                        List.of("ahb_lite_initiator", "ahb_lite_bus", "ahb_lite_target"),
                        "",
                        TEN,
                        "lane % (1 << size) == 0 && (left & whole) == whole",
                        "lane % (1 << size) == 0",
                        "written <= written | these",
                        "written <= written",
                        "lane % (1 << size) == 0 && (left",
                        "(left",
                        "failed <= failed || m_hresp;",
                        "",
                        "nowhere ? second : is_answered",
                        "nowhere || is_answered",
                        "answers <= m_hsel",
                        "answers <= {TARGETS{1'b0}}",
                        "failing <= is_done && error",
                        "failing <= 1'b0",
                        "several << lane",
                        "several"),
                new Proof(
                        "axi4_burst",
                        List.of("axi4_burst"),
                        "",
                        SIX,
                        "(here | below) + 12'd1",
                        "here + below + 12'd1",
                        "(here & ~range) | (after & range)",
                        "after",
                        "len - 8'd1;",
                        "len;",
                        "now_burst == INCR && ",
                        "",
                        " && now_size == WHOLE",
                        ""),
                new Proof(
                        "block_memory",
                        List.of("block_memory"),
                        "",
                        EIGHT,
                        "port_ahead_writes == port_write",
                        "1'b1",
                        "(port_ahead || !port_is_ready)",
                        "!port_is_ready",
                        "port_answers <= port_starts || port_goes_on",
                        "port_answers <= port_starts",
                        "port_request || !port_ahead",
                        "1'b1",
                        "words[port_next]",
                        "words[port_word]"),
                new Proof(
                        "axi4_burst_initiator",
                        List.of("axi4_burst_initiator"),
                        "",
                        TEN,
                        "address_taken <= !last;",
                        "address_taken <= 1'b0;",
                        "left <= (going ? left : more) - 8'd1",
                        "left <= left - 8'd1",
                        "last ? m_bready && m_bvalid : ",
                        "",
                        "address_is_taken && data_is_taken",
                        "data_is_taken",
                        "(going ? left : more) == 8'd0",
                        "more == 8'd0"),
                new Proof(
                        "axi4_target",
                        List.of("axi4_target", "axi4_burst"),
                        "",
                        TEN,
                        "!write_last && (beat_failed || error)",
                        "1'b0",
                        "if (write_ends && write_last)",
                        "if (write_ends)",
                        "s_rlast <= read_last",
                        "s_rlast <= 1'b1"),
                new Proof(
                        "wishbone_b4",
                        List.of(
                                "wishbone_b4_bus",
                                "turns",
                                "wishbone_b4_initiator",
                                "wishbone_b4_target"),
                        "",
                        STEPS,
                        "is_requested && (is_nowhere || |(target & m_err))",
                        "is_requested && |(target & m_err)",
                        "{INITIATORS{is_failed}} & initiator",
                        "{INITIATORS{is_failed}}"),
                new Proof(
                        "narrow",
                        List.of("narrow"),
                        "",
                        STEPS,
                        "write && narrow_bytes == {NARROW / 8{1'b0}}",
                        "1'b0",
                        "failed <= failed || part_failed",
                        "failed <= part_failed && failed",
                        "part == LAST[PART_BITS-1:0]",
                        "1'b1",
                        "else if (part_done) read <= answer",
                        "else if (part_done) read <= read"),
                new Proof(
                        "crossing",
                        List.of("crossing", "reset"),
                        "",
                        TWO_CLOCKS,
                        "if (far_request && far_done) answered <= taken",
                        "if (starts) answered <= asked_seen[1]",
                        "far_value <= value",
                        "far_value <= far_value",
                        "!far_request && asked_seen[1] != taken",
                        "!far_request && asked_seen[1]"));
    }

    /** The library's pages say what is proved here; -Dpolymetron.evidence=write keeps it. */
    @Test
    void theLibrarySaysWhatIsProved() throws IOException {
        SortedMap<String, Integer> proved = new TreeMap<>();
        proofs().forEach(
                        proof ->
                                proof.modules()
                                        .forEach(
                                                module ->
                                                        proved.merge(
                                                                "polymetron_" + module,
                                                                proof.steps(),
                                                                Math::max)));
        EvidenceFile.writeProofs(proved);
        assertThat(Shipped.LIBRARY.hardware().evidence().proofs()).isEqualTo(proved);
    }

    @TempDir private Path folder;

    private static String text(String name) throws IOException {
        try (InputStream in = HardwareProofTest.class.getResourceAsStream(name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private String solve(Proof proof, String place, String wrong, String mode) throws IOException {
        StringBuilder files = new StringBuilder();
        for (String module : proof.modules()) {
            String name = "polymetron_%s.v".formatted(module);
            Tool.write(folder, name, text("/polymetron/library/hdl/" + name).replace(place, wrong));
            files.append(' ').append(name);
        }
        Tool.write(folder, "proof.v", text("/polymetron/proofs/" + proof.statement() + ".v"));
        String clocks = proof.steps() == TWO_CLOCKS ? "clk2fflogic" : "async2sync; dffunmap";
        Tool.run(
                folder,
                "yosys",
                "-q",
                "-p",
                ("read_verilog -formal %s%s proof.v; prep -flatten -top proof; memory_map; %s;"
                                + " opt_clean; write_smt2 -wires proof.smt2")
                        .formatted(proof.defines(), files, clocks));
        return Tool.tryRun(
                        folder,
                        "yosys-smtbmc -s z3 --unroll %s -t %s proof.smt2"
                                .formatted(mode, proof.steps())
                                .replace("  ", " ")
                                .split(" "))
                .output();
    }

    @ParameterizedTest
    @MethodSource("proofs")
    void holdsAndReachesWhatItIsAbout(Proof proof) throws IOException {
        assertThat(solve(proof, "", "", "")).contains("Status: PASSED");
        assertThat(solve(proof, "", "", "-c")).contains("Reached cover").contains("Status: PASSED");
    }

    @ParameterizedTest
    @MethodSource("proofs")
    void failsForAWrongModule(Proof proof) throws IOException {
        StringBuilder right = new StringBuilder();
        for (String module : proof.modules()) {
            right.append(text("/polymetron/library/hdl/polymetron_%s.v".formatted(module)));
        }
        for (int at = 0; at < proof.mutants().length; at += 2) {
            String place = proof.mutants()[at];
            assertThat(right).contains(place);
            assertThat(solve(proof, place, proof.mutants()[at + 1], ""))
                    .as("%s instead of %s", proof.mutants()[at + 1], place)
                    .contains("Status: FAILED");
        }
    }
}
