package polymetron.bench.machine;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import polymetron.address.Address;
import polymetron.bench.block.BankModel;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.BlockModels;
import polymetron.bench.block.MachineTimerModel;
import polymetron.bench.block.MemoryMover;
import polymetron.bench.block.OwnBlockModel;
import polymetron.bench.block.StreamBlock;
import polymetron.bench.block.UartModel;
import polymetron.bench.block.WatchdogModel;
import polymetron.bench.check.MemoryCheck;
import polymetron.bench.check.MemoryNotice;
import polymetron.bench.clock.ClockRatio;
import polymetron.bench.hart.BusMap;
import polymetron.bench.hart.Caches;
import polymetron.bench.hart.DataCache;
import polymetron.bench.hart.DirectMemory;
import polymetron.bench.hart.Hart;
import polymetron.bench.hart.HartTiming;
import polymetron.bench.hart.InstructionCache;
import polymetron.bench.hart.MemoryExhausted;
import polymetron.bench.hart.MemoryShare;
import polymetron.bench.hart.Registers;
import polymetron.bench.hart.Trap;
import polymetron.bench.part.ConverterSignal;
import polymetron.bench.part.Receiver;
import polymetron.bench.stream.StreamNetwork;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.library.Capability;
import polymetron.output.image.ProgramImage;
import polymetron.software.InstructionSet;
import polymetron.software.MachineTimer;
import polymetron.software.SoftwareView;

/**
 * A platform that runs: a hart, memories and block models behind the platform's own address maps. Everything
 * follows from the program and from what is put in at which cycle, so a run can be repeated exactly. Not safe for
 * several threads.
 */
public final class Machine implements AutoCloseable {
    /** In the place of an interface's name; no interface is called so. */
    private static final String WITHOUT_REGISTERS = "";

    private static final int LONGEST_RUN = 1 << 20;

    private static final long MOST_WAYS = 64;

    /** Processes of users' blocks; further ones are run by the description of their registers. */
    private static final int MOST_OWN = 16;

    /** Cycles after which harts find what others have done. */
    private static final int TOGETHER = 64;

    /** For which a block's reset output holds what it resets, until the first fetch. */
    private static final int RESET_CYCLES = 18;

    private final ElaboratedPlatform platform;
    private final SoftwareView view;
    private final Map<InterfaceRef, BlockModel> models = new LinkedHashMap<>();
    private final AddressMaps maps;
    private final List<Wire> wires;
    private final StreamNetwork streams;

    /** Memories of blocks that move data by themselves, by their names. */
    private final Map<String, List<DirectMemory>> moved = new LinkedHashMap<>();

    /** Null without a memory check. */
    private MemoryCheck check;

    private final Surroundings surroundings;

    private final Hart hart;

    /** The other harts of the program, and those of programs for further processors. */
    private List<Companion> companions = List.of();

    /** Which of the program's harts is {@link #hart}. */
    private final int index;

    /** Up to when the other harts are left alone while they do something. */
    private long together;

    private final long clockHz;
    private final UartModel console;
    private ProgramImage image;
    private List<ProgramImage> further = List.of();
    private long cycles;
    private long nextEvent;
    private final Set<String> toReset = new HashSet<>();
    private final String domain;

    /** Up to where it was asked to run: how it is cut into slices makes no difference. */
    private long wanted;

    /**
     * A machine that runs the platform's first program.
     *
     * @throws BenchException when the platform has nothing that could run
     */
    public Machine(ElaboratedPlatform platform) {
        this(SoftwareView.of(platform));
    }

    /**
     * A machine that runs one of the platform's programs, on all its harts; what is told of a hart is told of the one that starts
     * the program.
     *
     * @throws BenchException when the platform has nothing that could run
     */
    public Machine(SoftwareView view) {
        this(view, 0, MemoryShare.ample(), OwnModels.NONE);
    }

    /**
     * The same beside other machines.
     *
     * @param share what its memories are taken from
     */
    public Machine(SoftwareView view, MemoryShare share) {
        this(view, 0, share, OwnModels.NONE);
    }

    /**
     * The same with blocks that people have written.
     *
     * @param own makes their models
     */
    public Machine(SoftwareView view, MemoryShare share, OwnModels own) {
        this(view, 0, share, own);
    }

