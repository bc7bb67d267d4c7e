package polymetron.bench.hart;

/** The 32-bit instructions that compressed ones stand for (RISC-V Unprivileged ISA, chapter 16, RV32C without floating point). */
final class Compressed {
    private static final int LOAD = 0x03;
    private static final int STORE = 0x23;
    private static final int IMMEDIATE = 0x13;
    private static final int REGISTER = 0x33;
    private static final int STACK = 2;
    private static final int LINK = 1;

    private Compressed() {}

    /** Whether a half is an instruction of its own. */
    static boolean isShort(int half) {
        return (half & 3) != 3;
    }

    /**
     * @return 0 for what is reserved, which is illegal
     */
    static int expand(int half) {
        int rd = bits(half, 7, 5);
        int rs2 = bits(half, 2, 5);
        int one = 8 + bits(half, 7, 3);
        int two = 8 + bits(half, 2, 3);
        int small = signed(half, 12) << 5 | bits(half, 2, 5);
        int wordOffset = bits(half, 5, 1) << 6 | bits(half, 10, 3) << 3 | bits(half, 6, 1) << 2;
        return switch ((half & 3) << 3 | bits(half, 13, 3)) {
            case 0b00_000 -> {
                int offset =
                        bits(half, 7, 4) << 6
                                | bits(half, 11, 2) << 4
                                | bits(half, 5, 1) << 3
                                | bits(half, 6, 1) << 2;
                yield offset == 0 ? 0 : immediate(offset, STACK, 0, two, IMMEDIATE);
            }
            case 0b00_010 -> immediate(wordOffset, one, 2, two, LOAD);
            case 0b00_110 -> store(wordOffset, two, one);
            case 0b01_000 -> immediate(small, rd, 0, rd, IMMEDIATE);
            case 0b01_001 -> jump(half, LINK);
            case 0b01_010 -> immediate(small, 0, 0, rd, IMMEDIATE);
            case 0b01_011 -> upper(half, rd, small);
            case 0b01_100 -> arithmetic(half, one, two, small);
            case 0b01_101 -> jump(half, 0);
            case 0b01_110 -> branch(half, one, 0);
            case 0b01_111 -> branch(half, one, 1);
            case 0b10_000 -> bits(half, 12, 1) != 0 ? 0 : immediate(rs2, rd, 1, rd, IMMEDIATE);
            case 0b10_010 -> {
                int offset = bits(half, 2, 2) << 6 | bits(half, 12, 1) << 5 | bits(half, 4, 3) << 2;
                yield rd == 0 ? 0 : immediate(offset, STACK, 2, rd, LOAD);
            }
            case 0b10_100 -> move(half, rd, rs2);
            case 0b10_110 -> store(bits(half, 7, 2) << 6 | bits(half, 9, 4) << 2, rs2, STACK);
            default -> 0;
        };
    }

    private static int upper(int half, int rd, int small) {
        if (small == 0) {
            return 0;
        }
        if (rd != STACK) {
            return small << 12 | rd << 7 | 0x37;
        }
        int offset =
                signed(half, 12) << 9
                        | bits(half, 3, 2) << 7
                        | bits(half, 5, 1) << 6
                        | bits(half, 2, 1) << 5
                        | bits(half, 6, 1) << 4;
        return immediate(offset, STACK, 0, STACK, IMMEDIATE);
    }

    private static int arithmetic(int half, int one, int two, int small) {
        boolean isWide = bits(half, 12, 1) != 0;
        return switch (bits(half, 10, 2)) {
            case 0 -> isWide ? 0 : immediate(small, one, 5, one, IMMEDIATE);
            case 1 -> isWide ? 0 : immediate(0x400 | small, one, 5, one, IMMEDIATE);
            case 2 -> immediate(small, one, 7, one, IMMEDIATE);
            default -> {
                if (isWide) {
                    yield 0;
                }
                yield switch (bits(half, 5, 2)) {
                    case 0 -> register(0x20, two, one, 0, one);
                    case 1 -> register(0, two, one, 4, one);
                    case 2 -> register(0, two, one, 6, one);
                    default -> register(0, two, one, 7, one);
                };
            }
        };
    }

    private static int move(int half, int rd, int rs2) {
        boolean adds = bits(half, 12, 1) != 0;
        if (rs2 != 0) {
            return register(0, rs2, adds ? rd : 0, 0, rd);
        }
        if (rd != 0) {
            return immediate(0, rd, 0, adds ? LINK : 0, 0x67);
        }
        return adds ? 0x0010_0073 : 0;
    }

    private static int jump(int half, int link) {
        int offset =
                signed(half, 12) << 11
                        | bits(half, 8, 1) << 10
                        | bits(half, 9, 2) << 8
                        | bits(half, 6, 1) << 7
                        | bits(half, 7, 1) << 6
                        | bits(half, 2, 1) << 5
                        | bits(half, 11, 1) << 4
                        | bits(half, 3, 3) << 1;
        return (offset >>> 20 & 1) << 31
                | (offset >>> 1 & 0x3FF) << 21
                | (offset >>> 11 & 1) << 20
                | (offset >>> 12 & 0xFF) << 12
                | link << 7
                | 0x6F;
    }

    private static int branch(int half, int one, int funct3) {
        int offset =
                signed(half, 12) << 8
                        | bits(half, 5, 2) << 6
                        | bits(half, 2, 1) << 5
                        | bits(half, 10, 2) << 3
                        | bits(half, 3, 2) << 1;
        return (offset >>> 12 & 1) << 31
                | (offset >>> 5 & 0x3F) << 25
                | one << 15
                | funct3 << 12
                | (offset >>> 1 & 15) << 8
                | (offset >>> 11 & 1) << 7
                | 0x63;
    }

    private static int immediate(int value, int rs1, int funct3, int rd, int opcode) {
        return value << 20 | rs1 << 15 | funct3 << 12 | rd << 7 | opcode;
    }

    private static int register(int funct7, int rs2, int rs1, int funct3, int rd) {
        return funct7 << 25 | rs2 << 20 | rs1 << 15 | funct3 << 12 | rd << 7 | REGISTER;
    }

    private static int store(int offset, int rs2, int rs1) {
        return offset >>> 5 << 25 | rs2 << 20 | rs1 << 15 | 2 << 12 | (offset & 31) << 7 | STORE;
    }

    private static int bits(int half, int low, int count) {
        return half >>> low & (1 << count) - 1;
    }

    /** A bit as a sign: 0 or -1. */
    private static int signed(int half, int bit) {
        return -(half >>> bit & 1);
    }
}
