package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.bench.block.PwmModel;
import polymetron.bench.part.ConverterSignal;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.outside.Tool;
import polymetron.platform.PlatformDocument;
import polymetron.software.SoftwareView;

/**
 * The demo lock with its shipped program on both harts: one moves the gates by its own timer, the other has the console. What the
 * gates and the water would do is done here.
 */
final class CanalLockTest {
    /** Both pairs shut: bit 2g + 1 for gate g. */
    private static final long ALL_SHUT = 0b1010_1010;

    private final Machine machine = lock();

    private static Machine lock() {
        ElaboratedPlatform platform =
                Shipped.elaborate(
                        PlatformDocument.read(
                                "canal-lock.json",
                                new String(
                                        Shipped.file("demo/canal-lock.json"),
                                        StandardCharsets.UTF_8)));
        Machine machine = new Machine(platform);
        machine.load(
                ProgramImage.of(
                        SoftwareView.of(platform),
                        ElfReader.read(Shipped.file("demo/canal-lock.elf")),
                        (byte) 0));
        return machine;
    }

    private String answer(String command) {
        machine.console().orElseThrow().arrive((command + "\r").getBytes(StandardCharsets.UTF_8));
        machine.settle();
        return BuiltProgram.says(machine, 0.05);
    }

    private double drive(int gate) {
        return ((PwmModel) machine.model("gate_drives").orElseThrow()).part(gate);
    }

    /** Two gauges of 12 bits each: upper water and chamber. */
    private void water(double upperMetres, double chamberMetres) {
        machine.move(
                "gauges",
                Math.round(upperMetres / 5 * 4095) | Math.round(chamberMetres / 5 * 4095) << 12);
    }

    @Test
    void gatesMoveWhenTheyMay() {
        machine.move("end_switches", ALL_SHUT);
        water(4, 1);
        assertThat(BuiltProgram.says(machine, 0.05)).contains("Canal Lock").contains("say help");
        assertThat(answer("open 0")).contains("gate 0 is shut, the water is not level");
        water(4, 4.05);
        assertThat(drive(0)).as("stands").isEqualTo(0.5);
        assertThat(answer("open 0")).contains("gate 0 opens");
        machine.move("end_switches", ALL_SHUT & ~0b10);
        BuiltProgram.says(machine, 0.3);
        assertThat(drive(0)).as("at full speed").isEqualTo(0.9);
        assertThat(answer("open 2")).contains("gate 2 is shut, the other pair is not shut");
        machine.move("end_switches", ALL_SHUT & ~0b10 | 0b01);
        assertThat(BuiltProgram.says(machine, 0.05)).contains("gate 0 is open");
        assertThat(drive(0)).isEqualTo(0.5);
        assertThat(answer("status"))
                .contains("gate 0 is open")
                .contains("gate 3 is shut")
                .contains("upper water 4.000 m, chamber 4.050 m")
                .doesNotContain(" 0 bytes recorded");
        assertThat(answer("temp")).contains("21.5 C");
        // Two words of 16 bits each, as the board says: the second gate is where the first was
        // before.
        machine.signal("gate_encoder").orElseThrow().set(ConverterSignal.Shape.CONSTANT);
        BuiltProgram.says(machine, 0.05);
        assertThat(answer("status")).containsPattern("positions 8[12]\\d\\d 8[12]\\d\\d, ");
        // A switch of the panel does the same as a command.
        machine.move("switches", 1);
        BuiltProgram.says(machine, 0.01);
        machine.move("switches", 0);
        BuiltProgram.says(machine, 0.02);
        assertThat(drive(0)).isLessThan(0.5);
        assertThat(answer("stop")).contains("all stand");
        assertThat(drive(0)).isEqualTo(0.5);
        assertThat(answer("status")).contains("gate 0 is open");
    }

