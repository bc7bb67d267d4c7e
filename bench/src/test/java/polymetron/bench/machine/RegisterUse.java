package polymetron.bench.machine;

import java.util.Map;
import java.util.Random;
import java.util.Set;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;

/** Programs that read and write the registers of a block at random, and say a sum of all that they have read. */
final class RegisterUse {
    private static final int LONG_PAUSE = 300;
    private static final int SHORT_PAUSE = 24;

    /**
     * What a block's description asks of software: some registers are written only while the block has nothing on its way.
     *
     * @param settings names of these registers
     * @param busy bits of {@code status} that say that something is on its way, all of them 0 or, where {@code idle}, all 1
     * @param bits bits of registers that are written; others stay 0
     * @param ones bits of registers that are always 1
     */
    private record Rules(
            Set<String> settings,
            long status,
            long busy,
            boolean idle,
            Map<String, Long> bits,
            Map<String, Long> ones) {
        private static final Rules NONE = new Rules(Set.of(), 0, 0, false, Map.of(), Map.of());
    }

    private static final Map<String, Rules> RULES =
            Map.of(
                    "spi-controller",
                    new Rules(
                            Set.of("CONTROL", "DIVIDER", "SELECT"),
                            4,
                            1,
                            false,
                            Map.of("DIVIDER", 0x1FL),
                            Map.of()),
                    "i2c-controller",
                    new Rules(
                            Set.of("LOW", "HIGH"),
                            4,
                            1,
                            false,
                            // A device that is read holds the lines, and the bench knows no lines:
                            // nothing is read, and the bus not left in the middle.
                            Map.of("COMMAND", 0x1BL, "DATA", 0xFEL, "LOW", 0x1FL, "HIGH", 0x1FL),
                            // A transfer begins with a start. Lines are seen late, so their halves
                            // are
                            // longer than that.
                            Map.of("CONTROL", 1L, "COMMAND", 1L, "LOW", 0x20L, "HIGH", 0x10L)),
                    "uart",
                    // TEMT; the divisor stays as it is.
                    new Rules(
                            Set.of("LCR", "MCR"), 20, 0x40, true, Map.of("LCR", 0x7FL), Map.of()));

    private RegisterUse() {}

    /**
     * What stands behind the common part of exercises.
     *
     * @param base macro of the address that the registers begin at
     * @param accesses how many there are
     */
    static String program(ElaboratedBlock block, String base, long seed, int accesses) {
        Random random = new Random(seed);
        Rules rules = RULES.getOrDefault(block.type().identity().name(), Rules.NONE);
        StringBuilder rows = new StringBuilder();
        for (int at = 0; at < accesses; at++) {
            Register register = any(random, block);
            int index = random.nextInt(register.count());
            int words = Math.max(1, register.width() / 32);
            int word = random.nextInt(words);
            long offset = (register.offset(index) & ~3L) + 4L * word;
            boolean writes = random.nextInt(5) < 2;
            int pause =
                    switch (random.nextInt(12)) {
                        case 0 -> random.nextInt(LONG_PAUSE);
                        case 1, 2, 3 -> random.nextInt(SHORT_PAUSE);
                        default -> 0;
                    };
            rows.append(
                    "    { 0x%xu, 0x%xu, %du, %du }, /* %s %s */%n"
                            .formatted(
                                    offset,
                                    (int) (value(random, register, rules) >>> 32 * word),
                                    writes
                                            ? (rules.settings().contains(register.name()) ? 2 : 1)
                                            : 0,
                                    pause,
                                    at,
                                    register.name(index)));
        }
        return """
        static const struct { uint16_t at; uint32_t value; uint8_t writes; uint16_t pause; } uses[] = {
        %s};

        static void exercise(void)
        {
            uint32_t sum = 0;
            for (unsigned at = 0; at < sizeof uses / sizeof uses[0]; at++) {
                volatile uint32_t *word = (volatile uint32_t *)(%s + uses[at].at);
                while (uses[at].writes == 2u && (%s)) {
                }
                if (uses[at].writes) {
                    *word = uses[at].value;
                } else {
                    sum = (sum << 5 | sum >> 27) ^ *word;
                }
                for (volatile unsigned left = uses[at].pause; left > 0; left--) {
                }
                if (at %% 64 == 63) {
                    exercise_hex(sum);
                }
            }
        }
        """
                .formatted(rows, base, busy(base, rules));
    }

    private static String busy(String base, Rules rules) {
        return "((*(volatile uint32_t *)(%s + %du) & 0x%xu) %s 0u)"
                .formatted(base, rules.status(), rules.busy(), rules.idle() ? "==" : "!=");
    }

    private static Register any(Random random, ElaboratedBlock block) {
        var registers = block.shape().registers();
        return registers.get(random.nextInt(registers.size()));
    }

    /** Each field is nothing, everything, a little, or anything. */
    private static long value(Random random, Register register, Rules rules) {
        long value = 0;
        for (Field field : register.fields()) {
            long all = field.ones();
            long some =
                    switch (random.nextInt(6)) {
                        case 0 -> 0;
                        case 1 -> all;
                        case 2 -> random.nextLong() & all;
                        case 3 -> field.reset(1, 0) & all;
                        default -> random.nextInt(20) & all;
                    };
            value |= some << field.lowBit();
        }
        return value & rules.bits().getOrDefault(register.name(), -1L)
                | rules.ones().getOrDefault(register.name(), 0L);
    }
}
