package polymetron.bench.hart;

/**
 * A RISC-V hart: RV32I, with M and C where the processor has them, in machine mode only (RISC-V Unprivileged and
 * Privileged ISA). Where the definition says what its instructions take, cycles are counted as the hardware takes them: to
 * fetch, to execute and to load or store. Else an instruction takes one cycle, and times are a lower bound.
 *
 * <p>Instructions are decoded once into the {@link Ram} that holds them; a store over an instruction forgets its
 * decoded form. The loop in {@link #execute} only knows plain instructions; system instructions, device registers
 * and faults are done in {@link #slow}, and end the loop, because they can change what is pending.
 */
public final class Hart {
    /** JAL x0, 0. */
    private static final int JUMP_TO_ITSELF = 0x6F;

    /** C.J 0. */
    private static final int SHORT_JUMP_TO_ITSELF = 0xA001;

    /** x0 to x31, a place for discarded results, and one for how many instructions a region did. */
    private final int[] x = new int[Region.RETIRED + 1];

    private final BusMap fetchMap;
    private final BusMap dataMap;
    private final boolean multiplies;
    private final boolean compresses;
    private final HartTiming timing;

    /** By operation: cycles after the instruction is there, without those of a load or store. */
    private final int[] cost = new int[Op.SYSTEM + 1];

    /** Bits that are 0 in the address of an instruction. */
    private final int alignment;

    private final int resetVector;
    private final int trapVector;
    private final Csrs csrs;
    private final Translator translator = new Translator();
    private Progress progress = (done, accessed) -> {};
    private int doneBefore;

    /** Told how far execution is before anything that can notice the time. */
    public interface Progress {
        /**
         * @param done cycles since the running {@link #execute} began
         * @param accessed the registers that are accessed next; null for a system instruction
         */
        void reached(int done, Registers accessed);
    }

    private int pc;
    private boolean waiting;
    private boolean translating;

    // The memory that instructions come from, and the one that data was last in: nearly every
    // access is there.
    private Ram code;
    private int codeBase;
    private Ram data;
    private int dataBase;
    private AccessCycles dataCycles = AccessCycles.NONE;
    private int fetchCycles;

    /** Whether the upper half of the word that was fetched last is still there, and not done yet. */
    private boolean hasHalf;

    private boolean trapped;

    /** Whether it stores to registers at this moment. */
    private boolean storing;

    private Caches caches = Caches.NONE;

    /** Cycles to fetch a line of instructions. */
    private int lineCycles;

    /** What the last access took, where loads go through a cache. */
    private int cachedCycles;

    /** Told of each access to memory; null for none. */
    private MemoryWatch watch;

    /** Address of the load or store that is done, where there is a watch. */
    private int watchedPc;

    /**
     * @param fetchMap what the instruction side reaches
     * @param dataMap what the data side reaches
     * @param multiplies whether the processor has the M extension
     * @param compresses whether it has the C extension; such a hart is interpreted only
     * @param timing cycles beside those of its accesses
     */
    public Hart(
            BusMap fetchMap,
            BusMap dataMap,
            boolean multiplies,
            boolean compresses,
            HartTiming timing,
            int resetVector,
            int trapVector,
            int hartId) {
        this.fetchMap = fetchMap;
        this.dataMap = dataMap;
        this.multiplies = multiplies;
        this.resetVector = resetVector;
        this.trapVector = trapVector;
        this.compresses = compresses;
        this.alignment = compresses ? 1 : 3;
        this.translating = !compresses;
        this.csrs = new Csrs(hartId, multiplies, compresses);
        this.timing = timing;
        java.util.Arrays.fill(cost, timing.execute());
        java.util.Arrays.fill(cost, Op.MUL, Op.MULHU + 1, timing.execute() + timing.multiply());
        java.util.Arrays.fill(cost, Op.DIV, Op.REMU + 1, timing.execute() + timing.divide());
        reset();
    }

