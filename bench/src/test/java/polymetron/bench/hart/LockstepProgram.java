package polymetron.bench.hart;

import java.util.List;
import java.util.Random;

/**
 * A program of random instructions that goes on after every trap: arithmetic in both lengths, loads and stores of all kinds,
 * devices, bus errors, misaligned accesses, illegal words, calls, CSRs, WFI, code that changes itself, jumps. In assembly, for
 * memory of 64 KiB at 0 with data in its second half.
 */
final class LockstepProgram {
    private static final List<String> POOL =
            List.of(
                    "a0", "a1", "a2", "a3", "a4", "a5", "s0", "s1", "s4", "s5", "t0", "t1", "t2",
                    "ra");
    private static final List<String> OPERATIONS =
            List.of(
                    "add", "sub", "sll", "slt", "sltu", "xor", "srl", "sra", "or", "and", "mul",
                    "mulh", "mulhsu", "mulhu", "div", "divu", "rem", "remu");
    private static final List<String> IMMEDIATES =
            List.of("addi", "slti", "sltiu", "xori", "ori", "andi");
    private static final List<String> ACCESSES =
            List.of("lb", "lbu", "lh", "lhu", "lw", "sb", "sh", "sw");
    private static final List<String> BRANCHES =
            List.of("beq", "bne", "blt", "bge", "bltu", "bgeu");

    private final Random random;
    private final boolean compressed;
    private final StringBuilder out = new StringBuilder();
    private int labels = 10;

    private LockstepProgram(long seed, boolean compressed) {
        this.compressed = compressed;
        this.random = new Random(seed);
    }

    /**
     * @param items random items in the loop that the program runs through again and again
     * @param rounds how often it does
     * @param compressed whether instructions of 16 bits are among them
     */
    static String of(long seed, int items, int rounds, boolean compressed) {
        LockstepProgram program = new LockstepProgram(seed, compressed);
        program.out.append(
                START.replace("REGISTERS", registers())
                        .replace("VECTORED", "" + (seed & 1))
                        .replace("ROUNDS", "" + rounds));
        for (int each = 0; each < items; each++) {
            program.item();
        }
        return program.out.append(END).toString();
    }

    /** Nothing is known of a register before it is written. */
    private static String registers() {
        StringBuilder all = new StringBuilder();
        for (int at = 1; at < 32; at++) {
            all.append("li x%s, %s\n".formatted(at, 0x1234567 * at));
        }
        return all.toString();
    }

    private void line(String text, Object... values) {
        out.append("    ").append(text.formatted(values)).append('\n');
    }

    private String one(List<String> of) {
        return of.get(random.nextInt(of.size()));
    }

    private String any() {
        return random.nextInt(12) == 0 ? "zero" : one(POOL);
    }

    private void item() {
        String to = one(POOL);
        switch (random.nextInt(24)) {
            case 0, 1, 2, 3 -> line("%s %s, %s, %s", one(OPERATIONS), to, any(), any());
            case 4, 5 ->
                    line("%s %s, %s, %s", one(IMMEDIATES), to, any(), random.nextInt(4096) - 2048);
            case 6 ->
                    line(
                            "%s %s, %s, %s",
                            one(List.of("slli", "srli", "srai")), to, to, random.nextInt(32));
            // What has a short form: one register, small numbers.
            case 7, 8 ->
                    line(
                            "%s %s, %s, %s",
                            one(List.of("addi", "andi")), to, to, random.nextInt(64) - 32);
            case 9 ->
                    line(
                            "%s %s, %s, %s",
                            one(List.of("add", "sub", "xor", "or", "and")), to, to, any());
            case 10 -> line("li %s, %s", to, random.nextInt(64) - 32);
            case 11 -> line("lui %s, 0x%x", to, random.nextInt(1 << 20));
            case 12, 13 -> access("tp", 2040);
            case 14 -> access("sp", 120);
            case 15 -> access(random.nextInt(3) == 0 ? "s3" : "s2", 60);
            case 16 -> branch();
            case 17 -> {
                int label = labels++;
                line("%s %df", one(List.of("j", "jal", "jal t0,")), label);
                line("addi %s, %s, 1", to, to);
                out.append(label).append(":\n");
            }
            case 18 -> {
                int label = labels++;
                line("la t0, %df", label);
                line(one(List.of("jr t0", "jalr t0", "jalr t1, 0(t0)")));
                line("addi %s, %s, 3", to, to);
                out.append(label).append(":\n");
            }
            case 19 ->
                    line(
                            one(
                                    List.of(
                                            "ecall",
                                            "ebreak",
                                            ".word 0xFFFFFFFF",
                                            compressed ? ".half 0" : ".word 3",
                                            ".word 0x30200077",
                                            "csrw mhartid, zero",
                                            "csrr a0, 0x7C0",
                                            "jalr t2, 0(s3)")));
            case 20 -> csr(to);
            case 21 ->
                    line(
                            one(
                                    List.of(
                                            "li t0, 0xF0888\n    csrw mie, t0\n    wfi",
                                            "fence",
                                            "nop",
                                            "auipc %s, 0x%x"
                                                    .formatted(to, random.nextInt(1 << 20)))));
            case 22 -> changesItself(to);
            default -> {
                int label = labels++;
                line("li t2, %s", 1 + random.nextInt(4));
                out.append(label).append(":\n");
                line("%s a0, a1, %s", one(OPERATIONS), any());
                line("addi t2, t2, -1");
                line("bnez t2, %db", label);
            }
        }
    }

