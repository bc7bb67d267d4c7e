package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bench.block.GpioModel;
import polymetron.bench.hart.MemoryShare;
import polymetron.bench.hart.Trap;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Vlnv;
import polymetron.output.Fingerprint;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramFile;
import polymetron.output.image.ProgramImage;
import polymetron.platform.Bus;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.software.SoftwareView;

final class MachineTest {
    private final ElaboratedPlatform demo = Shipped.elaborate(Shipped.demo());

    private Machine demoMachine() {
        Machine machine = new Machine(demo);
        machine.load(ProgramImage.of(demo, ElfReader.read(Shipped.demoProgram()), (byte) 0));
        return machine;
    }

    /** A machine with a few instruction words at address 0. */
    private Machine machine(int... words) {
        return machine(demo, words);
    }

    private static Machine machine(ElaboratedPlatform platform, int... words) {
        byte[] bytes = new byte[4 * words.length];
        for (int at = 0; at < bytes.length; at++) {
            bytes[at] = (byte) (words[at / 4] >>> 8 * (at % 4));
        }
        ProgramFile program =
                new ProgramFile(
                        0,
                        0,
                        List.of(new ProgramFile.Segment(0, 0, bytes, bytes.length, true, true)),
                        List.of());
        Machine machine = new Machine(platform);
        machine.load(ProgramImage.of(platform, program, (byte) 0));
        return machine;
    }

    private static String said(Machine machine) {
        return new String(machine.console().orElseThrow().takeSent(), StandardCharsets.US_ASCII);
    }

    private static void runUntil(Machine machine, StringBuilder said, String text) {
        for (int slice = 0; slice < 2_000 && said.indexOf(text) < 0; slice++) {
            machine.run(machine.clockHz() / 1_000);
            said.append(said(machine));
        }
        assertThat(said.toString()).contains(text);
    }

    private static GpioModel gpio(Machine machine, String block) {
        return (GpioModel) machine.model(block).orElseThrow();
    }

    /** Through a bridge a block answers where the processor sees it, and a hole in the window is a bus fault. */
    @Test
    void accessesGoThroughBridges() {
        ElaboratedPlatform bridged =
                Shipped.elaborate(
                        new Editor(Shipped.LIBRARY)
                                .apply(
                                        Shipped.demo(),
                                        new Edit.Several(
                                                null,
                                                List.of(
                                                        new Edit.AddBus(
                                                                new Bus(
                                                                        "slow",
                                                                        Protocol.APB,
                                                                        32,
                                                                        20,
                                                                        "main")),
                                                        new Edit.AddBlock(
                                                                "bridge", Shipped.BRIDGE, null),
                                                        new Edit.Attach(
                                                                "bridge",
                                                                "window",
                                                                "system",
                                                                new Address(0x4000_0000),
                                                                null),
                                                        new Edit.Attach(
                                                                "bridge", "behind", "slow", null,
                                                                null),
                                                        new Edit.Attach(
                                                                "lamps",
                                                                "registers",
                                                                "slow",
                                                                new Address(0x3000),
                                                                null)))));
        Machine machine =
                machine(
                        bridged,
                        0x400030B7, // lui x1, 0x40003
                        0x05500113, // addi x2, x0, 0x55
                        0x0020A223, // sw x2, 4(x1): OUTPUT of lamps
                        0x400040B7, // lui x1, 0x40004
                        0x0000A183); // lw x3, 0(x1): nothing is there
        for (int step = 0; step < 5; step++) {
            machine.step();
        }
        assertThat(gpio(machine, "lamps").driven()).isEqualTo(0x55);
        assertThat(machine.hart().csrs().lastCause()).isEqualTo(Trap.LOAD_FAULT);
        assertThat(machine.hart().csrs().lastTrapValue()).isEqualTo(0x4000_4000);
    }

    @Test
    void theDemoSaysHelloAndShowsTheGroundMoving() {
        Machine machine = demoMachine();
        StringBuilder said = new StringBuilder();
        runUntil(machine, said, "> ");
        assertThat(said.toString()).contains("Ridge Station", Fingerprint.of(demo));
        machine.run(machine.clockHz() / 2);
        assertThat(gpio(machine, "lamps").driven()).as("a bar of lamps").isNotZero();
        machine.run(20L * machine.clockHz());
        assertThat(gpio(machine, "lamps").driven()).as("the ground is quiet again").isZero();

        gpio(machine, "service").setOutside(1);
        machine.settle();
        machine.run(machine.clockHz() / 5);
        int small = gpio(machine, "lamps").driven();
        assertThat(small).as("the service button starts an event").isNotZero();
        gpio(machine, "gain").setOutside(0xFF);
        machine.run(machine.clockHz() / 25);
        assertThat(gpio(machine, "lamps").driven()).as("gain").isGreaterThan(small);

        machine.console().orElseThrow().arrive("status\r".getBytes(StandardCharsets.US_ASCII));
        machine.settle();
        said.setLength(0);
        runUntil(machine, said, " s\r\n");
        assertThat(said.toString()).contains("gain 256, events 2");
    }