    public void reset() {
        java.util.Arrays.fill(x, 0);
        csrs.reset(trapVector);
        pc = resetVector;
        waiting = false;
        code = null;
        data = null;
        hasHalf = false;
        translator.forget();
        dropLines(true);
    }

    private void dropLines(boolean alsoInstructions) {
        if (caches.data() != null) {
            caches.data().clear();
        }
        if (alsoInstructions && caches.instructions() != null) {
            caches.instructions().clear();
        }
    }

    /** A reset while time goes on; memories keep what is in them. */
    public void restart(long now) {
        reset();
        csrs.startAt(now);
    }

    public int pc() {
        return pc;
    }

    /** A general-purpose register, 0 to 31. */
    public int register(int number) {
        return x[number];
    }

    /** Gives a general-purpose register, 1 to 31, another value: what a counter of real hardware gave. */
    void setRegister(int number, int value) {
        x[number] = value;
    }

    public Csrs csrs() {
        return csrs;
    }

    /** What its cycles are. */
    public HartTiming timing() {
        return timing;
    }

    /** Whether an enabled interrupt is pending, which wakes it, also where it is not taken. */
    public boolean isCalled() {
        return csrs.pending() != 0;
    }

    /** Whether the hart waits for an interrupt (WFI). */
    public boolean isWaiting() {
        return waiting;
    }

    /** Whether what happens in registers at this moment is a store of this hart. */
    public boolean isStoring() {
        return storing;
    }

    public void onProgress(Progress listener) {
        progress = listener;
    }

    /** Turns translation to byte code off, to compare with plain interpretation. */
    public void interpretOnly() {
        translating = false;
    }

    /** Gives the hart caches; such a hart is interpreted only. */
    public void cache(Caches kept) {
        caches = kept;
        translating &= kept.equals(Caches.NONE);
    }

    /** Tells of each access to memory from now on. */
    public void watch(MemoryWatch told) {
        watch = told;
        translating = false;
        translator.forget();
    }

    /** Memory was changed from outside: decoded and translated instructions are no longer right. */
    public void forgetInstructions() {
        translator.forget();
    }

    /**
     * Takes the most urgent enabled interrupt, if any; wakes the hart when one is pending.
     *
     * @return whether a trap was taken
     */
    public boolean takeInterrupt() {
        int pending = csrs.pending();
        if (pending == 0) {
            return false;
        }
        waiting = false;
        if (!csrs.interruptsOn()) {
            return false;
        }
        // Order of the Privileged ISA, 3.1.9: external, software, timer; then the platform's own.
        int number =
                (pending & 1 << Trap.EXTERNAL_LINE) != 0
                        ? Trap.EXTERNAL_LINE
                        : (pending & 1 << Trap.SOFTWARE_LINE) != 0
                                ? Trap.SOFTWARE_LINE
                                : (pending & 1 << Trap.TIMER_LINE) != 0
                                        ? Trap.TIMER_LINE
                                        : Integer.numberOfTrailingZeros(pending);
        trap(0x8000_0000 | number, 0);
        return true;
    }

    /**
     * Whether nothing more can happen: in a trap, a jump to itself with interrupts off, or a trap vector where nothing can be
     * fetched.
     */
    public boolean isStuck() {
        if (!csrs.isInTrap()) {
            return false;
        }
        if (csrs.lastCause() == Trap.FETCH_FAULT && csrs.lastTrapAddress() == csrs.trapBase()) {
            return true;
        }
        int index = csrs.interruptsOn() ? -1 : fetchMap.indexOf(pc);
        if (index < 0 || (pc & alignment) != 0 || !(fetchMap.target(index) instanceof Ram ram)) {
            return false;
        }
        int at = pc - fetchMap.base(index);
        return compresses && (ram.half(at) & 0xFFFF) == SHORT_JUMP_TO_ITSELF
                || at <= ram.size() - 4 && ram.word(at) == JUMP_TO_ITSELF;
    }

    private void trap(int cause, int value) {
        pc = csrs.enterTrap(pc, cause, value);
        trapped = true;
        hasHalf = false;
    }

