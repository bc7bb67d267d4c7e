package polymetron.bench.hart;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** The translation does what the plain interpreter does, however a run is cut into pieces. */
final class TranslationTest {
    /** Number of minstret. */
    private static final int RETIRED = 0xB02;

    private static final int BASE = 0x8000_0000;
    private static final int SIZE = 0x8000;
    private static final int HANDLER = 0x100;
    private static final int DATA = 0x4000;
    private static final int SAME_CODE = 18;
    private static final int POINTER = 16;
    private static final int COUNTER = 20;

    private final List<Integer> words = new ArrayList<>();

    // Encodings: RISC-V Unprivileged ISA, chapter "RV32I", figure of the base instruction formats.
    private static int r(int funct7, int two, int one, int funct3, int rd) {
        return funct7 << 25 | two << 20 | one << 15 | funct3 << 12 | rd << 7 | 0x33;
    }

    private static int i(int opcode, int immediate, int one, int funct3, int rd) {
        return immediate << 20 | one << 15 | funct3 << 12 | rd << 7 | opcode;
    }

    private static int store(int immediate, int two, int one, int funct3) {
        return immediate >> 5 << 25
                | two << 20
                | one << 15
                | funct3 << 12
                | (immediate & 31) << 7
                | 0x23;
    }

    private static int branch(int offset, int two, int one, int funct3) {
        return (offset >> 12 & 1) << 31
                | (offset >> 5 & 63) << 25
                | two << 20
                | one << 15
                | funct3 << 12
                | (offset >> 1 & 15) << 8
                | (offset >> 11 & 1) << 7
                | 0x63;
    }

    private static int jal(int offset, int rd) {
        return (offset >> 20 & 1) << 31
                | (offset >> 1 & 0x3FF) << 21
                | (offset >> 11 & 1) << 20
                | (offset >> 12 & 0xFF) << 12
                | rd << 7
                | 0x6F;
    }

    private static int upper(int value, int rd) {
        return value & 0xFFFFF000 | rd << 7 | 0x37;
    }

    private int here() {
        return 4 * words.size();
    }

    /** Random work in nested loops, with calls, faults, and stores over instructions. */
    private void program(Random random) {
        words.add(upper(BASE + DATA, POINTER));
        // What is stored over an instruction: addi x5, x5, 1.
        int increment = i(0x13, 1, 5, 0, 5);
        words.add(upper(increment + 0x800, SAME_CODE));
        words.add(i(0x13, increment & 0xFFF, SAME_CODE, 0, SAME_CODE));
        words.add(upper(BASE, 19));
        words.add(jal(HANDLER + 0x40 - here(), 0));
        while (here() < HANDLER) {
            words.add(increment);
        }
        // The handler goes on behind the instruction that trapped: mepc = mepc + 4.
        words.add(i(0x73, 0x341, 0, 2, 31));
        words.add(i(0x13, 4, 31, 0, 31));
        words.add(i(0x73, 0x341, 31, 1, 0));
        words.add(0x30200073);
        while (here() < HANDLER + 0x40) {
            words.add(increment);
        }
        int start = here();
        for (int loop = 0; loop < 6; loop++) {
            words.add(i(0x13, 2 + random.nextInt(60), 0, 0, COUNTER));
            int top = here();
            for (int each = 4 + random.nextInt(40); each > 0; each--) {
                plain(random);
            }
            words.add(i(0x13, -1, COUNTER, 0, COUNTER));
            words.add(branch(top - here(), 0, COUNTER, 1));
            if (random.nextInt(4) == 0) {
                // Over an instruction of the loop before: what was translated is no longer true.
                words.add(store(HANDLER + 0x40 + 8, SAME_CODE, 19, 2));
            }
        }
        words.add(jal(start - here(), 0));
    }