    /**
     * The same on another hart of the program.
     *
     * @param index which of the program's harts, from 0
     */
    Machine(SoftwareView view, int index) {
        this(view, index, MemoryShare.ample(), OwnModels.NONE);
    }

    private Machine(SoftwareView view, int index, MemoryShare share, OwnModels own) {
        this.platform = view.platform();
        this.view = view;
        this.index = index;
        if (view.harts().isEmpty()) {
            throw new BenchException(
                    "the platform has no processor with a data side on a bus; add one");
        }
        polymetron.software.Hart runs = view.harts().get(index);
        this.clockHz = Math.max(1, runs.hertz());
        for (ElaboratedBlock block : platform.blocks()) {
            for (SizedInterface form : block.shape().busInterfaces()) {
                if (form.isTarget() && !form.isMemory()) {
                    madeModel(own, block, form)
                            .ifPresent(
                                    model ->
                                            models.put(
                                                    new InterfaceRef(block.name(), form.name()),
                                                    model));
                }
            }
            if (block.shape().busInterfaces().stream().noneMatch(SizedInterface::isTarget)) {
                withoutRegisters(own, block);
            }
        }
        this.maps = new AddressMaps(platform, models, share);
        Map<String, StreamBlock> movers = new LinkedHashMap<>();
        models.forEach(
                (ref, model) -> {
                    if (model instanceof StreamBlock stream) {
                        movers.put(ref.block(), stream);
                    }
                });
        this.streams = new StreamNetwork(platform, movers, clockHz);
        movers.values().forEach(each -> each.join(streams));
        platform.outward().forEach(link -> BoardParts.connect(link, models));
        models.forEach(
                (ref, model) -> {
                    if (model instanceof WatchdogModel watchdog) {
                        Set<String> domains = resetBy(ref.block());
                        watchdog.onExpired(() -> toReset.addAll(domains));
                    }
                });
        this.hart = hart(runs);
        this.console = view.console().map(uart -> (UartModel) models.get(uart.ref())).orElse(null);
        this.domain = runs.block().domain(null);
        models.forEach(
                (ref, model) -> {
                    if (model instanceof MemoryMover mover) {
                        mover.connect(side -> direct(platform.blockIndex().get(ref.block()), side));
                    }
                });
        hart.onProgress(this::catchUp);
        this.surroundings = new Surroundings(platform, this::model, clockHz);
        this.wires = InterruptWiring.of(platform, runs, models);
        reset();
    }

    /** A user's block without a target on a bus: it has no registers, but lines, streams or accesses of its own. */
    private void withoutRegisters(OwnModels own, ElaboratedBlock block) {
        ownModel(own, block, null)
                .ifPresent(
                        model ->
                                models.put(
                                        new InterfaceRef(block.name(), WITHOUT_REGISTERS), model));
    }

    private Optional<BlockModel> madeModel(
            OwnModels own, ElaboratedBlock block, SizedInterface form) {
        return ownModel(own, block, form)
                .or(() -> BlockModels.create(platform, block, form, clockHz));
    }

    private Optional<BlockModel> ownModel(
            OwnModels own, ElaboratedBlock block, SizedInterface form) {
        Optional<BlockModel> made = Optional.empty();
        try {
            if (ownModels() < MOST_OWN) {
                made = own.of(platform, block, form);
            }
        } catch (RuntimeException impossible) {
            close();
            throw impossible;
        }
        made.ifPresent(
                model ->
                        model.clock(
                                ClockRatio.of(Math.max(1, frequencyHz(block, model)), clockHz)));
        return made;
    }

    private long frequencyHz(ElaboratedBlock block, BlockModel model) {
        return model instanceof OwnBlockModel own
                ? platform.frequencyHz(block, own.clock())
                : platform.frequencyHz(block);
    }

    /** How many models run in processes of their own. */
    private long ownModels() {
        return models.values().stream().filter(OwnBlockModel.class::isInstance).count();
    }

    /** Puts away what its models have outside of this process. */
    @Override
    public void close() {
        for (BlockModel model : models.values()) {
            if (model instanceof OwnBlockModel ownBlock) {
                ownBlock.close();
            }
        }
    }