    /**
     * Executes instructions until so many cycles have passed, or until something happened that may change what is pending:
     * an access to device registers, a system instruction or a trap. An instruction that has begun is done.
     *
     * @param most cycles, at least 1
     * @return how many have passed, which can be more
     */
    public int execute(int most) {
        if ((pc & alignment) != 0) {
            trap(Trap.FETCH_MISALIGNED, pc);
            return 1;
        }
        if (code == null || !isInCode()) {
            int index = fetchMap.indexOf(pc);
            if (index < 0 || !(fetchMap.target(index) instanceof Ram ram)) {
                trap(Trap.FETCH_FAULT, pc);
                return fetchMap.cycles(index).read() + timing.execute();
            }
            int base = fetchMap.base(index);
            fetchCycles = fetchMap.cycles(index).read();
            lineCycles = fetchMap.cycles(index).line();
            // A translation holds addresses: it is wrong where the same memory appears elsewhere.
            if (code != ram || codeBase != base) {
                translator.forget();
            }
            ram.prepareToExecute();
            code = ram;
            codeBase = base;
        }
        if (data == null) {
            data = code;
            int index = dataMap.indexOf(codeBase);
            // A memory that only the instruction side reaches is no place for data.
            dataBase = index >= 0 && dataMap.target(index) == code ? dataMap.base(index) : 0;
            dataCycles = dataMap.cycles(index);
            if (index < 0 || dataMap.target(index) != code) {
                data = NOTHING;
            }
        }
        if (compresses && goesBeyond()) {
            return executeAcross();
        }
        int done = 0;
        boolean jumped = false;
        while (done < most) {
            Translation translation =
                    translating
                            ? translator.at(
                                    code, codeBase, pc, multiplies, fetchCycles, cost, jumped)
                            : null;
            if (translation != null) {
                int slice = translation.most(most - done);
                long outcome =
                        translation
                                .region()
                                .run(
                                        x,
                                        data.bytes,
                                        dataBase,
                                        data.guard,
                                        dataCycles.read(),
                                        dataCycles.write(),
                                        slice);
                int executed = (int) (outcome >>> 32);
                csrs.retire(x[Region.RETIRED]);
                pc = (int) outcome;
                done += executed;
                if (done >= most || !isInCode()) {
                    return Math.max(done, 1);
                }
                if (executed > 0) {
                    jumped = executed < slice - mostOfARegion();
                    if (jumped) {
                        continue;
                    }
                }
            }
            int before = done;
            doneBefore = done;
            done += interpret(most - done);
            jumped = true;
            // A jump can lead anywhere, also below the memory: the next call looks where that is.
            if (ended || done == before || !isInCode()) {
                ended = false;
                return Math.max(done, 1);
            }
        }
        return done;
    }

    /** Cycles that no way through a region without a jump takes more than. */
    private int mostOfARegion() {
        return RegionWriter.MOST_INSTRUCTIONS
                * (fetchCycles
                        + timing.execute()
                        + Math.max(timing.divide(), timing.multiply())
                        + Math.max(dataCycles.read(), dataCycles.write()));
    }

    private boolean isInCode() {
        return Integer.compareUnsigned(pc - codeBase, code.bytes.length) < 0
                && (pc & alignment) == 0;
    }

    /** Whether the second half of the next instruction is not in the memory that the first one is in. */
    private boolean goesBeyond() {
        int at = pc - codeBase;
        return at == code.bytes.length - 2 && !Compressed.isShort(code.half(at));
    }