    private void access(String base, int range) {
        String access = one(ACCESSES);
        int size = access.contains("w") ? 4 : access.contains("h") ? 2 : 1;
        int offset = random.nextInt(range / size) * size + (random.nextInt(6) == 0 ? 1 : 0);
        String value = access.startsWith("s") ? any() : one(POOL);
        line("%s %s, %s(%s)", access, value, offset, base);
    }

    private void branch() {
        int label = labels++;
        line("%s %s, %s, %df", one(BRANCHES), any(), any(), label);
        line("%s %s, %s, %s", one(OPERATIONS), one(POOL), any(), any());
        out.append(label).append(":\n");
    }

    private void csr(String to) {
        switch (random.nextInt(8)) {
            case 0 -> line("csrrw %s, mscratch, %s", to, any());
            case 1 -> line("csrrs %s, mscratch, %s", to, any());
            case 2 -> line("csrrci %s, mscratch, %s", to, random.nextInt(32));
            case 3 ->
                    line(
                            "csrr %s, %s",
                            to,
                            one(
                                    List.of(
                                            "mcycle",
                                            "minstret",
                                            "cycle",
                                            "instret",
                                            "time",
                                            "timeh",
                                            "mcycleh")));
            case 4 ->
                    line(
                            "csrr %s, %s",
                            to,
                            one(
                                    List.of(
                                            "misa",
                                            "mstatus",
                                            "mtvec",
                                            "mepc",
                                            "mcause",
                                            "mtval",
                                            "mhartid",
                                            "mie",
                                            "mvendorid",
                                            "mhpmcounter3")));
            case 5 ->
                    line(
                            "csrw %s, %s",
                            one(List.of("mtval", "minstret", "mcycle", "mcause")), any());
            case 6 ->
                    line(one(List.of("csrsi mstatus, 8", "csrsi mstatus, 8", "csrci mstatus, 8")));
            default -> {
                line("li t0, 0x%x", random.nextInt(16) == 0 ? 0 : 0xF0888);
                line("csrw mie, t0");
            }
        }
    }

    /** Writes an instruction over another one, and executes it after a fence. */
    private void changesItself(String to) {
        int label = labels++;
        line("la t0, %df", label);
        line("lw t1, %s(gp)", 4 * random.nextInt(4));
        line("sw t1, 0(t0)");
        line("fence.i");
        line(".option push\n    .option norvc\n    .balign 4");
        out.append(label).append(":\n");
        line("addi %s, %s, 7", to, to);
        line(".option pop");
    }

    private static final String START =
            """
                .option arch, +zicsr
                .globl _start
            _start:
            REGISTERS
                la t0, vectors + VECTORED
                csrw mtvec, t0
                li sp, 0x9000
                li tp, 0xA000
                li s2, 0x10000000
                li s3, 0x70000000
                la gp, words
                li s11, ROUNDS
                li t0, 0xF0888
                csrw mie, t0
                csrsi mstatus, 8
                j begin
                .balign 4
            words:
                addi a0, a0, 1
                xor a1, a1, a2
                mul a2, a3, a4
                lw a3, 0(tp)
                .balign 64
                .option push
                .option norvc
            vectors:
                .rept 32
                j handler
                .endr
                .option pop
            handler:
                csrr t4, mstatus
                csrr t4, mtval
                csrr t4, mepc
                csrr t6, mcause
                bltz t6, 3f
                li t5, 1
                bne t6, t5, 1f
                # Nothing could be fetched: back to where the jump came from.
                csrw mepc, t2
                mret
            1:
                csrr t5, mepc
                lhu t6, 0(t5)
                andi t6, t6, 3
                addi t6, t6, -3
                addi t5, t5, 2
                bnez t6, 2f
                addi t5, t5, 2
            2:
                csrw mepc, t5
            3:
                mret
            begin:
            """;

    private static final String END =
            """
                addi s11, s11, -1
                beqz s11, 9f
                la t0, begin
                jr t0
            9:
                li t0, 0x20000000
                csrci mstatus, 8
                sw zero, 0(t0)
                j 9b
            """;
}
