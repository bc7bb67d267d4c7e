package polymetron.bench.hart;

import static java.lang.constant.ConstantDescs.CD_int;
import static java.lang.constant.ConstantDescs.CD_long;

import java.lang.classfile.Attributes;
import java.lang.classfile.ClassFile;
import java.lang.classfile.CodeBuilder;
import java.lang.classfile.Label;
import java.lang.classfile.attribute.CodeAttribute;
import java.lang.constant.ClassDesc;
import java.lang.constant.ConstantDescs;
import java.lang.constant.MethodTypeDesc;
import java.lang.invoke.MethodHandles;
import java.lang.reflect.AccessFlag;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.TreeMap;

/**
 * Translates instructions into Java byte code. The registers of the hart become local variables, jumps inside the
 * region become jumps of the byte code, and loads and stores go straight to the bytes of one memory. Whatever is
 * not plain (another memory, device registers, a fault, a system instruction, a store over instructions) leaves
 * the region before that instruction, with everything written back, and the interpreter does it. So a region
 * never has to undo anything, and instructions are counted exactly.
 */
final class RegionWriter {
    /** Most instructions of a region. */
    static final int MOST_INSTRUCTIONS = 240;

    /** The Java virtual machine never compiles a method of more bytes (HotSpot's DontCompileHugeMethods). */
    private static final int LONGEST_METHOD = 8_000;

    private static final int X = 1;
    private static final int DATA = 2;
    private static final int DATA_BASE = 3;
    private static final int GUARD = 4;
    private static final int LOAD_CYCLES = 5;
    private static final int STORE_CYCLES = 6;
    private static final int MOST = 7;
    private static final int DONE = 8;
    private static final int PC = 9;
    private static final int OFFSET = 10;

    /** Cycles done after the block that runs. */
    private static final int THEN = 11;

    private static final int RETIRED = 12;
    private static final int REGISTERS = 13;

    private static final ClassDesc BYTES = ConstantDescs.CD_byte.arrayType();
    private static final ClassDesc INTEGER = ClassDesc.of("java.lang.Integer");
    private static final ClassDesc ARITHMETIC = ClassDesc.of(Arithmetic.class.getName());
    private static final ClassDesc RAM = ClassDesc.of(Ram.class.getName());
    private static final ClassDesc SELF =
            ClassDesc.of(RegionWriter.class.getPackageName(), "TranslatedRegion");
    private static final MethodTypeDesc RUN =
            MethodTypeDesc.of(
                    CD_long, CD_int.arrayType(), BYTES, CD_int, BYTES, CD_int, CD_int, CD_int);
    private static final MethodTypeDesc TWO_INTS = MethodTypeDesc.of(CD_int, CD_int, CD_int);
    private static final MethodTypeDesc LOAD = MethodTypeDesc.of(CD_int, BYTES, CD_int);
    private static final MethodTypeDesc STORE =
            MethodTypeDesc.of(ConstantDescs.CD_void, BYTES, CD_int, CD_int);

    private record Instruction(int at, int op, int rd, int one, int two, int immediate) {
        boolean isBranch() {
            return op >= Op.BEQ && op <= Op.BGEU;
        }

        boolean isLoad() {
            return op >= Op.LB && op < Op.SB;
        }

        boolean isStore() {
            return op >= Op.SB && op <= Op.SW;
        }

        boolean endsBlock() {
            return isBranch() || op == Op.JAL || op == Op.JALR;
        }
    }

    /** A way out before an instruction: those of its block that are done, and its address. */
    private record Exit(Label label, List<Instruction> done, int at) {}

    private final Ram code;
    private final int codeBase;
    private final int entry;
    private final boolean multiplies;
    private final int fetchCycles;
    private final int[] cost;
    private final BitSet translated;
    private final TreeMap<Integer, List<Instruction>> blocks = new TreeMap<>();
    private final TreeMap<Integer, Label> labels = new TreeMap<>();
    private final List<Exit> exits = new ArrayList<>();
    private final BitSet used = new BitSet();
    private final BitSet written = new BitSet();

    /**
     * @param entry offset of the first instruction within the memory
     * @param fetchCycles cycles to fetch an instruction
     * @param cost cycles of each operation beside that, without those of a load or store
     * @param translated gets the numbers of the words that the region is made from
     */
    RegionWriter(
            Ram code,
            int codeBase,
            int entry,
            boolean multiplies,
            int fetchCycles,
            int[] cost,
            BitSet translated) {
        this.code = code;
        this.codeBase = codeBase;
        this.entry = entry;
        this.multiplies = multiplies;
        this.fetchCycles = fetchCycles;
        this.cost = cost;
        this.translated = translated;
    }

