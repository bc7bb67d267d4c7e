package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.cost.AccessCost;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.library.Vlnv;
import polymetron.output.HandoffFile;
import polymetron.output.hardware.DecodeProof;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.outside.Solver;
import polymetron.outside.StepByStep;
import polymetron.outside.Tool;
import polymetron.outside.Unknowns;
import polymetron.platform.Bus;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;

/** Generated hardware in general-purpose tools: nothing to complain about, and a program says what it says on the bench. */
final class HardwareSimulationTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private static Platform firstSteps() {
        return PlatformDocument.read(
                "first-steps.json",
                new String(Shipped.file("demo/first-steps.json"), StandardCharsets.UTF_8));
    }

    /**
     * First Steps with blocks named like words of the language and like nets, one more of each sort of block, and a bridge to a
     * bus with nothing on it.
     */
    private static Platform awkward() {
        return EDITOR.apply(
                firstSteps(),
                new Edit.Several(
                        null,
                        List.of(
                                new Edit.RenamePlatform("Always"),
                                new Edit.RenameBlock("cpu", "reg"),
                                new Edit.RenameBlock("memory", "clk"),
                                new Edit.RenameBlock("console", "bus"),
                                new Edit.RenameBlock("interrupts", "logic"),
                                new Edit.AddBlock(
                                        "identity",
                                        Vlnv.parse(
                                                "polymetron:infrastructure:platform-identity:1.0"),
                                        null),
                                new Edit.SetDomain("identity", "clk", "main"),
                                new Edit.SetDomain("identity", "rst", "main"),
                                new Edit.Attach(
                                        "identity",
                                        "registers",
                                        "system",
                                        new Address(0x1000_6000),
                                        null),
                                new Edit.AddBlock(
                                        "bus_irq",
                                        Vlnv.parse("polymetron:timer:general-timer:1.0"),
                                        null),
                                new Edit.SetDomain("bus_irq", "clk", "main"),
                                new Edit.SetDomain("bus_irq", "rst", "main"),
                                new Edit.Attach(
                                        "bus_irq",
                                        "registers",
                                        "system",
                                        new Address(0x1000_7000),
                                        null),
                                new Edit.AddBlock("entity", Shipped.GPIO, null),
                                new Edit.SetDomain("entity", "clk", "main"),
                                new Edit.SetDomain("entity", "rst", "main"),
                                new Edit.Attach(
                                        "entity",
                                        "registers",
                                        "system",
                                        new Address(0x1000_5000),
                                        null),
                                new Edit.AddBus(new Bus("nothing", Protocol.APB, 32, 20, "main")),
                                new Edit.AddBlock("bridge", Shipped.BRIDGE, null),
                                new Edit.SetDomain("bridge", "clk", "main"),
                                new Edit.SetDomain("bridge", "rst", "main"),
                                new Edit.Attach(
                                        "bridge",
                                        "window",
                                        "system",
                                        new Address(0x4000_0000L),
                                        null),
                                new Edit.Attach("bridge", "behind", "nothing", null, null))));
    }

    static Stream<Platform> platforms() {
        return Stream.of(firstSteps(), Shipped.demo(), awkward());
    }

    private static Hardware write(Platform platform, Path folder) {
        Hardware hardware = Hardware.of(Shipped.elaborate(platform));
        assertThat(hardware.notBuilt()).isEmpty();
        for (HandoffFile file : hardware.files()) {
            Tool.write(folder, file.path(), file.bytes());
        }
        return hardware;
    }

    private static String[] command(Path folder, String start) throws IOException {
        List<String> files = Files.readAllLines(folder.resolve("hdl/files.f"));
        return Stream.concat(Stream.of(start.split(" ")), files.stream()).toArray(String[]::new);
    }

    @ParameterizedTest
    @MethodSource("platforms")
    void toolsHaveNothingToSay(Platform platform, @TempDir Path folder) throws IOException {
        Hardware hardware = write(platform, folder);
        Path hdl = folder.resolve("hdl");
        assertThat(Tool.run(hdl, command(folder, "iverilog -g2005 -Wall -o lint.vvp"))).isEmpty();
        String said =
                Tool.tryRun(
                                hdl,
                                command(
                                        folder,
                                        "verilator --lint-only -Wall --top-module "
                                                + hardware.top()))
                        .output();
        // The one waiver: nets that say of themselves that they are not used.
        assertThat(said.lines().filter(line -> line.startsWith("%")))
                .allMatch(
                        line ->
                                line.startsWith("%Warning-UNUSEDSIGNAL")
                                                && line.contains("'unused_")
                                        || line.startsWith("%Error: Exiting due to"));
        assertThat(Hardware.of(Shipped.elaborate(platform)).files()).isEqualTo(hardware.files());
        assertThat(Tool.run(hdl, "ghdl", "-a", "--std=08", hardware.top() + ".vhd")).isEmpty();
    }

    @Test
    void aProgramSaysTheSameAsOnTheBench(@TempDir Path folder) throws IOException {
        Platform platform =
                EDITOR.apply(firstSteps(), new Edit.SetParameter("console", "BAUD", "3125000"));
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        ProgramImage image =
                BuiltProgram.of(
                        elaborated,
                        folder,
                        """
                        #include "drivers/machine_timer.h"
                        static volatile uint32_t ticks;
                        static volatile int32_t numbers[4] = {7, -100, 2147483647, -2147483647 - 1};
                        void trap_handler(uint32_t cause, uint32_t pc, uint32_t value);
                        void trap_handler(uint32_t cause, uint32_t pc, uint32_t value)
                        {
                            if (cause == 0x80000007u) {
                                ticks++;
                                machine_timer_set(TIMER_BASE, ~0ull);
                                return;
                            }
                            print("\\ntrap ");
                            print_hex(cause);
                            print_hex(value);
                            __asm__ volatile("csrw mepc, %0" : : "r"(pc + 4u));
                        }
                        int main(void)
                        {
                            for (unsigned one = 0; one < 4u; one++)
                                for (unsigned two = 0; two < 4u; two++) {
                                    int32_t a = numbers[one], b = numbers[two];
                                    uint32_t mixed = (uint32_t)(a * b) ^ (uint32_t)((int64_t)a * b >> 32);
                                    if (b != -1)
                                        mixed ^= (uint32_t)(a / b) + (uint32_t)(a % b);
                                    mixed += (uint32_t)a / (uint32_t)b ^ (uint32_t)a % (uint32_t)b;
                                    mixed ^= (uint32_t)a << (b & 31) ^ (uint32_t)(a >> (b & 31));
                                    mixed += (uint32_t)(a < b) + 2u * ((uint32_t)a < (uint32_t)b);
                                    print_hex(mixed);
                                }
                            machine_timer_set(TIMER_BASE, machine_timer_now(TIMER_BASE) + 20u);
                            __asm__ volatile("csrs mie, %0" : : "r"(0x80u));
                            __asm__ volatile("csrsi mstatus, 8");
                            while (ticks == 0u)
                                __asm__ volatile("wfi");
                            print("\\ntick");
                            __asm__ volatile("lw zero, 0(%0)" : : "r"(0x70000000u));
                            __asm__ volatile("sw zero, 0(%0)" : : "r"(0x70000004u));
                            __asm__ volatile("lw zero, 0(%0)" : : "r"(TIMER_BASE + 0x3000u));
                            __asm__ volatile("sw zero, 0(%0)" : : "r"(CONSOLE_BASE + 0x100u));
                            __asm__ volatile("lw zero, 2(%0)" : : "r"(0x100u));
                            __asm__ volatile("sh zero, 1(%0)" : : "r"(0x100u));
                            __asm__ volatile("ecall");
                            __asm__ volatile("ebreak");
                            __asm__ volatile(".word 0xFFFFFFFF");
                            __asm__ volatile("csrw mhartid, zero");
                            print("\\nend.");
                            for (;;) {
                            }
                        }
                        """);
        Machine machine = new Machine(elaborated);
        machine.load(image);
        String onBench = BuiltProgram.says(machine, 0.05);
        assertThat(onBench).contains("tick", "trap 00000005", "trap 00000002").endsWith("end.");
        write(platform, folder);
        Tool.write(folder, "program.hex", ImageFiles.of(image, "program").getFirst().bytes());
        StepByStep.watch(folder, "cpu");
        String simulated =
                Tool.run(
                        folder,
                        "make -s -C sim run IMAGE=program.hex UNTIL=end. CYCLES=300000".split(" "));
        assertThat(simulated.strip()).isEqualTo(onBench.strip());
        machine.load(image);
        assertThat(StepByStep.difference(folder, machine, 0)).isEmpty();
    }

    /** What is typed arrives, switches move, and lamps show what the program makes of them. */
    @Test
    void theBoardAroundItIsMovedByAFile(@TempDir Path folder) throws IOException {
        Platform platform =
                EDITOR.apply(Shipped.demo(), new Edit.SetParameter("console", "BAUD", "3125000"));
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        ProgramImage image =
                BuiltProgram.of(
                        elaborated,
                        folder,
                        """
                        #include "drivers/gpio.h"
                        int main(void)
                        {
                            print("go ");
                            for (;;) {
                                gpio_write(LAMPS_BASE, gpio_read(GAIN_BASE) << 1);
                                if (uart_has_received(PLATFORM_CONSOLE_BASE)) {
                                    char key = (char)uart_receive(PLATFORM_CONSOLE_BASE);
                                    uart_send(PLATFORM_CONSOLE_BASE, key);
                                }
                            }
                        }
                        """);
        write(platform, folder);
        Tool.write(folder, "program.hex", ImageFiles.of(image, "program").getFirst().bytes());
        Tool.write(folder, "moves.txt", "100 @switches 5\n160 hello\n200 @nothing 1\n");
        String said =
                Tool.run(
                        folder,
                        "make -s -C sim run IMAGE=program.hex UNTIL=hello INPUT=moves.txt PARTS=1 CYCLES=100000"
                                .split(" "));
        assertThat(said).contains("lamps 0a", "go ", "hello");
    }

    @Test
    void theSimulationEndsWithOneWhenTheTextIsNotSaid(@TempDir Path folder) {
        write(firstSteps(), folder);
        Tool.Outcome outcome =
                Tool.tryRun(folder, "make -s -C sim run UNTIL=never CYCLES=1000".split(" "));
        assertThat(outcome.status()).isNotZero();
        assertThat(outcome.output()).contains("stopped after 1000 cycles");
        // A text is taken as it is, with what make or a shell would take for something else.
        outcome =
                Tool.tryRun(
                        folder,
                        "make",
                        "-s",
                        "-C",
                        "sim",
                        "run",
                        "UNTIL=it's $(HOME), `id` \"done\"",
                        "CYCLES=1000");
        assertThat(outcome.output()).contains("stopped after 1000 cycles").doesNotContain("uid=");
        outcome = Tool.tryRun(folder, "make -s -C sim run IMAGE=missing.hex".split(" "));
        assertThat(outcome.output()).contains("there is no image missing.hex");
    }

    /** What there is no hardware for is named, and nothing is written for it. */
    @Test
    void whatCannotBeBuiltIsNamed() {
        Hardware hardware = Hardware.of(Shipped.elaborate(Shipped.recipe("acquisition")));
        assertThat(hardware.files()).isEmpty();
        assertThat(hardware.notBuilt().toString())
                .contains("there is no hardware for Fast RISC-V processor");
    }

    /** The address decode selects what the address spaces show, for every address; a wrong bit is found. */
    @Test
    void theAddressDecodeIsProved(@TempDir Path folder) throws IOException {
        Platform platform =
                EDITOR.apply(
                        awkward(), new Edit.SetReach("reg", "data", "entity", "registers", false));
        Hardware hardware = write(platform, folder);
        List<DecodeProof> proofs = DecodeProof.of(Shipped.elaborate(platform), hardware);
        assertThat(proofs).hasSize(1);
        DecodeProof proof = proofs.getFirst();
        assertThat(Solver.answer(proof, folder)).startsWith("unsat");
        Path decode = folder.resolve(proof.decodes().getFirst());
        String right = Files.readString(decode);
        for (String wrong :
                List.of(
                        right.replace("16'h1001", "16'h1101"),
                        right.replace("address[31:14] == 18'h0", "address[31:15] == 17'h0"),
                        right.replaceFirst("(selects_identity.*) & initiator\\[0\\]", "$1"))) {
            assertThat(wrong).isNotEqualTo(right);
            Files.writeString(decode, wrong);
            assertThat(Solver.answer(proof, folder)).startsWith("sat");
        }
    }

    /** Counts the cycles of each read of the processor, from the request to the answer, by the target it goes to. */
    private static String monitor(String side) {
        return """

        integer SIDE_cycles = 0;
        reg [31:0] SIDE_address;
        always @(posedge oscillator) begin
            if (board.cpu_SIDE_arvalid === 1'b1) SIDE_address = board.cpu_SIDE_araddr;
            if (board.cpu_SIDE_arvalid === 1'b1 || SIDE_cycles != 0) SIDE_cycles = SIDE_cycles + 1;
            if (board.cpu_SIDE_rvalid === 1'b1 && board.cpu_SIDE_rready === 1'b1) begin
                $display("read SIDE %h %0d", SIDE_address, SIDE_cycles);
                SIDE_cycles = 0;
            end
        end
        """
                .replace("SIDE", side);
    }

    /** What Addresses says of the cycles of a read is what simulation measures, for both sides and every target. */
    @Test
    void readsTakeTheCyclesThatArePredicted(@TempDir Path folder) throws IOException {
        Platform platform =
                EDITOR.apply(firstSteps(), new Edit.SetParameter("console", "BAUD", "3125000"));
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        ProgramImage image =
                BuiltProgram.of(
                        elaborated,
                        folder,
                        """
                        int main(void)
                        {
                            static volatile uint32_t word = 1u;
                            uint32_t all = word + *(volatile uint32_t *)(TIMER_BASE + TIMER_MTIME_OFFSET);
                            all += *(volatile uint32_t *)(INTERRUPTS_BASE + INTERRUPTS_PENDING_OFFSET);
                            print(all ? "end." : "end.");
                            for (;;) {
                            }
                        }
                        """);
        write(platform, folder);
        Path bench = folder.resolve("sim/testbench.v");
        String text = Files.readString(bench);
        int end = text.lastIndexOf("endmodule");
        Files.writeString(
                bench,
                text.substring(0, end)
                        + Unknowns.monitor(folder, "first_steps")
                        + monitor("data")
                        + monitor("instruction")
                        + text.substring(end));
        Tool.write(folder, "program.hex", ImageFiles.of(image, "program").getFirst().bytes());
        String said =
                Tool.run(
                        folder,
                        "make -s -C sim run IMAGE=program.hex UNTIL=end. CYCLES=300000".split(" "));
        assertThat(said)
                .as("a handshake or interrupt that is neither 0 nor 1")
                .doesNotContain("unknown");
        Map<String, Set<Long>> measured = new TreeMap<>();
        for (String line : said.lines().filter(each -> each.contains("read ")).toList()) {
            String[] words = line.substring(line.indexOf("read ")).split(" ");
            AddressSpace space = elaborated.space(new InterfaceRef("cpu", words[1])).orElseThrow();
            TargetRange target = space.at(Long.parseLong(words[2], 16)).orElseThrow();
            measured.computeIfAbsent(words[1] + " " + target.ref(), key -> new TreeSet<>())
                    .add(Long.parseLong(words[3].strip()));
        }
        Map<String, Set<Long>> predicted = new TreeMap<>();
        for (AddressSpace space : elaborated.spaces()) {
            for (TargetRange target : space.ranges()) {
                predicted.put(
                        space.initiator().form().name() + " " + target.ref(),
                        Set.of(AccessCost.of(elaborated, space, target).cycles()));
            }
        }
        assertThat(measured).isEqualTo(predicted);
    }
}