    @Test
    void aRunCanBeRepeatedExactlyAndDoesNotDependOnItsSlices() {
        Machine one = demoMachine();
        Machine other = demoMachine();
        other.hart().interpretOnly();
        one.run(3_000_000);
        for (int slice = 0; slice < 3_000; slice++) {
            other.run(1_000);
        }
        assertThat(other.cycles()).isEqualTo(one.cycles());
        assertThat(other.hart().pc()).isEqualTo(one.hart().pc());
        for (int register = 0; register < 32; register++) {
            assertThat(other.hart().register(register)).isEqualTo(one.hart().register(register));
        }
        assertThat(said(other)).isEqualTo(said(one)).isNotEmpty();
        one.reset();
        one.run(3_000_000);
        assertThat(one.hart().pc()).isEqualTo(other.hart().pc());
    }

    /** Single steps do not count towards a later run: it is run in full. */
    @Test
    void aRunAfterSingleStepsRunsAsLongAsItShould() {
        Machine machine = demoMachine();
        for (int each = 0; each < 500; each++) {
            machine.step();
        }
        long before = machine.cycles();
        machine.run(1_000);
        assertThat(machine.cycles()).isBetween(before + 1_000, before + 1_100);
    }

    @Test
    void anAccessToNothingIsABusFault() {
        // lui x1, 0x20000; lw x2, 4(x1)
        Machine machine = machine(0x200000B7, 0x0040A103);
        machine.step();
        machine.step();
        assertThat(machine.hart().csrs().lastCause()).isEqualTo(Trap.LOAD_FAULT);
        assertThat(machine.hart().csrs().lastTrapValue()).isEqualTo(0x2000_0004);
        assertThat(machine.hart().csrs().lastTrapAddress()).isEqualTo(4);
        assertThat(machine.hart().pc()).as("the trap vector").isEqualTo(0x40);
    }

    /** Most of them at once, as translated instructions are. */
    private static void execute(Machine machine, int instructions) {
        machine.run(2L * instructions);
        for (int more = 0; machine.hart().csrs().read(0xB02) < instructions; more++) {
            assertThat(more).as("cycles of %s instructions", instructions).isLessThan(10_000);
            machine.run(1);
        }
    }

    @Test
    void theInstructionSideCannotRunFromRegisters() {
        // lui x1, 0x10000; jr x1
        Machine machine = machine(0x100000B7, 0x00008067);
        for (int each = 0; each < 3; each++) {
            machine.step();
        }
        assertThat(machine.hart().csrs().lastCause()).isEqualTo(Trap.FETCH_FAULT);
        assertThat(machine.hart().csrs().lastTrapValue()).isEqualTo(0x1000_0000);
    }

    @Test
    void misalignedAccessesTrap() {
        // lw x2, 2(x0); sh x2, 1(x0)
        Machine load = machine(0x00202103);
        load.step();
        assertThat(load.hart().csrs().lastCause()).isEqualTo(Trap.LOAD_MISALIGNED);
        Machine store = machine(0x002010A3);
        store.step();
        assertThat(store.hart().csrs().lastCause()).isEqualTo(Trap.STORE_MISALIGNED);
        assertThat(store.hart().csrs().lastTrapValue()).isEqualTo(1);
    }

    @Test
    void storesOverInstructionsAreSeen() {
        // A loop at 0x10 that is hot enough to be translated changes its own addi from +1 to +16.
        Machine machine =
                machine(
                        0x06400093, // addi x1, x0, 100
                        0x01012137, // lui  x2, 0x1012 (replaced word: addi x3, x3, 16 = 0x01018193)
                        0x01018237, // lui  x4, 0x1018
                        0x19320213, // addi x4, x4, 0x193
                        0x00118193, // addi x3, x3, 1
                        0xFFF08093, // addi x1, x1, -1
                        0xFE009CE3, // bne  x1, x0, -8
                        0x00402823, // sw   x4, 16(x0)
                        0x00A00093, // addi x1, x0, 10
                        0xFEDFF06F); // j    -20
        execute(machine, 4 + 300 + 3 + 30);
        assertThat(machine.hart().register(3)).isEqualTo(100 + 10 * 16);
    }

    @Test
    void readOnlyMemoryRefusesStores() {
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform platform =
                editor.apply(Shipped.demo(), new Edit.SetParameter("code", "WRITABLE", "0"));
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        Machine machine = new Machine(elaborated);
        // sw x0, 0(x0)
        byte[] store = {0x23, 0x20, 0x00, 0x00};
        machine.load(
                ProgramImage.of(
                        elaborated,
                        new ProgramFile(
                                0,
                                0,
                                List.of(new ProgramFile.Segment(0, 0, store, 4, false, true)),
                                List.of()),
                        (byte) 0));
        machine.step();
        assertThat(machine.hart().csrs().lastCause()).isEqualTo(Trap.STORE_FAULT);
    }