    /** The translation, or null when there is nothing at the entry that can be translated. */
    Region write() {
        for (int most = MOST_INSTRUCTIONS; ; most /= 2) {
            discover(most);
            if (blocks.get(entry).isEmpty()) {
                return null;
            }
            byte[] bytes = classFile();
            if (longestMethod(bytes) <= LONGEST_METHOD || most == 1) {
                return load(bytes);
            }
            blocks.clear();
            labels.clear();
            exits.clear();
            used.clear();
            written.clear();
        }
    }

    /** Number of instructions that were translated. */
    int size() {
        return blocks.values().stream().mapToInt(List::size).sum();
    }

    private static int longestMethod(byte[] bytes) {
        return ClassFile.of().parse(bytes).methods().stream()
                .flatMap(method -> method.findAttribute(Attributes.code()).stream())
                .mapToInt(CodeAttribute::codeLength)
                .max()
                .orElse(0);
    }

    private byte[] classFile() {
        return ClassFile.of()
                .build(
                        SELF,
                        type ->
                                type.withInterfaceSymbols(ClassDesc.of(Region.class.getName()))
                                        .withFlags(AccessFlag.FINAL)
                                        .withMethodBody(
                                                ConstantDescs.INIT_NAME,
                                                ConstantDescs.MTD_void,
                                                ClassFile.ACC_PUBLIC,
                                                body ->
                                                        body.aload(0)
                                                                .invokespecial(
                                                                        ConstantDescs.CD_Object,
                                                                        ConstantDescs.INIT_NAME,
                                                                        ConstantDescs.MTD_void)
                                                                .return_())
                                        .withMethodBody(
                                                "run", RUN, ClassFile.ACC_PUBLIC, this::body));
    }

    private static Region load(byte[] bytes) {
        try {
            return (Region)
                    MethodHandles.lookup()
                            .defineHiddenClass(bytes, true)
                            .lookupClass()
                            .getDeclaredConstructor()
                            .newInstance();
        } catch (ReflectiveOperationException impossible) {
            throw new IllegalStateException("a translation cannot be loaded", impossible);
        }
    }

    /** Finds the blocks that plain jumps lead to, nearest first, until there are enough instructions. */
    private void discover(int most) {
        List<Integer> open = new ArrayList<>(List.of(entry));
        int total = 0;
        for (int next = 0; next < open.size() && total < most; next++) {
            int start = open.get(next);
            if (blocks.containsKey(start)) {
                continue;
            }
            List<Instruction> block = block(start, most - total);
            if (block.isEmpty() && start != entry) {
                continue;
            }
            blocks.put(start, block);
            total += block.size();
            if (!block.isEmpty()) {
                Instruction last = block.getLast();
                if (last.isBranch() || last.op() == Op.JAL) {
                    open.add(last.at() + last.immediate());
                }
                if (last.op() != Op.JAL && last.op() != Op.JALR) {
                    open.add(last.at() + 4);
                }
            }
        }
    }

    private List<Instruction> block(int start, int most) {
        List<Instruction> block = new ArrayList<>();
        int at = start;
        while (block.size() < most && at >= 0 && at <= code.bytes.length - 4) {
            int word = code.word(at);
            int instruction = Decoder.operation(word, multiplies);
            int op = instruction & 0xFF;
            if (op == Op.SYSTEM) {
                break;
            }
            code.guard[at >>> Ram.GRANULE] = 1;
            translated.set(at >>> 2);
            Instruction decoded =
                    new Instruction(
                            at,
                            op,
                            instruction >>> 8 & 63,
                            instruction >>> 16 & 31,
                            instruction >>> 24,
                            Decoder.immediate(word, op));
            block.add(decoded);
            note(decoded);
            if (decoded.endsBlock()) {
                break;
            }
            at += 4;
        }
        return block;
    }

    private void note(Instruction instruction) {
        used.set(instruction.one());
        used.set(instruction.two());
        boolean writes =
                !instruction.isBranch() && (instruction.op() < Op.SB || instruction.op() > Op.SW);
        if (writes && instruction.rd() != Decoder.DISCARD && instruction.op() != Op.FENCE) {
            used.set(instruction.rd());
            written.set(instruction.rd());
        }
    }