    /** One instruction whose halves are in two memories. */
    private int executeAcross() {
        int index = fetchMap.indexOf(pc + 2);
        if (index < 0 || !(fetchMap.target(index) instanceof Ram ram)) {
            trap(Trap.FETCH_FAULT, pc + 2);
            return (hasHalf ? 0 : fetchCycles) + fetchMap.cycles(index).read() + timing.execute();
        }
        Ram both = new Ram(4, true);
        both.prepareToExecute();
        int upper = ram.half(pc + 2 - fetchMap.base(index));
        Ram.storeWord(both.bytes, 0, code.half(pc - codeBase) & 0xFFFF | upper << 16);
        code = both;
        codeBase = pc;
        doneBefore = 0;
        int done = interpret(1);
        ended = false;
        code = null;
        return Math.max(done, 1);
    }

    private static final Ram NOTHING = new Ram(0, false);
    private boolean ended;

    /** Bytes of the instruction that is done outside the fast loop. */
    private int length;

    /**
     * The plain loop. Returns after a jump backwards or out of the memory, so that {@link #execute} can look for a
     * translation.
     */
    private int interpret(int most) {
        final int[] x = this.x;
        final int[] decoded = code.decoded;
        int at = pc - codeBase;
        int done = 0;
        int count = 0;
        while (done < most) {
            if (Integer.compareUnsigned(at, code.bytes.length) >= 0 || (at & alignment) != 0) {
                ended = true;
                break;
            }
            int instruction = decoded[at];
            if (instruction == 0) {
                if (compresses
                        && at == code.bytes.length - 2
                        && !Compressed.isShort(code.half(at))) {
                    ended = true;
                    break;
                }
                instruction = decode(at);
            }
            int immediate = decoded[at + 1];
            int rd = instruction >>> 8 & 63;
            int one = x[instruction >>> 16 & 31];
            int two = x[instruction >>> 24];
            int next = at + Decoder.length(instruction);
            int op = instruction & 0xFF;
            int fetched =
                    caches.instructions() != null
                            ? fetchedLines(codeBase + at, instruction)
                            : compresses ? fetched(codeBase + at, instruction) : fetchCycles;
            int cycles = fetched + cost[op];
            switch (op) {
                case Op.LUI -> x[rd] = immediate;
                case Op.AUIPC -> x[rd] = codeBase + at + immediate;
                case Op.JAL -> {
                    x[rd] = codeBase + next;
                    next = at + immediate;
                }
                case Op.JALR -> {
                    int target = one + immediate & ~1;
                    if ((target & alignment) != 0) {
                        pc = codeBase + at;
                        csrs.retire(count);
                        trap(Trap.FETCH_MISALIGNED, target);
                        ended = true;
                        return done + cycles;
                    }
                    x[rd] = codeBase + next;
                    next = target - codeBase;
                }
                case Op.BEQ -> next = one == two ? at + immediate : next;
                case Op.BNE -> next = one != two ? at + immediate : next;
                case Op.BLT -> next = one < two ? at + immediate : next;
                case Op.BGE -> next = one >= two ? at + immediate : next;
                case Op.BLTU ->
                        next = Integer.compareUnsigned(one, two) < 0 ? at + immediate : next;
                case Op.BGEU ->
                        next = Integer.compareUnsigned(one, two) >= 0 ? at + immediate : next;
                case Op.LB, Op.LH, Op.LW, Op.LBU, Op.LHU, Op.SB, Op.SH, Op.SW -> {
                    watchedPc = codeBase + at;
                    if (!access(op, rd, one + immediate, two)) {
                        pc = codeBase + at;
                        csrs.retire(count);
                        ended = true;
                        return done + slow(instruction, immediate, one, two, done, fetched);
                    }
                    cycles +=
                            op >= Op.SB
                                    ? dataCycles.write()
                                    : caches.data() != null ? cachedCycles : dataCycles.read();
                }
                case Op.ADDI -> x[rd] = one + immediate;
                case Op.SLTI -> x[rd] = one < immediate ? 1 : 0;
                case Op.SLTIU -> x[rd] = Integer.compareUnsigned(one, immediate) < 0 ? 1 : 0;
                case Op.XORI -> x[rd] = one ^ immediate;
                case Op.ORI -> x[rd] = one | immediate;
                case Op.ANDI -> x[rd] = one & immediate;
                case Op.SLLI -> x[rd] = one << immediate;
                case Op.SRLI -> x[rd] = one >>> immediate;
                case Op.SRAI -> x[rd] = one >> immediate;
                case Op.ADD -> x[rd] = one + two;
                case Op.SUB -> x[rd] = one - two;
                case Op.SLL -> x[rd] = one << two;
                case Op.SLT -> x[rd] = one < two ? 1 : 0;
                case Op.SLTU -> x[rd] = Integer.compareUnsigned(one, two) < 0 ? 1 : 0;
                case Op.XOR -> x[rd] = one ^ two;
                case Op.SRL -> x[rd] = one >>> two;
                case Op.SRA -> x[rd] = one >> two;
                case Op.OR -> x[rd] = one | two;
                case Op.AND -> x[rd] = one & two;
                case Op.MUL -> x[rd] = one * two;
                case Op.MULH, Op.MULHSU, Op.MULHU -> x[rd] = Arithmetic.multiplyHigh(op, one, two);
                case Op.DIV -> x[rd] = Arithmetic.divide(one, two);
                case Op.DIVU -> x[rd] = Arithmetic.divideUnsigned(one, two);
                case Op.REM -> x[rd] = Arithmetic.remainder(one, two);
                case Op.REMU -> x[rd] = Arithmetic.remainderUnsigned(one, two);
                case Op.FENCE -> {
                    if (watch != null) {
                        watch.fenced();
                    }
                    dropLines(immediate != 0);
                    if (immediate != 0) {
                        hasHalf = false;
                    }
                }
                default -> {
                    pc = codeBase + at;
                    csrs.retire(count);
                    ended = true;
                    return done + slow(instruction, immediate, one, two, done, fetched);
                }
            }
            done += cycles;
            count++;
            if (op == Op.JAL || op == Op.JALR || next != at + Decoder.length(instruction)) {
                hasHalf = false;
            }
            boolean backwards = next <= at;
            at = next;
            if (backwards) {
                break;
            }
        }
        pc = codeBase + at;
        csrs.retire(count);
        return done;
    }

