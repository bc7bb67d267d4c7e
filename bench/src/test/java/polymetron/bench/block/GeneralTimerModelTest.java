package polymetron.bench.block;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.elaborate.BlockShape;
import polymetron.library.Vlnv;

final class GeneralTimerModelTest {
    private static final int CONTROL = 0x00;
    private static final int LOAD = 0x04;
    private static final int COUNT = 0x08;
    private static final int PRESCALE = 0x0C;
    private static final int PENDING = 0x10;

    private static GeneralTimerModel timer(int width) {
        Vlnv identity = Vlnv.parse("polymetron:timer:general-timer:1.0");
        BlockShape shape =
                new BlockShape(
                        Shipped.LIBRARY.type(identity).orElseThrow(),
                        Map.of("WIDTH", Integer.toString(width)));
        return new GeneralTimerModel(new RegisterBank(shape.registers(), 100_000_000));
    }

    @Test
    void endsOnceOrAgainAndAgain() {
        GeneralTimerModel timer = timer(32);
        timer.write(LOAD, 9, -1);
        timer.write(CONTROL, 5, -1);
        assertThat(timer.nextEvent()).isEqualTo(10);
        timer.advance(9);
        assertThat(timer.read(COUNT)).isZero();
        assertThat(timer.interrupt("irq")).isFalse();
        timer.advance(10);
        assertThat(timer.interrupt("irq")).isTrue();
        assertThat(timer.read(CONTROL)).as("a single run is over").isEqualTo(4);
        timer.write(PENDING, 1, -1);
        assertThat(timer.interrupt("irq")).isFalse();
        assertThat(timer.nextEvent()).isEqualTo(BlockModel.NEVER);
    }

    /** The worked-out counter against one that goes down cycle by cycle. */
    @RepeatedTest(20)
    void countsAsIfCycleByCycle(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        GeneralTimerModel timer = timer(16);
        int load = random.nextInt(40);
        int prescale = random.nextInt(5);
        timer.write(PRESCALE, prescale, -1);
        timer.write(LOAD, load, -1);
        timer.write(CONTROL, 3, -1);
        int count = load;
        int wait = prescale;
        int ends = 0;
        int told = 0;
        for (int cycle = 1; cycle < 2_000; cycle++) {
            if (wait-- == 0) {
                wait = prescale;
                if (count-- == 0) {
                    count = load;
                    ends++;
                }
            }
            if (random.nextInt(7) == 0 || cycle == timer.nextEvent()) {
                timer.advance(cycle);
                assertThat(timer.read(COUNT)).as("cycle " + cycle).isEqualTo(count);
                if (timer.read(PENDING) == 1) {
                    told++;
                    timer.write(PENDING, 1, -1);
                }
            }
        }
        assertThat(told).isEqualTo(ends).isPositive();
    }

    /** Software that clears the end of one run in the cycle before the next one ends loses none. */
    @Test
    void anEndInTheCycleOfAClearStays() {
        GeneralTimerModel timer = timer(8);
        timer.write(LOAD, 4, -1);
        timer.write(CONTROL, 7, -1);
        timer.advance(9);
        timer.write(PENDING, 1, -1);
        assertThat(timer.interrupt("irq")).isFalse();
        timer.advance(10);
        assertThat(timer.interrupt("irq")).isTrue();
    }
}