    /** A hart with what it sees, its counters and its time. */
    private Hart hart(polymetron.software.Hart runs) {
        HartTiming timing = timing(runs);
        // Accesses count only beside what the hart itself takes.
        boolean counts = timing != HartTiming.ONE_EACH;
        BusMap data = maps.of(runs.block(), runs.role().data(), counts);
        // A processor with one side for both fetches where it loads and stores.
        boolean apart = !runs.role().fetch().equals(runs.role().data());
        // What the hart itself executes, which may be more than what all harts of the program do.
        InstructionSet executes = InstructionSet.of(platform, runs);
        Hart made =
                new Hart(
                        apart ? maps.of(runs.block(), runs.role().fetch(), counts) : data,
                        data,
                        executes.multiplies(),
                        executes.compresses(),
                        timing,
                        (int) runs.resetVector(),
                        (int) runs.trapVector(),
                        (int) runs.id());
        made.cache(caches(runs));
        made.csrs().setCounters(executes.counters());
        MachineTimer.serving(platform, runs)
                .map(timer -> (MachineTimerModel) models.get(timer.registers()))
                .ifPresent(timer -> made.csrs().setTime(timer::ticks));
        if (runs.role().lines() != null && runs.role().lines().local() != null) {
            runs.block()
                    .shape()
                    .interrupt(runs.role().lines().local())
                    .ifPresent(local -> made.csrs().addLocalLines(local.count()));
        }
        return made;
    }

    /** Harts that run beside the first one. */
    private Stream<Companion> companions(List<polymetron.software.Hart> harts) {
        return harts.stream()
                .map(
                        each -> {
                            Companion companion =
                                    new Companion(
                                            hart(each),
                                            InterruptWiring.of(platform, each, models),
                                            ClockRatio.of(Math.max(1, each.hertz()), clockHz),
                                            each.block().domain(null),
                                            each.label());
                            companion
                                    .hart()
                                    .onProgress(
                                            (done, accessed) -> catchUp(companion, done, accessed));
                            return companion;
                        });
    }

    /** What a block that moves data by itself finds at its addresses. */
    private DirectMemory direct(ElaboratedBlock block, String side) {
        DirectMemory direct =
                new DirectMemory(
                        maps.of(block, side, true),
                        (memory, offset) -> {
                            hart.storedByOther(memory, offset);
                            companions.forEach(each -> each.hart().storedByOther(memory, offset));
                        });
        moved.computeIfAbsent(block.name(), each -> new ArrayList<>()).add(direct);
        return direct;
    }

    /** Clock domains that a block's reset output resets. */
    private Set<String> resetBy(String block) {
        Set<String> domains = new HashSet<>();
        for (Domain each : platform.domains()) {
            String reset = each.domain().reset();
            if (reset != null && reset.startsWith(block + ".")) {
                domains.add(each.name());
            }
        }
        return domains;
    }

    private static Caches caches(polymetron.software.Hart hart) {
        InstructionCache instructions = null;
        DataCache data = null;
        var shape = hart.block().shape();
        for (Capability.Cache each : hart.role().caches()) {
            int bytes = (int) shape.number(each.bytes(), 0);
            int line =
                    Integer.highestOneBit(
                            (int) Math.max(Integer.BYTES, shape.number(each.line(), 1)));
            int ways = (int) Math.clamp(shape.number(each.ways(), 1), 1L, MOST_WAYS);
            if (bytes >= line * ways && each.holds().equals("data")) {
                data = new DataCache(bytes, line, ways);
            } else if (bytes >= line) {
                instructions = new InstructionCache(bytes, line);
            }
        }
        return new Caches(instructions, data);
    }

    private static HartTiming timing(polymetron.software.Hart hart) {
        Capability.HartCycles cycles = hart.role().cycles();
        if (cycles == null) {
            return HartTiming.ONE_EACH;
        }
        var shape = hart.block().shape();
        return new HartTiming(
                (int) shape.number(cycles.execute(), 1),
                cycles.multiply() == null ? 0 : (int) shape.number(cycles.multiply(), 0),
                cycles.divide() == null ? 0 : (int) shape.number(cycles.divide(), 0),
                (int) shape.number(cycles.interrupt(), 0),
                (int) shape.number(cycles.wake(), 0));
    }

    public ElaboratedPlatform platform() {
        return platform;
    }

    public Hart hart() {
        return hart;
    }

    /** Whether nothing more can happen, on any processor that has a program. */
    public boolean isStuck() {
        return hart.isStuck() && companions.stream().allMatch(each -> each.hart().isStuck());
    }