    /** Cycles to fetch an instruction where words are fetched and instructions may be halves of them. */
    private int fetched(int address, int instruction) {
        boolean isShort = Decoder.length(instruction) == 2;
        boolean isUpper = (address & 2) != 0;
        boolean hadHalf = isUpper && hasHalf;
        int words = hadHalf ? (isShort ? 0 : 1) : isUpper && !isShort ? 2 : 1;
        hasHalf = isUpper ? !isShort : isShort;
        return words == 0 ? Math.min(1, fetchCycles) : words * fetchCycles;
    }

    /** The same through a cache: nothing where the line is kept. */
    private int fetchedLines(int address, int instruction) {
        int cycles = caches.instructions().has(address) ? 0 : lineCycles;
        int last = address + Decoder.length(instruction) - 1;
        return caches.instructions().has(last) ? cycles : cycles + lineCycles;
    }

    private int decode(int at) {
        if (compresses && Compressed.isShort(code.half(at))) {
            int half = code.half(at) & 0xFFFF;
            int word = Compressed.expand(half);
            int instruction = Decoder.operation(word, multiplies, true) | Decoder.SHORT;
            // An illegal one is told as it was fetched.
            code.decode(
                    at,
                    instruction,
                    word == 0 ? half : Decoder.immediate(word, instruction & 0xFF));
            return instruction;
        }
        int word = compresses ? code.half(at) & 0xFFFF | code.half(at + 2) << 16 : code.word(at);
        int instruction = Decoder.operation(word, multiplies, compresses);
        code.decode(at, instruction, Decoder.immediate(word, instruction & 0xFF));
        return instruction;
    }