    /** With the chamber around the board no switch is moved by hand: the gates go by themselves, and water comes to them. */
    @Test
    void aBoatGoesThroughByCommandsAlone() {
        SurroundingOfBoard chamber = machine.surroundings().getFirst();
        machine.setActing(chamber, true);
        assertThat(BuiltProgram.says(machine, 0.05)).contains("say help");
        assertThat(answer("open 0")).contains("gate 0 is shut, the water is not level");
        assertThat(answer("open 2")).contains("gate 2 opens");
        assertThat(BuiltProgram.says(machine, 9)).contains("gate 2 is open");
        assertThat(machine.holder("end_switches")).contains(chamber);
        assertThat(answer("shut 2")).contains("gate 2 shuts");
        assertThat(BuiltProgram.says(machine, 9)).contains("gate 2 is shut");
        assertThat(BuiltProgram.says(machine, 15)).doesNotContain("gate");
        assertThat(answer("status")).contains("upper water 4.000 m, chamber 4.000 m");
        assertThat(answer("open 0")).contains("gate 0 opens");
        assertThat(BuiltProgram.says(machine, 9)).contains("gate 0 is open");
        // Of 16 bits with a sign: open is the largest number.
        assertThat(answer("status")).contains("positions 32767 0, ");
        machine.setActing(chamber, false);
        assertThat(machine.holder("end_switches")).isEmpty();
    }

    /** A gate that meets no end switch within twenty seconds stops. */
    @Test
    void aGateThatDoesNotArriveStops() {
        machine.move("end_switches", ALL_SHUT);
        water(2, 2);
        BuiltProgram.says(machine, 0.05);
        assertThat(answer("open 3")).contains("gate 3 opens");
        machine.move("end_switches", 0b0010_1010);
        assertThat(BuiltProgram.says(machine, 19)).doesNotContain("did not arrive");
        assertThat(BuiltProgram.says(machine, 2)).contains("gate 3 stands, did not arrive");
        assertThat(drive(3)).isEqualTo(0.5);
    }

    /** The same board and the same events: the same words, however the time is cut into runs. */
    @Test
    void theSameHappensAgain() {
        String first = story(0.05);
        machine.reset();
        assertThat(story(0.01)).isEqualTo(first);
        assertThat(machine.hart().csrs().read(0xB02)).isPositive();
    }

    private String story(double slice) {
        machine.move("end_switches", ALL_SHUT);
        water(3, 3);
        StringBuilder said = new StringBuilder();
        for (double time = 0; time < 0.199; time += slice) {
            said.append(BuiltProgram.says(machine, slice));
        }
        machine.console().orElseThrow().arrive("status\r".getBytes(StandardCharsets.UTF_8));
        machine.settle();
        for (double time = 0; time < 0.199; time += slice) {
            said.append(BuiltProgram.says(machine, slice));
        }
        return said.toString();
    }

    /**
     * In simulation both harts of the complex come so far as well: the first speaks, the other has put the gate drives to a stand. A gate
     * that takes eight seconds, there two thousand times as fast, goes until it meets its end switch.
     */
    @Test
    void bothHartsRunInSimulation(@TempDir Path folder) {
        Hardware hardware = Hardware.of(machine.platform());
        assertThat(hardware.notBuilt()).isEmpty();
        hardware.files().forEach(file -> Tool.write(folder, file.path(), file.bytes()));
        Tool.write(folder, "lock.hex", ImageFiles.of(machine.image(), "lock").getFirst().bytes());
        Tool.write(folder, "sim/world.txt", "4000 open 2\n");
        String said =
                Tool.run(
                        folder,
                        "make",
                        "-s",
                        "-C",
                        "sim",
                        "run",
                        "SIM=verilator",
                        "IMAGE=lock.hex",
                        "INPUT=world.txt",
                        "AROUND=2000",
                        "UNTIL=gate 2 is open",
                        "PARTS=1",
                        "CYCLES=6000000");
        assertThat(said).contains("gate_drives f", "gate_drives 0");
        // Letters and changes of lines mix as they happen.
        assertThat(said.replaceAll("[0-9]+ us: \\w+ [0-9a-f]+\\R", "").replaceAll("\\s", ""))
                .contains("CanalLock", "sayhelp", "gateopens", "gateisopen");
    }
}