    /** A chip has changed what is in it, from where instructions may come. */
    private void forgetInstructions() {
        hart.forgetInstructions();
        companions.forEach(each -> each.hart().forgetInstructions());
    }

    /** The last trap in words: what, where, and with which value; null when there was none. */
    public String lastTrap() {
        if (hart.csrs().traps() == 0) {
            return null;
        }
        int cause = hart.csrs().lastCause();
        long pc = Integer.toUnsignedLong(hart.csrs().lastTrapAddress());
        String place =
                image == null ? "" : image.program().place(pc).map(" (%s)"::formatted).orElse("");
        return "%s stays in a trap: %s (cause %s) at %s%s, value %s"
                .formatted(
                        view.harts().getFirst().label(),
                        Trap.words(cause),
                        cause & 0x7FFF_FFFF,
                        Address.format(pc),
                        place,
                        Address.format(Integer.toUnsignedLong(hart.csrs().lastTrapValue())));
    }

    /** What the running program sees. */
    public SoftwareView view() {
        return view;
    }

    /** The program that is loaded; null for none. */
    public ProgramImage image() {
        return image;
    }

    /** The model of what lies behind a target. */
    public Optional<BlockModel> model(InterfaceRef target) {
        return Optional.ofNullable(models.get(target));
    }

    /** The model of a block; of one with several the first. */
    public Optional<BlockModel> model(String block) {
        return models.entrySet().stream()
                .filter(entry -> entry.getKey().block().equals(block))
                .map(Map.Entry::getValue)
                .findFirst();
    }

    /**
     * Sets the voltage that a part of the board gives.
     *
     * @param steps 4096ths of the full scale
     */
    public void setVoltage(String part, int channel, int steps) {
        surroundings.setVoltage(part, channel, steps, cycles);
        settle();
    }

    /** A satellite receiver of the board. */
    public Optional<Receiver> receiver(String part) {
        return surroundings.receiver(part);
    }

    /** What the converter on a part measures. */
    public Optional<ConverterSignal> signal(String part) {
        return surroundings.signal(part);
    }

    /** What is around the board and acts, or can. */
    public List<SurroundingOfBoard> surroundings() {
        return surroundings.surroundings();
    }

    /** Lets something around the board act, or not. */
    public void setActing(SurroundingOfBoard surrounding, boolean on) {
        surrounding.set(on, cycles, surroundings);
        settle();
    }

    /** What moves a part of the board now, so that it cannot be moved otherwise. */
    public Optional<SurroundingOfBoard> holder(String part) {
        return surroundings().stream().filter(each -> each.holds(part)).findFirst();
    }

    /** Levels that a part of the board was moved to. */
    public long levels(String part) {
        return surroundings.levels(part);
    }

    /** A voltage that a part of the board gives, in 4096ths of the full scale. */
    public int voltage(String part, int channel) {
        return surroundings.level(part, channel);
    }

    /** The streams of the platform. */
    public StreamNetwork streams() {
        return streams;
    }

    /**
     * Moves a part of the board: levels of its lines, the lowest bit for the first; of voltages 12 bits each, in steps of the full
     * scale.
     */
    public void move(String part, long levels) {
        surroundings.move(part, levels, cycles);
        settle();
    }

    /** Clock of the processor in hertz. */
    public long clockHz() {
        return clockHz;
    }

    /** Cycles since reset. */
    public long cycles() {
        return cycles;
    }

    /** Seconds since reset, in the time of the simulated board. */
    public double seconds() {
        return (double) cycles / clockHz;
    }

    /** The UART that the console is on: the one that drives the console of the board, else the first. */
    public Optional<UartModel> console() {
        return Optional.ofNullable(console);
    }

    /**
     * Puts a program in and resets.
     *
     * @throws BenchException when the program does not fit the platform
     */
    public void load(ProgramImage program) {
        load(program, List.of());
    }

