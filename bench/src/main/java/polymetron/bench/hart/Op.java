package polymetron.bench.hart;

/** Operation numbers of decoded instructions; dense, so that the interpreter's switch is a jump table. */
final class Op {
    static final int UNDECODED = 0;
    static final int LUI = 1;
    static final int AUIPC = 2;
    static final int JAL = 3;
    static final int JALR = 4;
    static final int BEQ = 5;
    static final int BNE = 6;
    static final int BLT = 7;
    static final int BGE = 8;
    static final int BLTU = 9;
    static final int BGEU = 10;
    static final int LB = 11;
    static final int LH = 12;
    static final int LW = 13;
    static final int LBU = 14;
    static final int LHU = 15;
    static final int SB = 16;
    static final int SH = 17;
    static final int SW = 18;
    static final int ADDI = 19;
    static final int SLTI = 20;
    static final int SLTIU = 21;
    static final int XORI = 22;
    static final int ORI = 23;
    static final int ANDI = 24;
    static final int SLLI = 25;
    static final int SRLI = 26;
    static final int SRAI = 27;
    static final int ADD = 28;
    static final int SUB = 29;
    static final int SLL = 30;
    static final int SLT = 31;
    static final int SLTU = 32;
    static final int XOR = 33;
    static final int SRL = 34;
    static final int SRA = 35;
    static final int OR = 36;
    static final int AND = 37;
    static final int MUL = 38;
    static final int MULH = 39;
    static final int MULHSU = 40;
    static final int MULHU = 41;
    static final int DIV = 42;
    static final int DIVU = 43;
    static final int REM = 44;
    static final int REMU = 45;
    static final int FENCE = 46;

    /** Everything that is done outside the fast loop: system instructions, and words that are no instruction. */
    static final int SYSTEM = 47;

    private Op() {}
}