    private void body(CodeBuilder out) {
        used.clear(0);
        out.iconst_0().istore(DONE).iconst_0().istore(PC).iconst_0().istore(RETIRED);
        used.stream()
                .forEach(
                        number ->
                                out.aload(X)
                                        .loadConstant(number)
                                        .iaload()
                                        .istore(REGISTERS + number));
        blocks.keySet().forEach(start -> labels.put(start, out.newLabel()));
        Label leave = out.newLabel();
        out.goto_(labels.get(entry));
        blocks.forEach((start, block) -> block(out, start, block, leave));
        for (Exit exit : exits) {
            out.labelBinding(exit.label());
            if (!exit.done().isEmpty()) {
                after(out, exit.done()).istore(DONE);
                out.iinc(RETIRED, exit.done().size());
            }
            out.loadConstant(codeBase + exit.at()).istore(PC).goto_(leave);
        }
        out.labelBinding(leave);
        out.aload(X).loadConstant(Region.RETIRED).iload(RETIRED).iastore();
        written.stream()
                .forEach(
                        number ->
                                out.aload(X)
                                        .loadConstant(number)
                                        .iload(REGISTERS + number)
                                        .iastore());
        out.iload(DONE)
                .i2l()
                .bipush(32)
                .lshl()
                .iload(PC)
                .i2l()
                .loadConstant(0xFFFF_FFFFL)
                .land()
                .lor()
                .lreturn();
    }

    private void block(CodeBuilder out, int start, List<Instruction> block, Label leave) {
        out.labelBinding(labels.get(start));
        after(out, block).istore(THEN);
        out.iload(THEN).iload(MOST).if_icmpgt(exit(out, List.of(), start));
        for (int index = 0; index < block.size(); index++) {
            Instruction instruction = block.get(index);
            if (instruction.endsBlock()) {
                jump(out, instruction, block, leave);
            } else {
                plain(out, instruction, block.subList(0, index));
            }
        }
        if (block.isEmpty() || !block.getLast().endsBlock()) {
            done(out, block);
            go(out, start + 4 * block.size());
        }
    }

    /** On the stack: the cycles that are done once these instructions are. */
    private CodeBuilder after(CodeBuilder out, List<Instruction> instructions) {
        int fixed = instructions.stream().mapToInt(each -> fetchCycles + cost[each.op()]).sum();
        out.iload(DONE).loadConstant(fixed).iadd();
        times(out, instructions.stream().filter(Instruction::isLoad).count(), LOAD_CYCLES);
        times(out, instructions.stream().filter(Instruction::isStore).count(), STORE_CYCLES);
        return out;
    }

    private static void times(CodeBuilder out, long count, int cycles) {
        if (count > 0) {
            out.loadConstant((int) count).iload(cycles).imul().iadd();
        }
    }

    private static void done(CodeBuilder out, List<Instruction> block) {
        out.iload(THEN).istore(DONE).iinc(RETIRED, block.size());
    }

    private Label exit(CodeBuilder out, List<Instruction> done, int at) {
        Label label = out.newLabel();
        exits.add(new Exit(label, done, at));
        return label;
    }

    /** Where a jump to an offset goes: to its block, or out of the region. */
    private Label target(CodeBuilder out, int at) {
        Label label = labels.get(at);
        return label != null ? label : exit(out, List.of(), at);
    }

    private void go(CodeBuilder out, int at) {
        out.goto_(target(out, at));
    }

    private void jump(CodeBuilder out, Instruction jump, List<Instruction> block, Label leave) {
        int link = codeBase + jump.at() + 4;
        switch (jump.op()) {
            case Op.JAL -> {
                set(out.loadConstant(link), jump.rd());
                done(out, block);
                go(out, jump.at() + jump.immediate());
            }
            case Op.JALR -> {
                get(out, jump.one())
                        .loadConstant(jump.immediate())
                        .iadd()
                        .bipush(-2)
                        .iand()
                        .istore(OFFSET);
                List<Instruction> before = block.subList(0, block.size() - 1);
                out.iload(OFFSET).iconst_2().iand().ifne(exit(out, before, jump.at()));
                set(out.loadConstant(link), jump.rd());
                done(out, block);
                out.iload(OFFSET).istore(PC).goto_(leave);
            }
            default -> {
                done(out, block);
                get(get(out, jump.one()), jump.two());
                Label taken = target(out, jump.at() + jump.immediate());
                switch (jump.op()) {
                    case Op.BEQ -> out.if_icmpeq(taken);
                    case Op.BNE -> out.if_icmpne(taken);
                    case Op.BLT -> out.if_icmplt(taken);
                    case Op.BGE -> out.if_icmpge(taken);
                    case Op.BLTU ->
                            out.invokestatic(INTEGER, "compareUnsigned", TWO_INTS).iflt(taken);
                    default -> out.invokestatic(INTEGER, "compareUnsigned", TWO_INTS).ifge(taken);
                }
                go(out, jump.at() + 4);
            }
        }
    }

