package polymetron.bench.live;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.concurrent.CountDownLatch;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.mockito.Mockito;
import polymetron.Shipped;
import polymetron.bench.machine.BenchException;
import polymetron.bench.machine.Machine;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;

final class LiveBenchTest {
    private final LiveBench bench = bench();

    private static LiveBench bench() {
        ElaboratedPlatform demo = Shipped.elaborate(Shipped.demo());
        Machine machine = new Machine(demo);
        machine.load(ProgramImage.of(demo, ElfReader.read(Shipped.demoProgram()), (byte) 0));
        return new LiveBench(machine);
    }

    @AfterEach
    void close() {
        bench.close();
    }

    private static void await(BooleanSupplier condition) throws InterruptedException {
        for (int wait = 0; wait < 1_000 && !condition.getAsBoolean(); wait++) {
            Thread.sleep(10);
        }
        assertThat(condition.getAsBoolean()).isTrue();
    }

    private String console() {
        return consoleSince(0);
    }

    private String consoleSince(long position) {
        return new String(bench.consoleSince(position).bytes(), StandardCharsets.US_ASCII);
    }

    @Test
    void talksBothWaysAndFollowsTheSwitches() throws InterruptedException {
        bench.run();
        await(() -> console().contains("say help"));
        bench.setLine("switches", 0, true);
        bench.setLine("switches", 1, true);
        bench.setLine("switches", 2, true);
        bench.setLine("switches", 1, false);
        bench.type("status\r");
        await(() -> console().contains("gain 6") && console().endsWith("> "));
        long before = bench.consoleSince(0).end();
        bench.type("id\r");
        await(() -> consoleSince(before).endsWith("> "));
        bench.pause();
        assertThat(consoleSince(before)).startsWith("id\r\n").contains("Ridge Station");
        long cycles = bench.state().cycles();
        assertThat(bench.state().cycles()).isEqualTo(cycles);
        bench.step();
        assertThat(bench.state().cycles()).isGreaterThan(cycles);
        bench.reset();
        assertThat(bench.state().cycles()).isZero();
        assertThat(bench.state().parts())
                .filteredOn(part -> part.part().equals("switches"))
                .singleElement()
                .satisfies(part -> assertThat(part.levels()).isEqualTo(5));
    }

    /** A pause may come while the next slice is planned already: it is not run. */
    @Test
    void nothingRunsAfterAPause() throws InterruptedException {
        CountDownLatch planned = new CountDownLatch(1);
        CountDownLatch paused = new CountDownLatch(1);
        Machine machine = Mockito.spy(new Machine(Shipped.elaborate(Shipped.demo())));
        Mockito.doAnswer(
                        call -> {
                            if (Thread.currentThread().getName().equals("bench")) {
                                planned.countDown();
                                paused.await();
                            }
                            return call.callRealMethod();
                        })
                .when(machine)
                .clockHz();
        try (LiveBench live = new LiveBench(machine)) {
            live.run();
            planned.await();
            live.pause();
            paused.countDown();
            Thread.sleep(50);
            Mockito.verify(machine, Mockito.never()).run(Mockito.anyLong());
        }
    }

    @Test
    void registersAreReadAndWrittenByName() {
        assertThat(value("console", "LSR")).isEqualTo(0x60L);
        assertThat(value("console", "DLL")).as("not there without DLAB").isNull();
        assertThatThrownBy(() -> bench.write("console", "DLL", 0, 1))
                .isInstanceOf(BenchException.class)
                .hasMessageContaining("only there when LCR.DLAB == 1");
        bench.write("console", "LCR", 0, 0x83);
        assertThat(value("console", "DLL")).isEqualTo(27L);
        bench.write("lamps", "OUTPUT", 0, 0xA5);
        assertThat(bench.state().parts())
                .filteredOn(part -> part.part().equals("lamps"))
                .singleElement()
                .satisfies(part -> assertThat(part.levels()).isEqualTo(0xA5));
        assertThat(
                        bench.registers("interrupts").stream()
                                .filter(each -> each.register().equals("PRIORITY"))
                                .findFirst()
                                .orElseThrow()
                                .address())
                .isEqualTo(0x1400_0004L);
    }

    private Long value(String block, String register) {
        return bench.registers(block).stream()
                .filter(each -> each.register().equals(register))
                .findFirst()
                .orElseThrow()
                .value();
    }

    @Test
    void refusalsSayWhatWouldBeRight() {
        assertThatThrownBy(() -> bench.write("console", "NONE", 0, 1))
                .hasMessageContaining("no register NONE");
        assertThatThrownBy(() -> bench.write("console", "LSR", 0, 1))
                .hasMessageContaining("read-only");
        assertThatThrownBy(() -> bench.write("console", "SCR", 0, 256))
                .hasMessageContaining("8 bits");
        assertThatThrownBy(() -> bench.write("interrupts", "PRIORITY", 15, 1))
                .hasMessageContaining("no number 16");
        assertThatThrownBy(() -> bench.registers("cpu")).hasMessageContaining("cpu");
        assertThatThrownBy(() -> bench.setLine("lamps", 0, true))
                .hasMessageContaining("driven by the platform");
        assertThatThrownBy(() -> bench.setLine("flash", 0, true)).hasMessageContaining("no block");
        assertThatThrownBy(() -> bench.setLine("switches", 8, true)).hasMessageContaining("0 to 7");
    }
}