    /**
     * Puts a program in, and others for further processors, which run beside the first; and resets.
     *
     * @throws BenchException when a program does not fit the platform
     */
    public void load(ProgramImage program, List<ProgramImage> others) {
        List<ProgramImage> all = new ArrayList<>(List.of(program));
        all.addAll(others);
        Set<String> processors = new HashSet<>();
        for (ProgramImage each : all) {
            if (!processors.add(each.view().name())) {
                throw new BenchException(
                        "each processor runs one program, and %s has two"
                                .formatted(each.view().name()));
            }
            if (!each.fits()) {
                throw new BenchException(String.join("; ", each.problems()));
            }
        }
        image = program;
        further = List.copyOf(others);
        List<polymetron.software.Hart> besides = new ArrayList<>(view.harts());
        besides.remove(index);
        further.forEach(each -> besides.addAll(each.view().harts()));
        companions = companions(besides).toList();
        maps.connectChips(this::forgetInstructions);
        watchMemory();
        reset();
    }

    /** Looks from the next program on at what is done in memory; the bench is some times slower then. */
    public void checkMemory() {
        check = new MemoryCheck(() -> cycles, this::place);
    }

    private void watchMemory() {
        if (check == null) {
            return;
        }
        checkMemory();
        maps.keepMarks();
        check.watch(view.harts().get(index).label(), hart);
        companions.forEach(each -> check.watch(each.label(), each.hart()));
        models.forEach(
                (ref, model) -> {
                    if (model instanceof BankModel bank) {
                        bank.onClearedUnread(
                                event -> check.clearedUnread(ref.block() + " " + event));
                    }
                });
        moved.forEach((block, sides) -> sides.forEach(side -> check.watch(block, side)));
    }

    private String place(int pc) {
        return placeOf(pc).orElse(Address.format(Integer.toUnsignedLong(pc)));
    }

    /** An address in the words of the programs: symbol and source line, where they are known. */
    public Optional<String> placeOf(int pc) {
        long address = Integer.toUnsignedLong(pc);
        return Stream.concat(Stream.ofNullable(image), further.stream())
                .flatMap(each -> each.program().place(address).stream())
                .findFirst();
    }

    /** The harts that run a program, by what a person calls them. */
    public Map<String, Hart> harts() {
        Map<String, Hart> harts = new LinkedHashMap<>();
        harts.put(view.harts().get(index).label(), hart);
        companions.forEach(each -> harts.put(each.label(), each.hart()));
        return harts;
    }

    /** Whether memory is checked. */
    public boolean isChecked() {
        return check != null;
    }

    /** What was noticed in memory since power-up; empty without a memory check. */
    public List<MemoryNotice> notices() {
        return check == null ? List.of() : check.notices();
    }

    /** What other processors run. */
    public List<ProgramImage> further() {
        return further;
    }

    /** Back to power-up: memories hold the program again, everything else its reset value. */
    public void reset() {
        cycles = 0;
        wanted = 0;
        together = 0;
        toReset.clear();
        maps.clear();
        if (check != null) {
            check.reset();
        }
        if (image != null) {
            image.pieces().forEach(maps::put);
        }
        further.forEach(each -> each.pieces().forEach(maps::put));
        models.values().forEach(BlockModel::reset);
        streams.reset();
        surroundings.reset();
        hart.reset();
        companions.forEach(Companion::reset);
        settle();
    }

    /** Runs for so many cycles; an instruction that has begun by then is done. */
    public void run(long moreCycles) {
        long end = wanted + moreCycles;
        wanted = end;
        while (cycles < end) {
            if (cycles >= nextEvent) {
                settle();
            }
            if (!toReset.isEmpty()) {
                restart();
            }
            long until = Math.min(end, nextEvent);
            boolean isAlone = companions.stream().allMatch(Companion::isIdle);
            if (!isAlone) {
                until = Math.min(until, together);
            }
            if (!goOn()) {
                cycles = until;
                advanceModels(cycles);
            } else {
                long most = Math.min(LONGEST_RUN, until - cycles);
                cycles += execute((int) Math.max(1, most));
                settle();
            }
            runCompany(isAlone);
        }
    }

    /**
     * The other harts come to where the first one is: at certain times, so that it makes no difference where a run ends.
     *
     * @param wasAlone whether none of them did anything until now
     */
    private void runCompany(boolean wasAlone) {
        if (companions.isEmpty() || !wasAlone && cycles < together) {
            return;
        }
        together = (cycles / TOGETHER + 1) * TOGETHER;
        for (Companion companion : companions) {
            if (wasAlone) {
                companion.waitUntil(cycles);
            }
            try {
                companion.runTo(cycles, this::settle);
            } catch (MemoryExhausted exhausted) {
                throw new BenchException(exhausted.getMessage());
            }
        }
    }

