package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.GuideExamples;

/** A processor and a machine timer from outside the library are what the shipped ones are: a program runs on them. */
final class GuideRunsTest {
    @Test
    void aProgramRunsOnTheProcessorAndTheTimerOfTheGuide(@TempDir Path folder) throws IOException {
        GuideExamples guide = new GuideExamples();
        ElaboratedPlatform platform = new Elaborator(guide.library()).elaborate(guide.platform());
        Machine machine = new Machine(platform);
        machine.load(
                BuiltProgram.of(
                        platform,
                        folder,
                        """
                        static volatile unsigned alarms, calls, others;
                        static void store(uintptr_t address, uint32_t value)
                        {
                            *(volatile uint32_t *)address = value;
                        }
                        void trap_handler(uint32_t cause, uint32_t pc, uint32_t value);
                        void trap_handler(uint32_t cause, uint32_t pc, uint32_t value)
                        {
                            (void)pc, (void)value;
                            if (cause == (0x80000000u | WAKE_ALARM_CAUSE)) {
                                alarms++;
                                store(WAKE_BASE + WAKE_ALARM_OFFSET + 4u, 0xFFFFFFFFu);
                            } else if (cause == (0x80000000u | WAKE_CALL_CAUSE)) {
                                calls++;
                                store(WAKE_BASE + WAKE_CALL_OFFSET, 0u);
                            } else {
                                others++;
                            }
                        }
                        int main(void)
                        {
                            uint32_t number;
                            __asm__ volatile("csrr %0, mhartid" : "=r"(number));
                            print_hex(number);
                            __asm__ volatile("csrs mie, %0" : : "r"(0x88u));
                            __asm__ volatile("csrsi mstatus, 8");
                            store(WAKE_BASE + WAKE_ALARM_OFFSET, WAKE_TICK_HZ / 1000u);
                            store(WAKE_BASE + WAKE_ALARM_OFFSET + 4u, 0u);
                            store(WAKE_BASE + WAKE_CALL_OFFSET, WAKE_CALL_ON_MASK);
                            while (alarms == 0u) {
                            }
                            uint32_t now = *(volatile uint32_t *)(WAKE_BASE + WAKE_NOW_OFFSET);
                            print(now >= WAKE_TICK_HZ / 1000u && calls == 1u && others == 0u ? " good" : " bad");
                            store(BELL_BASE + BELL_CONTROL_OFFSET, 0xFFFFFFFFu);
                            print_hex(*(volatile uint32_t *)(BELL_BASE + BELL_CONTROL_OFFSET));
                            print_hex(*(volatile uint32_t *)(BELL_BASE + BELL_HALF_OFFSET));
                            for (;;) {
                            }
                        }
                        """));
        assertThat(BuiltProgram.says(machine, 0.02)).isEqualTo("00000000 good00000001000061a8");
    }
}