    /** A load or store in the memory that data was last in; false when it is elsewhere or misaligned. */
    private boolean access(int op, int rd, int address, int value) {
        int offset = address - dataBase;
        byte[] bytes = data.bytes;
        if (Integer.compareUnsigned(offset, bytes.length) >= 0) {
            return false;
        }
        if (watch != null) {
            int size = size(op);
            boolean stores = op >= Op.SB;
            if ((offset & size - 1) == 0 && (!stores || data.writable)) {
                watch.accessed(data, offset, size, stores, address, watchedPc);
            }
        }
        if (caches.data() != null && op < Op.SB && (offset & size(op) - 1) == 0) {
            int place = cached(address, size(op));
            if (place >= 0) {
                bytes = caches.data().bytes();
                offset = place;
            }
        }
        switch (op) {
            case Op.LW -> {
                if ((offset & 3) != 0) {
                    return false;
                }
                x[rd] = Ram.loadWord(bytes, offset);
            }
            case Op.LB -> x[rd] = bytes[offset];
            case Op.LBU -> x[rd] = bytes[offset] & 0xFF;
            case Op.LH, Op.LHU -> {
                if ((offset & 1) != 0) {
                    return false;
                }
                int half = Ram.loadHalf(bytes, offset);
                x[rd] = op == Op.LH ? half : half & 0xFFFF;
            }
            default -> {
                return store(op, offset, value);
            }
        }
        return true;
    }

    /** Where the cache has what a load reads, after it has fetched the line; -1 where it cannot keep it. */
    private int cached(int address, int size) {
        cachedCycles = 0;
        int place = caches.data().find(address);
        if (place < 0) {
            place = caches.data().fill(data, dataBase, address);
            cachedCycles = place < 0 ? dataCycles.read() : dataCycles.line();
        } else if (watch != null && isStale(place, address - dataBase, size)) {
            watch.stale(address, watchedPc);
        }
        return place;
    }

    private boolean isStale(int place, int offset, int size) {
        return !java.util.Arrays.equals(
                caches.data().bytes(), place, place + size, data.bytes, offset, offset + size);
    }

    private static int size(int op) {
        return switch (op) {
            case Op.LW, Op.SW -> 4;
            case Op.LH, Op.LHU, Op.SH -> 2;
            default -> 1;
        };
    }

    /** Another initiator has stored a word; instructions that were there are forgotten. */
    public void storedByOther(Ram memory, int offset) {
        if (memory.guard[offset >>> Ram.GRANULE] != 0) {
            memory.stored(offset, Integer.BYTES);
            translator.stored(memory, offset);
        }
    }

    private boolean store(int op, int offset, int value) {
        int size = op == Op.SW ? 4 : op == Op.SH ? 2 : 1;
        if (!data.writable || (offset & size - 1) != 0) {
            return false;
        }
        switch (size) {
            case 4 -> Ram.storeWord(data.bytes, offset, value);
            case 2 -> Ram.storeHalf(data.bytes, offset, value);
            default -> Ram.storeByte(data.bytes, offset, value);
        }
        if (data.guard[offset >>> Ram.GRANULE] != 0) {
            data.stored(offset, size);
            translator.stored(data, offset);
        }
        if (caches.data() != null) {
            caches.data().stored(data, dataBase, dataBase + offset, size);
        }
        return true;
    }

    /**
     * One instruction outside the fast loop; {@link #pc} is its address and becomes that of the next.
     *
     * @param done cycles before it
     * @param fetched cycles to fetch it
     * @return its cycles
     */
    private int slow(int instruction, int immediate, int one, int two, int done, int fetched) {
        length = Decoder.length(instruction);
        trapped = false;
        int cycles = fetched + timing.execute();
        int op = instruction & 0xFF;
        if (op == Op.SYSTEM) {
            progress.reached(doneBefore + done + fetched, null);
            system(immediate, one, two);
        } else {
            cycles += reach(op, instruction, one + immediate, two, doneBefore + done + cycles);
        }
        if (!trapped) {
            csrs.retire(1);
        }
        return cycles;
    }

