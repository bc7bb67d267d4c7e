package polymetron.bench.hart;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.outside.Tool;

/**
 * The processor's hardware and the bench's hart, instruction by instruction. The hardware leads: its trace says where an
 * interrupt was taken and what devices and counters gave; the hart follows, and checks that the interrupt was allowed and not
 * late. Stalls, interrupts and what devices give are random.
 */
final class LockstepTest {
    /** Rounds of the random loop; for a million instructions by hand with -Dpolymetron.lockstep=50. */
    private static final int ROUNDS = Integer.getInteger("polymetron.lockstep", 2);

    private static final int ITEMS = 900;

    @TempDir(cleanup = org.junit.jupiter.api.io.CleanupMode.NEVER)
    private Path folder;

    private static String source(String name) throws IOException {
        try (InputStream in =
                LockstepTest.class.getResourceAsStream("/polymetron/library/hdl/" + name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** What was met on the way, by its name. */
    private final Map<String, Integer> met = new TreeMap<>();

    private String run(
            Map<String, String> files, long seed, int items, int rounds, boolean compressed)
            throws IOException {
        Path here = Files.createTempDirectory(folder, "run");
        Tool.write(here, "program.S", LockstepProgram.of(seed, items, rounds, compressed));
        Tool.run(
                here,
                ("riscv64-unknown-elf-gcc -misa-spec=2.2 -march=rv32im%s -mabi=ilp32 -nostdlib"
                     + " -nostartfiles -Wl,-Ttext=0 -Wl,--no-relax -o program.elf program.S")
                        .formatted(compressed ? "c" : "")
                        .split(" "));
        Tool.run(
                here,
                "riscv64-unknown-elf-objcopy -O binary -j .text program.elf program.bin"
                        .split(" "));
        byte[] image = new byte[LockstepFollower.MEMORY_BYTES];
        byte[] program = Files.readAllBytes(here.resolve("program.bin"));
        assertThat(program.length).isLessThan(0x9000 - 256);
        System.arraycopy(program, 0, image, 0, program.length);
        StringBuilder words = new StringBuilder();
        for (int at = 0; at < image.length; at += 4) {
            words.append("%08x\n".formatted(Ram.loadWord(image, at)));
        }
        Tool.write(here, "program.hex", words.toString());
        for (Map.Entry<String, String> file : files.entrySet()) {
            Tool.write(here, file.getKey(), file.getValue());
        }
        Tool.write(
                here,
                "lockstep.v",
                BENCH.replace("SEED", "" + (seed + 1))
                        .replace("SHORT", compressed ? "1" : "0")
                        .replace("LIMIT", "" + 200L * items * rounds));
        List<String> sources = new ArrayList<>(files.keySet());
        sources.add("lockstep.v");
        Tool.run(here, Tool.command("iverilog -g2005 -DSIMULATION -o sim", sources));
        Tool.run(here, "vvp", "sim");
        if (!Files.exists(here.resolve("memory.txt"))) {
            return "the program does not come to its end";
        }
        LockstepFollower follower = new LockstepFollower(image, compressed, met);
        String wrong = null;
        for (String line : Files.readAllLines(here.resolve("trace.txt"))) {
            wrong = follower.follow(line);
            if (wrong != null) {
                break;
            }
        }
        return wrong != null ? wrong : follower.end(Files.readAllLines(here.resolve("memory.txt")));
    }

    private static Map<String, String> core() throws IOException {
        Map<String, String> files = new TreeMap<>();
        for (String name : List.of("polymetron_rv32_small.v", "polymetron_rv32_compressed.v")) {
            files.put(name, source(name));
        }
        return files;
    }

    @Test
    void theHartFollowsTheHardware() throws IOException {
        for (long seed = 1; seed <= 4; seed++) {
            assertThat(run(core(), seed, ITEMS, ROUNDS, seed != 2)).as("seed " + seed).isNull();
        }
        System.out.println("lockstep: " + met);
        assertThat(met)
                .as("each instruction, trap, and interrupt during each kind of stall")
                .containsKeys(LockstepFollower.EXPECTED.toArray(String[]::new));
    }

    /** Each is one wrong place in the hardware. */
    @Test
    void plantedBugsAreFound() throws IOException {
        List<String[]> bugs =
                List.of(
                        new String[] {"below = !sum[32]", "below = sum[32]"},
                        new String[] {
                            "fill = funct3 == 3'd5 && word[30] && one[31]", "fill = 1'b0"
                        },
                        new String[] {"interrupt_cause : 32'd0", "interrupt_cause ^ 32'd4 : 32'd0"},
                        new String[] {"mpie <= mie_enable", "mpie <= 1'b1"},
                        new String[] {"loaded[15] && !funct3[2]", "loaded[15]"},
                        new String[] {"4'b0001 << address[1:0]", "4'b0001 << address[0]"},
                        new String[] {
                            "wire misaligned = (funct3[1:0] == 2'd1 && address[0])",
                            "wire misaligned = (1'b0)"
                        },
                        new String[] {
                            "(minus_one != minus_two) && two != 32'd0", "minus_one && two != 32'd0"
                        },
                        new String[] {"if (retires) retired", "if (retires && !is_csr) retired"},
                        new String[] {"csr_old & ~csr_operand", "csr_old & csr_operand"},
                        new String[] {"{pc[31:2] + 30'd1, 2'd0}", "{pc[31:2], 2'd0}"},
                        new String[] {
                            "jumps || is_return || (is_fence && funct3[0])",
                            "is_return || (is_fence && funct3[0])"
                        });
        for (String[] bug : bugs) {
            Map<String, String> files = core();
            String right = files.get("polymetron_rv32_small.v");
            String wrong = right.replace(bug[0], bug[1]);
            assertThat(wrong).as(bug[0]).isNotEqualTo(right);
            files.put("polymetron_rv32_small.v", wrong);
            String found = null;
            for (long seed = 3; seed < 8 && found == null; seed++) {
                found = run(files, seed, ITEMS, 1, true);
            }
            assertThat(found).as(bug[1]).isNotNull();
        }
    }

    private static final String BENCH =
            """
            // Memory with random stalls, devices that give random words, and interrupts at random cycles.
            module lockstep;
                reg clk = 1'b0;
                reg rst = 1'b1;
                always #5 clk = ~clk;
                integer seed = SEED;
                integer trace;
                integer cycle = 0;

                wire instruction_request;
                wire [31:0] instruction_address;
                reg instruction_done = 1'b0;
                reg [31:0] instruction_answer;
                reg instruction_error;
                wire data_request;
                wire data_write;
                wire [31:0] data_address;
                wire [31:0] data_value;
                wire [3:0] data_bytes;
                reg data_done = 1'b0;
                reg [31:0] data_answer;
                reg data_error;
                reg external = 1'b0;
                reg timer = 1'b0;
                reg software = 1'b0;
                reg [3:0] locals = 4'd0;
                reg [63:0] mtime = 64'd0;
                reg [31:0] lines;
                wire trace_valid, trace_trap, trace_access, trace_write;
                wire [31:0] trace_pc, trace_instruction, trace_value, trace_cause, trace_address, trace_data;
                wire [4:0] trace_register;
                wire [3:0] trace_bytes;
                wire [63:0] trace_cycle;

                polymetron_rv32_small #(
                    .MULTIPLIER(1), .COMPRESSED(SHORT), .COUNTERS(1), .TIME(1), .LOCAL_INTERRUPTS(4),
                    .TRAP_VECTOR(32'h40)
                ) hart (
                    .clk(clk), .rst(rst),
                    .instruction_request(instruction_request), .instruction_address(instruction_address),
                    .instruction_done(instruction_done), .instruction_answer(instruction_answer),
                    .instruction_error(instruction_error),
                    .data_request(data_request), .data_write(data_write), .data_address(data_address),
                    .data_value(data_value), .data_bytes(data_bytes), .data_done(data_done),
                    .data_answer(data_answer), .data_error(data_error),
                    .external(external), .timer(timer), .software(software), .local__(locals), .mtime(mtime),
                    .trace_valid(trace_valid), .trace_pc(trace_pc), .trace_instruction(trace_instruction),
                    .trace_register(trace_register), .trace_value(trace_value), .trace_trap(trace_trap),
                    .trace_cause(trace_cause), .trace_access(trace_access), .trace_write(trace_write),
                    .trace_address(trace_address), .trace_data(trace_data), .trace_bytes(trace_bytes),
                    .trace_cycle(trace_cycle)
                );

                reg [31:0] memory [0:16383];
                initial begin
                    $readmemh("program.hex", memory);
                    trace = $fopen("trace.txt", "w");
                    repeat (4) @(negedge clk);
                    rst = 1'b0;
                end

                // What is done is so for one cycle, and not in the cycle behind.
                always @(negedge clk) begin
                    instruction_done = 1'b0;
                    if (instruction_request && ($random(seed) & 3) != 0) begin
                        instruction_done = 1'b1;
                        instruction_error = instruction_address >= 32'h10000;
                        instruction_answer = instruction_error ? 32'hFFFFFFFF : memory[instruction_address[15:2]];
                    end
                    data_done = 1'b0;
                    if (data_request && ($random(seed) & 3) != 0) begin
                        data_done = 1'b1;
                        data_error = data_address >= 32'h10000 && data_address[31:12] != 20'h10000
                            && data_address[31:12] != 20'h20000;
                        data_answer = data_address < 32'h10000 ? memory[data_address[15:2]] : $random(seed);
                        if (data_write && data_address < 32'h10000) begin
                            if (data_bytes[0]) memory[data_address[15:2]][7:0] = data_value[7:0];
                            if (data_bytes[1]) memory[data_address[15:2]][15:8] = data_value[15:8];
                            if (data_bytes[2]) memory[data_address[15:2]][23:16] = data_value[23:16];
                            if (data_bytes[3]) memory[data_address[15:2]][31:24] = data_value[31:24];
                        end
                    end
                    if (($random(seed) & 31) == 0) begin
                        external = ($random(seed) & 7) == 0;
                        timer = ($random(seed) & 7) == 0;
                        software = ($random(seed) & 7) == 0;
                        locals = ($random(seed) & 7) == 0 ? $random(seed) : 4'd0;
                        if (!rst && (external || timer || software || locals != 4'd0))
                            $fdisplay(trace, "rise %0d", hart.state);
                    end
                    mtime = mtime + 64'd1;
                end

                always @(posedge clk) begin
                    cycle <= cycle + 1;
                    lines <= {12'd0, locals, 4'd0, external, 3'd0, timer, 3'd0, software, 3'd0};
                    if (trace_valid) begin
                        $fdisplay(trace, "%h %h %0d %h %0d %h %0d %0d %h %h %h %h %h", trace_pc, trace_instruction,
                            trace_register, trace_value, trace_trap, trace_cause, trace_access, trace_write,
                            trace_address, trace_data, trace_bytes, trace_cycle, lines);
                        if (trace_access && trace_write && trace_address == 32'h20000000) begin
                            $fclose(trace);
                            $writememh("memory.txt", memory);
                            $finish;
                        end
                    end
                    if (cycle == LIMIT) $finish;
                end
            endmodule
            """;
}