    private void plain(CodeBuilder out, Instruction instruction, List<Instruction> before) {
        int op = instruction.op();
        if (op >= Op.LB && op <= Op.SW) {
            access(out, instruction, before);
            return;
        }
        if (instruction.rd() == Decoder.DISCARD || op == Op.FENCE) {
            return;
        }
        int one = instruction.one();
        int two = instruction.two();
        int immediate = instruction.immediate();
        switch (op) {
            case Op.LUI -> out.loadConstant(immediate);
            case Op.AUIPC -> out.loadConstant(codeBase + instruction.at() + immediate);
            case Op.ADDI -> get(out, one).loadConstant(immediate).iadd();
            case Op.SLTI -> truth(get(out, one).loadConstant(immediate), false);
            case Op.SLTIU -> truth(get(out, one).loadConstant(immediate), true);
            case Op.XORI -> get(out, one).loadConstant(immediate).ixor();
            case Op.ORI -> get(out, one).loadConstant(immediate).ior();
            case Op.ANDI -> get(out, one).loadConstant(immediate).iand();
            case Op.SLLI -> get(out, one).loadConstant(immediate).ishl();
            case Op.SRLI -> get(out, one).loadConstant(immediate).iushr();
            case Op.SRAI -> get(out, one).loadConstant(immediate).ishr();
            case Op.MULH, Op.MULHSU, Op.MULHU ->
                    get(get(out.loadConstant(op), one), two)
                            .invokestatic(
                                    ARITHMETIC,
                                    "multiplyHigh",
                                    MethodTypeDesc.of(CD_int, CD_int, CD_int, CD_int));
            default -> binary(get(get(out, one), two), op);
        }
        set(out, instruction.rd());
    }

    private static void binary(CodeBuilder out, int op) {
        switch (op) {
            case Op.ADD -> out.iadd();
            case Op.SUB -> out.isub();
            case Op.SLL -> out.ishl();
            case Op.SLT -> truth(out, false);
            case Op.SLTU -> truth(out, true);
            case Op.XOR -> out.ixor();
            case Op.SRL -> out.iushr();
            case Op.SRA -> out.ishr();
            case Op.OR -> out.ior();
            case Op.AND -> out.iand();
            case Op.MUL -> out.imul();
            case Op.DIV -> out.invokestatic(ARITHMETIC, "divide", TWO_INTS);
            case Op.DIVU -> out.invokestatic(ARITHMETIC, "divideUnsigned", TWO_INTS);
            case Op.REM -> out.invokestatic(ARITHMETIC, "remainder", TWO_INTS);
            case Op.REMU -> out.invokestatic(ARITHMETIC, "remainderUnsigned", TWO_INTS);
            default -> throw new IllegalStateException("operation " + op + " has no translation");
        }
    }

    /** 1 when the lower of the two ints on the stack is less than the upper one, else 0. */
    private static void truth(CodeBuilder out, boolean unsigned) {
        if (unsigned) {
            out.invokestatic(INTEGER, "compareUnsigned", TWO_INTS);
        } else {
            out.invokestatic(INTEGER, "compare", TWO_INTS);
        }
        out.bipush(31).iushr();
    }

    private void access(CodeBuilder out, Instruction access, List<Instruction> before) {
        Label slow = exit(out, before, access.at());
        int op = access.op();
        int size =
                switch (op) {
                    case Op.LW, Op.SW -> 4;
                    case Op.LH, Op.LHU, Op.SH -> 2;
                    default -> 1;
                };
        get(out, access.one())
                .loadConstant(access.immediate())
                .iadd()
                .iload(DATA_BASE)
                .isub()
                .istore(OFFSET);
        if (size > 1) {
            out.iload(OFFSET).loadConstant(size - 1).iand().ifne(slow);
        }
        out.iload(OFFSET)
                .aload(DATA)
                .arraylength()
                .invokestatic(INTEGER, "compareUnsigned", TWO_INTS)
                .ifge(slow);
        if (op >= Op.SB) {
            out.aload(GUARD).iload(OFFSET).loadConstant(Ram.GRANULE).iushr().baload().ifne(slow);
            get(out.aload(DATA).iload(OFFSET), access.two());
            out.invokestatic(
                    RAM, size == 4 ? "storeWord" : size == 2 ? "storeHalf" : "storeByte", STORE);
        } else if (access.rd() != Decoder.DISCARD) {
            out.aload(DATA).iload(OFFSET);
            switch (op) {
                case Op.LW -> out.invokestatic(RAM, "loadWord", LOAD);
                case Op.LH -> out.invokestatic(RAM, "loadHalf", LOAD);
                case Op.LHU -> out.invokestatic(RAM, "loadHalf", LOAD).loadConstant(0xFFFF).iand();
                case Op.LB -> out.baload();
                default -> out.baload().loadConstant(0xFF).iand();
            }
            set(out, access.rd());
        }
    }

    private static CodeBuilder get(CodeBuilder out, int register) {
        return register == 0 ? out.iconst_0() : out.iload(REGISTERS + register);
    }

    private static void set(CodeBuilder out, int register) {
        if (register == Decoder.DISCARD) {
            out.pop();
        } else {
            out.istore(REGISTERS + register);
        }
    }
}
