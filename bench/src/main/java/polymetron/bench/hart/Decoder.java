package polymetron.bench.hart;

/**
 * Decodes RV32IM (RISC-V Unprivileged ISA, chapters 2 and 13, and the instruction listings of chapter 34) into two
 * ints: operation and registers, and the immediate.
 */
final class Decoder {
    /** Results for x0 go here, so that no instruction needs to test for it. */
    static final int DISCARD = 32;

    private static final int[] BRANCHES = {
        Op.BEQ, Op.BNE, -1, -1, Op.BLT, Op.BGE, Op.BLTU, Op.BGEU
    };
    private static final int[] LOADS = {Op.LB, Op.LH, Op.LW, -1, Op.LBU, Op.LHU, -1, -1};
    private static final int[] STORES = {Op.SB, Op.SH, Op.SW, -1, -1, -1, -1, -1};
    private static final int[] IMMEDIATES = {
        Op.ADDI, -1, Op.SLTI, Op.SLTIU, Op.XORI, -1, Op.ORI, Op.ANDI
    };
    private static final int[] REGISTERS = {
        Op.ADD, Op.SLL, Op.SLT, Op.SLTU, Op.XOR, Op.SRL, Op.OR, Op.AND
    };
    private static final int[] MULTIPLIES = {
        Op.MUL, Op.MULH, Op.MULHSU, Op.MULHU, Op.DIV, Op.DIVU, Op.REM, Op.REMU
    };

    /** Set in the operation of an instruction of 16 bits. */
    static final int SHORT = 1 << 21;

    private Decoder() {}

    /** Bytes of a decoded instruction. */
    static int length(int operation) {
        return 4 - (operation >>> 20 & 2);
    }

    /**
     * Operation in bits 7:0, destination in 15:8, first source in 20:16, whether it has 16 bits in 21, second source in 31:24.
     *
     * @param compresses whether instructions may begin at any even address
     */
    static int operation(int word, boolean multiplies, boolean compresses) {
        return compresses ? plain(word, multiplies) : operation(word, multiplies);
    }

    /** The same where jumps lead to multiples of 4 only. */
    static int operation(int word, boolean multiplies) {
        return isMisalignedJump(word)
                ? plain(word, multiplies) & ~0xFF | Op.SYSTEM
                : plain(word, multiplies);
    }

    private static int plain(int word, boolean multiplies) {
        int op = op(word, multiplies);
        int rd = word >>> 7 & 31;
        return (op < 0 ? Op.SYSTEM : op)
                | (rd == 0 ? DISCARD : rd) << 8
                | (word >>> 15 & 31) << 16
                | (word >>> 20 & 31) << 24;
    }

    private static int op(int word, boolean multiplies) {
        int funct3 = word >>> 12 & 7;
        int funct7 = word >>> 25;
        return switch (word & 0x7F) {
            case 0x37 -> Op.LUI;
            case 0x17 -> Op.AUIPC;
            case 0x6F -> Op.JAL;
            case 0x67 -> funct3 == 0 ? Op.JALR : -1;
            case 0x63 -> BRANCHES[funct3];
            case 0x03 -> LOADS[funct3];
            case 0x23 -> STORES[funct3];
            case 0x13 -> withImmediate(funct3, funct7);
            case 0x33 -> register(funct3, funct7, multiplies);
            case 0x0F -> funct3 <= 1 ? Op.FENCE : -1;
            default -> -1;
        };
    }

    private static int withImmediate(int funct3, int funct7) {
        if (funct3 == 1) {
            return funct7 == 0 ? Op.SLLI : -1;
        }
        if (funct3 == 5) {
            return funct7 == 0 ? Op.SRLI : funct7 == 0x20 ? Op.SRAI : -1;
        }
        return IMMEDIATES[funct3];
    }

    private static int register(int funct3, int funct7, boolean multiplies) {
        return switch (funct7) {
            case 0 -> REGISTERS[funct3];
            case 1 -> multiplies ? MULTIPLIES[funct3] : -1;
            case 0x20 -> funct3 == 0 ? Op.SUB : funct3 == 5 ? Op.SRA : -1;
            default -> -1;
        };
    }

    /** The immediate of the instruction's format; for {@link Op#SYSTEM} the whole word. */
    static int immediate(int word, int op) {
        return switch (op) {
            case Op.LUI, Op.AUIPC -> word & 0xFFFF_F000;
            case Op.JAL ->
                    word >> 31 << 20
                            | word & 0xFF000
                            | (word >>> 20 & 1) << 11
                            | (word >>> 21 & 0x3FF) << 1;
            case Op.BEQ, Op.BNE, Op.BLT, Op.BGE, Op.BLTU, Op.BGEU ->
                    word >> 31 << 12
                            | (word >>> 7 & 1) << 11
                            | (word >>> 25 & 0x3F) << 5
                            | (word >>> 8 & 15) << 1;
            case Op.SB, Op.SH, Op.SW -> word >> 25 << 5 | word >>> 7 & 31;
            case Op.SLLI, Op.SRLI, Op.SRAI -> word >>> 20 & 31;
            // Which of the two it is: FENCE or FENCE.I.
            case Op.FENCE -> word >>> 12 & 7;
            case Op.SYSTEM -> word;
            default -> word >> 20;
        };
    }

    /**
     * Whether the word is a jump to an address that is no multiple of 4: a trap of the jump itself when it is taken
     * (Unprivileged ISA, 2.5), so it is not done in the fast loop.
     */
    static boolean isMisalignedJump(int word) {
        boolean jump = (word & 0x7F) == 0x6F;
        boolean branch = (word & 0x7F) == 0x63 && BRANCHES[word >>> 12 & 7] >= 0;
        return (jump || branch) && (jumpOffset(word) & 2) != 0;
    }

    /** Distance that a JAL or branch jumps, in bytes. */
    static int jumpOffset(int word) {
        return immediate(word, (word & 0x7F) == 0x6F ? Op.JAL : Op.BEQ);
    }

    /** Whether a JAL or branch is taken. */
    static boolean isTaken(int word, int one, int two) {
        return (word & 0x7F) == 0x6F
                || switch (word >>> 12 & 7) {
                    case 0 -> one == two;
                    case 1 -> one != two;
                    case 4 -> one < two;
                    case 5 -> one >= two;
                    case 6 -> Integer.compareUnsigned(one, two) < 0;
                    default -> Integer.compareUnsigned(one, two) >= 0;
                };
    }
}
