package polymetron.bench.hart;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;

/**
 * Functions of random instructions in loops, in assembly, and a program in C that runs them and prints a checksum of
 * registers and memory for each. What they compute does not depend on where they lie.
 */
final class RandomAssembly {
    private static final List<String> POOL = pool();
    private static final List<String> REGISTERS =
            List.of(
                    "add", "sub", "sll", "slt", "sltu", "xor", "srl", "sra", "or", "and", "mul",
                    "mulh", "mulhsu", "mulhu", "div", "divu", "rem", "remu");
    private static final List<String> IMMEDIATES =
            List.of("addi", "slti", "sltiu", "xori", "ori", "andi");
    private static final List<String> SHIFTS = List.of("slli", "srli", "srai");
    private static final List<String> BRANCHES =
            List.of("beq", "bne", "blt", "bge", "bltu", "bgeu");
    private static final List<String> ACCESSES =
            List.of("lb", "lbu", "lh", "lhu", "lw", "sb", "sh", "sw");

    private final Random random;
    private final StringBuilder out = new StringBuilder();
    private int labels;

    private RandomAssembly(long seed) {
        random = new Random(seed);
    }

    /** All registers but those that hold the stack, the tables and the loop count. */
    private static List<String> pool() {
        List<String> pool = new ArrayList<>();
        IntStream.rangeClosed(0, 6).forEach(n -> pool.add("t" + n));
        IntStream.rangeClosed(0, 11).forEach(n -> pool.add("s" + n));
        IntStream.rangeClosed(2, 7).forEach(n -> pool.add("a" + n));
        return pool;
    }

    /** Assembly of {@code void chance0(uint32_t *registers, uint8_t *memory)} and so on. */
    static String functions(long seed, int count) {
        RandomAssembly assembly = new RandomAssembly(seed);
        for (int number = 0; number < count; number++) {
            assembly.function(number);
        }
        return assembly.out.toString();
    }

    /** C that calls them; {@code show} prints a name and a word. */
    static String calls(int count) {
        StringBuilder text = new StringBuilder("static uint32_t registers[25];\n");
        text.append("static uint8_t memory[2048] __attribute__((aligned(4)));\n");
        for (int number = 0; number < count; number++) {
            text.append("void chance%d(uint32_t *, uint8_t *);\n".formatted(number));
        }
        text.append("static void chances(void)\n{\n    uint32_t sum = 1u;\n");
        text.append(
                "    for (int at = 0; at < 25; at++) registers[at] = 0x9E3779B9u *"
                        + " (unsigned)at;\n");
        for (int number = 0; number < count; number++) {
            text.append("    chance%d(registers, memory);\n".formatted(number));
            text.append("    for (int at = 0; at < 25; at++) sum = sum * 31u + registers[at];\n");
            text.append("    for (int at = 0; at < 2048; at++) sum = sum * 31u + memory[at];\n");
            text.append("    show(\"chance %d\", sum);\n".formatted(number));
        }
        return text.append("}\n").toString();
    }

    private void function(int number) {
        line(".globl chance%d\nchance%d:\n    addi sp, sp, -64\n    sw ra, 0(sp)", number, number);
        for (int saved = 0; saved < 12; saved++) {
            line("    sw s%d, %d(sp)", saved, 4 + 4 * saved);
        }
        for (int at = 0; at < POOL.size(); at++) {
            line("    lw %s, %d(a0)", POOL.get(at), 4 * at);
        }
        line("    li ra, %d\n1:", 150 + random.nextInt(100));
        for (int each = 30 + random.nextInt(60); each > 0; each--) {
            instruction();
        }
        line("    addi ra, ra, -1\n    bnez ra, 1b");
        for (int at = 0; at < POOL.size(); at++) {
            line("    sw %s, %d(a0)", POOL.get(at), 4 * at);
        }
        for (int saved = 0; saved < 12; saved++) {
            line("    lw s%d, %d(sp)", saved, 4 + 4 * saved);
        }
        line("    lw ra, 0(sp)\n    addi sp, sp, 64\n    ret\n");
    }

    private void instruction() {
        String to = one(POOL);
        switch (random.nextInt(8)) {
            case 0, 1, 2 -> line("    %s %s, %s, %s", one(REGISTERS), to, any(), any());
            case 3 ->
                    line(
                            "    %s %s, %s, %d",
                            one(IMMEDIATES), to, any(), random.nextInt(4096) - 2048);
            case 4 -> line("    %s %s, %s, %d", one(SHIFTS), to, any(), random.nextInt(32));
            case 5 -> line("    lui %s, 0x%x", to, random.nextInt(1 << 20));
            case 6 -> {
                String access = one(ACCESSES);
                int size = access.contains("w") ? 4 : access.contains("h") ? 2 : 1;
                int offset = random.nextInt(2048 / size) * size;
                line("    %s %s, %d(a1)", access, access.startsWith("s") ? any() : to, offset);
            }
            default -> {
                int label = 10 + labels++;
                line("    %s %s, %s, %df", one(BRANCHES), any(), any(), label);
                line("    %s %s, %s, %s", one(REGISTERS), to, any(), any());
                line("%d:", label);
            }
        }
    }

    private String any() {
        return random.nextInt(12) == 0 ? "zero" : one(POOL);
    }

    private String one(List<String> of) {
        return of.get(random.nextInt(of.size()));
    }

    private void line(String format, Object... values) {
        out.append(values.length == 0 ? format : format.formatted(values)).append('\n');
    }
}