    private void plain(Random random) {
        int rd = 5 + random.nextInt(10);
        int one = 5 + random.nextInt(10);
        int two = random.nextInt(15);
        int offset = random.nextInt(256) * 4 - 512;
        switch (random.nextInt(9)) {
            case 0 -> words.add(r(1, two, one, random.nextInt(8), rd));
            case 1 -> words.add(r(random.nextBoolean() ? 0 : 0x20, two, one, 0, rd));
            case 2 -> words.add(r(0, two, one, random.nextInt(8), rd));
            case 3 -> words.add(i(0x13, random.nextInt(4096) - 2048, one, 0, rd));
            case 4 -> words.add(i(0x13, 0x400 | random.nextInt(32), one, 5, rd));
            case 5 ->
                    words.add(
                            i(
                                    0x03,
                                    offset,
                                    POINTER,
                                    List.of(0, 1, 2, 4, 5).get(random.nextInt(5)),
                                    rd));
            case 6 -> words.add(store(offset, two, POINTER, random.nextInt(3)));
            case 7 -> {
                // Over the next instruction, or not.
                words.add(branch(8, two, one, List.of(0, 1, 4, 5, 6, 7).get(random.nextInt(6))));
                words.add(r(0x20, one, two, 0, rd));
            }
            default -> {
                if (random.nextInt(8) == 0) {
                    words.add(i(0x03, offset | 1, POINTER, 2, rd)); // misaligned: a trap
                } else {
                    words.add(upper(random.nextInt(), rd));
                }
            }
        }
    }

    private record Side(Hart hart, Ram ram) {
        int execute(int most) {
            int done = 0;
            while (done < most) {
                done += hart.execute(most - done);
            }
            return done;
        }
    }

    private HartTiming timing = HartTiming.ONE_EACH;
    private AccessCycles cycles = AccessCycles.NONE;

    private Side side(boolean translated) {
        Ram ram = new Ram(SIZE, true);
        byte[] bytes = new byte[here()];
        for (int at = 0; at < bytes.length; at++) {
            bytes[at] = (byte) (words.get(at / 4) >>> 8 * (at % 4));
        }
        ram.load(0, bytes);
        BusMap map = new BusMap(List.of(new BusMap.Entry(BASE, BASE + SIZE - 1, ram, cycles)));
        Hart hart = new Hart(map, map, true, false, timing, BASE, BASE + HANDLER, 0);
        if (!translated) {
            hart.interpretOnly();
        }
        hart.reset();
        return new Side(hart, ram);
    }

    @RepeatedTest(40)
    void equalsInterpretation(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        if (repetition.getCurrentRepetition() % 2 == 0) {
            timing = new HartTiming(1, random.nextInt(40), random.nextInt(40), 1, 1);
            cycles = new AccessCycles(1 + random.nextInt(9), 1 + random.nextInt(9), 1);
        }
        program(random);
        Side plain = side(false);
        Side translated = side(true);
        for (int slice = 0; slice < 60; slice++) {
            int most = 1 + random.nextInt(slice % 3 == 0 ? 20 : 8_000);
            assertThat(translated.execute(most)).isEqualTo(plain.execute(most));
            assertThat(translated.hart.pc())
                    .as("pc after slice " + slice)
                    .isEqualTo(plain.hart.pc());
            assertThat(translated.hart.csrs().read(RETIRED))
                    .isEqualTo(plain.hart.csrs().read(RETIRED));
            for (int register = 1; register < 32; register++) {
                assertThat(translated.hart.register(register))
                        .as("x%s after slice %s, pc %x", register, slice, plain.hart.pc())
                        .isEqualTo(plain.hart.register(register));
            }
            assertThat(translated.ram.bytes).isEqualTo(plain.ram.bytes);
        }
    }

    /** A loop of nothing but stores has the longest byte code; it still has to be one that is compiled. */
    @Test
    void longLoopsAreTranslatedInPartsThatTheVirtualMachineCompiles() {
        words.add(upper(BASE + DATA, POINTER));
        int top = here();
        for (int each = 0; each < 300; each++) {
            words.add(store(each % 64 * 4, 5, POINTER, 2));
        }
        words.add(i(0x13, 1, 5, 0, 5));
        words.add(jal(top - here(), 0));
        Side plain = side(false);
        Side translated = side(true);
        for (int slice = 0; slice < 20; slice++) {
            plain.execute(10_007);
            translated.execute(10_007);
        }
        assertThat(translated.hart.register(5)).isEqualTo(plain.hart.register(5)).isPositive();
        assertThat(translated.ram.bytes).isEqualTo(plain.ram.bytes);
        RegionWriter writer =
                new RegionWriter(
                        translated.ram, BASE, top, true, 0, new int[48], new java.util.BitSet());
        assertThat(writer.write()).isNotNull();
        assertThat(writer.size()).isBetween(60, RegionWriter.MOST_INSTRUCTIONS - 1);
    }
}