    /** Runs one instruction, or until the next event when the hart waits. */
    public void step() {
        boolean isAlone = companions.stream().allMatch(Companion::isIdle);
        stepOnce();
        runCompany(isAlone);
        wanted = Math.max(wanted, cycles);
    }

    private void stepOnce() {
        settle();
        if (!toReset.isEmpty()) {
            restart();
            return;
        }
        long traps = hart.csrs().traps();
        if (!goOn() && nextEvent != BlockModel.NEVER) {
            cycles = nextEvent;
            settle();
            goOn();
        }
        if (hart.isWaiting() || hart.csrs().traps() != traps) {
            return;
        }
        cycles += execute(1);
        settle();
    }

    /** Wakes the hart and takes an interrupt, where there is one; false where it still waits. */
    private boolean goOn() {
        if (hart.isWaiting()) {
            if (!hart.isCalled()) {
                return false;
            }
            pass(hart.timing().wake());
        }
        if (hart.takeInterrupt()) {
            pass(hart.timing().interrupt());
        }
        return true;
    }

    /** A block has reset some domains: they begin again some cycles later; memories keep what is in them. */
    private void restart() {
        Set<String> domains = new HashSet<>(toReset);
        toReset.clear();
        // A processor that is not reset goes on meanwhile.
        cycles += domains.contains(domain) ? RESET_CYCLES : 0;
        models.forEach(
                (ref, model) -> {
                    String its = platform.blockIndex().get(ref.block()).domain(null);
                    if (domains.contains(its)) {
                        model.advance(cycles);
                        model.restart();
                    }
                });
        streams.restart(domains);
        if (domains.contains(domain)) {
            hart.restart(cycles);
        }
        companions.stream()
                .filter(each -> domains.contains(each.domain()))
                .forEach(Companion::restart);
        settle();
    }

    private void pass(int moreCycles) {
        if (moreCycles > 0) {
            cycles += moreCycles;
            settle();
        }
    }

    private int execute(int most) {
        try {
            return hart.execute(most);
        } catch (MemoryExhausted exhausted) {
            throw new BenchException(exhausted.getMessage());
        }
    }

    /** Tells what came from outside (a switch, a character) to the wires. */
    public void settle() {
        settle(cycles);
    }

    /** What happens by itself until then happens first, one time after the other. */
    private void settle(long now) {
        for (long next = nextOfAll(); next < now; next = nextOfAll()) {
            settleAt(next);
        }
        settleAt(now);
        nextEvent = nextOfAll();
    }

    private long nextOfAll() {
        long next = Math.min(streams.next(), surroundings.next());
        for (BlockModel model : models.values()) {
            next = Math.min(next, model.nextEventOfProcessor());
        }
        return next;
    }

    private void settleAt(long now) {
        advanceModels(now);
        pass(wires, hart);
        companions.forEach(each -> pass(each.wires(), each.hart()));
    }

    private static void pass(List<Wire> wires, Hart to) {
        for (Wire wire : wires) {
            if (wire.sink() != null) {
                wire.sink().setInput(wire.input(), wire.isHigh());
            } else {
                to.csrs().setLine(wire.input(), wire.isHigh());
            }
        }
    }

    /** Tells the time to what can notice it in the middle of a run. */
    private void catchUp(int done, Registers accessed) {
        hart.csrs().setCycles(cycles + done);
        if (accessed == null) {
            settle(cycles + done);
        }
        if (accessed instanceof BlockModel model) {
            model.advance(cycles + done);
        }
    }

    /** The same for another hart, which is somewhat behind the first. */
    private void catchUp(Companion companion, int done, Registers accessed) {
        companion.hart().csrs().setCycles(companion.own(done));
        if (accessed == null) {
            settle(Math.max(cycles, companion.time(done)));
        } else if (accessed instanceof BlockModel model) {
            model.advance(companion.time(done));
        }
    }

    private void advanceModels(long now) {
        hart.csrs().setCycles(now);
        try {
            streams.advance(now);
            for (BlockModel model : models.values()) {
                model.advance(now);
            }
        } catch (MemoryExhausted exhausted) {
            throw new BenchException(exhausted.getMessage());
        }
        surroundings.advance(now);
    }
}