    /**
     * A load or store that is not in the memory that data was last in.
     *
     * @param begins cycles before its access
     * @return cycles of the access
     */
    private int reach(int op, int instruction, int address, int two, int begins) {
        boolean store = op >= Op.SB;
        int size = size(op);
        if ((address & size - 1) != 0) {
            trap(store ? Trap.STORE_MISALIGNED : Trap.LOAD_MISALIGNED, address);
            return 0;
        }
        int index = dataMap.indexOf(address);
        AccessCycles takes = dataMap.cycles(index);
        int cycles = store ? takes.write() : takes.read();
        if (index < 0) {
            trap(store ? Trap.STORE_FAULT : Trap.LOAD_FAULT, address);
            return cycles;
        }
        if (dataMap.target(index) instanceof Ram ram) {
            if (store && !ram.writable) {
                trap(Trap.STORE_FAULT, address);
                return cycles;
            }
            data = ram;
            dataBase = dataMap.base(index);
            dataCycles = takes;
            access(op, instruction >>> 8 & 63, address, two);
            pc += length;
            return caches.data() != null && !store ? cachedCycles : cycles;
        }
        Registers registers = (Registers) dataMap.target(index);
        progress.reached(begins + (store ? takes.untilWritten() : takes.untilRead()), registers);
        int offset = address - dataMap.base(index);
        int shift = (offset & 3) * 8;
        if (!registers.isThere(offset & ~3)) {
            trap(store ? Trap.STORE_FAULT : Trap.LOAD_FAULT, address);
            return cycles;
        }
        if (store) {
            int mask = (size == 4 ? -1 : (1 << 8 * size) - 1) << shift;
            storing = true;
            try {
                registers.write(offset & ~3, two << shift, mask);
            } finally {
                storing = false;
            }
        } else {
            int word = registers.read(offset & ~3) >>> shift;
            x[instruction >>> 8 & 63] =
                    switch (op) {
                        case Op.LB -> (byte) word;
                        case Op.LBU -> word & 0xFF;
                        case Op.LH -> (short) word;
                        case Op.LHU -> word & 0xFFFF;
                        default -> word;
                    };
        }
        pc += length;
        return cycles;
    }

    /** System instructions (Privileged ISA, 3.3, and Zicsr); everything else is illegal. */
    private void system(int word, int one, int two) {
        int funct3 = word >>> 12 & 7;
        if (!compresses && Decoder.isMisalignedJump(word)) {
            if (Decoder.isTaken(word, one, two)) {
                trap(Trap.FETCH_MISALIGNED, pc + Decoder.jumpOffset(word));
            } else {
                pc += length;
            }
            return;
        }
        if ((word & 0x7F) != 0x73 || funct3 == 4) {
            trap(Trap.ILLEGAL, word);
            return;
        }
        if (funct3 != 0) {
            csr(word, funct3, one);
            return;
        }
        switch (word) {
            case 0x0000_0073 -> trap(Trap.CALL, 0);
            case 0x0010_0073 -> trap(Trap.BREAKPOINT, pc);
            case 0x3020_0073 -> {
                pc = csrs.leaveTrap();
                hasHalf = false;
            }
            case 0x1050_0073 -> {
                waiting = csrs.pending() == 0;
                pc += length;
            }
            default -> trap(Trap.ILLEGAL, word);
        }
    }

    private void csr(int word, int funct3, int one) {
        int number = word >>> 20;
        int source = word >>> 15 & 31;
        int operand = funct3 >= 5 ? source : one;
        boolean writes = (funct3 & 3) == 1 || source != 0;
        if (!csrs.exists(number) || writes && csrs.isReadOnly(number)) {
            trap(Trap.ILLEGAL, word);
            return;
        }
        int old = csrs.read(number);
        if (writes) {
            csrs.write(
                    number,
                    switch (funct3 & 3) {
                        case 1 -> operand;
                        case 2 -> old | operand;
                        default -> old & ~operand;
                    });
        }
        int rd = word >>> 7 & 31;
        x[rd == 0 ? Decoder.DISCARD : rd] = old;
        pc += length;
    }
}