    @Test
    void aPlatformThatCannotRunSaysWhy() {
        Editor editor = new Editor(Shipped.LIBRARY);
        ElaboratedPlatform without =
                Shipped.elaborate(editor.apply(Shipped.demo(), new Edit.RemoveBlock("cpu")));
        assertThatThrownBy(() -> new Machine(without))
                .isInstanceOf(BenchException.class)
                .hasMessageContaining("no processor");
        ElaboratedPlatform small =
                Shipped.elaborate(
                        editor.apply(Shipped.demo(), new Edit.SetParameter("code", "SIZE", "64")));
        ProgramImage image =
                ProgramImage.of(small, ElfReader.read(Shipped.demoProgram()), (byte) 0);
        assertThatThrownBy(() -> new Machine(small).load(image))
                .isInstanceOf(BenchException.class)
                .hasMessageContaining("passes the end of code");
    }

    /** Of two UARTs the one on the console of the board is the console, also when another comes first. */
    @Test
    void theConsoleIsWhatDrivesTheConsoleOfTheBoard() {
        Platform lock =
                PlatformDocument.read(
                        "canal-lock.json",
                        new String(Shipped.file("demo/canal-lock.json"), StandardCharsets.UTF_8));
        // lui x5, 0x40000; addi x6, x0, 'k'; sw x6, 0(x5): to the UART in the logic, at
        // 0x4000_0000; j .
        Machine machine =
                machine(Shipped.elaborate(lock), 0x400002B7, 0x06B00313, 0x0062A023, 0x6F);
        machine.run(machine.clockHz() / 1_000);
        assertThat(said(machine)).as("of each hart").isEqualTo("kk");
    }

    /** Two benches of one process; what one takes the other cannot have, until it is put away. */
    @Test
    void benchesShareTheMemoryOfTheirProcess() {
        SoftwareView view = SoftwareView.of(Shipped.elaborate(Shipped.demo()));
        MemoryShare.Pool pool = new MemoryShare.Pool(400_000);
        MemoryShare share = pool.share();
        new Machine(view, share);
        assertThat(pool.left()).isBetween(0L, 390_000L);
        long left = pool.left();
        try (MemoryShare other = new MemoryShare.Pool(left / 100).share()) {
            assertThatThrownBy(() -> new Machine(view, other))
                    .isInstanceOf(BenchException.class)
                    .hasMessageContaining("put another bench away");
        }
        share.close();
        assertThat(pool.left()).isEqualTo(400_000);
        new Machine(view, pool.share());
        assertThat(pool.left()).isEqualTo(left);
    }

    /** A gibibyte is there page by page, to its last word; a program that wants it all is told. */
    @Test
    void largeMemoriesComePageByPage() {
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform large =
                editor.apply(
                        Shipped.demo(),
                        new Edit.AddBlock(
                                "records",
                                Vlnv.parse("polymetron:memory:external-memory-controller:1.0"),
                                Map.of("SIZE", String.valueOf(1 << 30), "ROWS", "14")));
        large =
                editor.apply(
                        large,
                        new Edit.Attach(
                                "records", "port", "system", new Address(0x4000_0000), null));
        ElaboratedPlatform platform = Shipped.elaborate(large);
        // lui x5, 0x7FFFF; lw x8, 0(x5); sw x5, 0(x5); lw x6, 0(x5); lui x5, 0x40000; lw x7, 0(x5);
        // j .
        Machine machine =
                machine(
                        platform,
                        0x7FFFF2B7,
                        0x0002A403,
                        0x0052A023,
                        0x0002A303,
                        0x400002B7,
                        0x0002A383,
                        0x6F);
        execute(machine, 10);
        assertThat(machine.hart().register(6)).isEqualTo(0x7FFFF000);
        assertThat(machine.hart().register(7)).isZero();
        machine.reset();
        execute(machine, 2);
        assertThat(machine.hart().register(8)).isZero();

        // lui x5, 0x40000; lui x7, 0x800; sw x5, 0(x5); add x5, x5, x7; j back to sw
        Machine greedy =
                machine(platform, 0x400002B7, 0x008003B7, 0x0052A023, 0x007282B3, 0xFF9FF06F);
        assertThatThrownBy(() -> greedy.run(10_000))
                .isInstanceOf(BenchException.class)
                .hasMessageContaining("more than the 128 MiB of one memory");

        List<ProgramFile.Segment> spread = new ArrayList<>();
        for (int page = 0; page < 17; page++) {
            long at = 0x4000_0000L + page * (8L << 20);
            spread.add(new ProgramFile.Segment(at, at, new byte[4], 4, true, false));
        }
        ProgramImage image =
                ProgramImage.of(platform, new ProgramFile(0, 0, spread, List.of()), (byte) 0);
        assertThat(image.problems()).isEmpty();
        Machine empty = new Machine(platform);
        assertThatThrownBy(() -> empty.load(image)).isInstanceOf(BenchException.class);
    }
}
