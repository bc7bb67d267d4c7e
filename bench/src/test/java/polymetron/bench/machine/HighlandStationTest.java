package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.bench.part.ConverterSignal;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.platform.PlatformDocument;
import polymetron.software.SoftwareView;

/**
 * The large demo station as a whole, with its shipped program: ground motion in, its rate lowered, split, recorded by the mover,
 * time-stamped, stored in the flash and read back over the console; battery and temperature besides.
 */
final class HighlandStationTest {
    private final Machine machine = station();

    private static Machine station() {
        ElaboratedPlatform platform =
                Shipped.elaborate(
                        PlatformDocument.read(
                                "highland-station.json",
                                new String(
                                        Shipped.file("demo/highland-station.json"),
                                        StandardCharsets.UTF_8)));
        Machine machine = new Machine(platform);
        machine.load(
                ProgramImage.of(
                        SoftwareView.of(platform),
                        ElfReader.read(Shipped.file("demo/highland-station.elf")),
                        (byte) 0));
        return machine;
    }

    private String says(double seconds) {
        return BuiltProgram.says(machine, seconds);
    }

    private String answer(String command) {
        machine.console().orElseThrow().arrive((command + "\r").getBytes(StandardCharsets.UTF_8));
        machine.settle();
        return says(0.5);
    }

    @Test
    void recordsAnEventAndReadsItBack() {
        String said = story();
        assertThat(said).contains("flash 0x000F4019, records 0");
        // The oscillator is 3.2 parts in a million faster than the seconds of the receiver say.
        assertThat(said).contains("time 17957808").contains("a second is 100000320 cycles");
        assertThat(said.indexOf("event on channel 0 at 1795780810."))
                .isGreaterThan(said.indexOf("a second is"));
        assertThat(said).contains("record 0: at 1795780810.").contains("records 1");
        assertThat(said).contains("21.5 C").contains("battery 14.09 V");
        // A quiet second before it, a large motion behind.
        String[] rows = said.substring(said.lastIndexOf("record 0: at")).split("\\R");
        assertThat(largest(rows[1])).isLessThan(5_000);
        assertThat(largest(rows[6])).isGreaterThan(1_000_000);
        // The same program, board and events: the same words, and what is in the flash is there
        // after a reset.
        String again = story();
        assertThat(again).contains("flash 0x000F4019, records 1");
        assertThat(unnumbered(again)).isEqualTo(unnumbered(said));
    }

    private static String unnumbered(String said) {
        return said.replaceAll("records? [0-9]", "record N");
    }

    private static long largest(String row) {
        return Stream.of(row.split(" "))
                .mapToLong(Long::parseLong)
                .map(Math::abs)
                .max()
                .orElseThrow();
    }

    /** Ten quiet seconds, an event, and what the station says of it. */
    private String story() {
        machine.reset();
        machine.signal("converter").orElseThrow().set(ConverterSignal.Shape.QUIET);
        machine.receiver("receiver").orElseThrow().set(true, 0);
        machine.move("battery", 3500);
        StringBuilder said = new StringBuilder(says(10));
        said.append(answer("time"));
        machine.signal("converter").orElseThrow().set(ConverterSignal.Shape.GROUND);
        said.append(says(6)).append(answer("status")).append(answer("temp"));
        return said.append(answer("battery")).append(answer("show 0")).toString();
    }

    @Test
    void batteryWarnsInTheOrderOfItsThresholds() {
        machine.move("battery", 3500);
        says(0.5);
        StringBuilder said = new StringBuilder();
        for (int steps = 3500; steps > 2000; steps -= 50) {
            machine.move("battery", steps);
            said.append(says(0.05));
        }
        assertThat(said.toString().lines().filter(line -> line.startsWith("battery")).toList())
                .containsExactly(
                        "battery below 12.80 V",
                        "battery below 12.00 V",
                        "battery below 11.20 V",
                        "battery below 10.50 V");
    }
}
