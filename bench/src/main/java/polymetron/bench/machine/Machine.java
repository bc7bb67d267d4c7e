package polymetron.bench.machine;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.BlockModels;
import polymetron.bench.block.UartModel;
import polymetron.bench.hart.BusMap;
import polymetron.bench.hart.Hart;
import polymetron.bench.hart.Memory;
import polymetron.bench.hart.MemoryExhausted;
import polymetron.bench.hart.PagedRam;
import polymetron.bench.hart.Ram;
import polymetron.bench.hart.Registers;
import polymetron.bench.hart.Trap;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.TargetRange;
import polymetron.handoff.SoftwareView;
import polymetron.image.LoadedPiece;
import polymetron.image.ProgramImage;
import polymetron.library.Kind;
import polymetron.serial.Uart;

/**
 * A platform that runs: a hart, memories and block models behind the platform's own address maps. Everything
 * follows from the program and from what is put in at which cycle, so a run can be repeated exactly. Not safe for
 * several threads.
 */
public final class Machine {
    /** Larger memories come into being page by page. */
    private static final long LARGEST_WHOLE = 16L << 20;

    private static final long MOST_TOUCHED = 128L << 20;
    private static final int LONGEST_RUN = 1 << 20;

    private final ElaboratedPlatform platform;
    private final SoftwareView view;
    private final Map<String, BlockModel> models = new LinkedHashMap<>();
    private final Map<String, Memory> memories = new LinkedHashMap<>();
    private final List<Wire> wires = new ArrayList<>();
    private final Hart hart;
    private final long clockHz;
    private final UartModel console;
    private ProgramImage image;
    private long cycles;
    private long nextEvent;

    /**
     * @throws BenchException when the platform has nothing that could run
     */
    public Machine(ElaboratedPlatform platform) {
        this.platform = platform;
        this.view = SoftwareView.of(platform);
        if (view.processor() == null) {
            throw new BenchException(
                    "the platform has no processor with a data side on a bus; add one");
        }
        for (ElaboratedBlock block : platform.blocks()) {
            BlockModels.create(platform, block).ifPresent(model -> models.put(block.name(), model));
        }
        ElaboratedBlock processor = view.processor();
        BusMap data = map(processor, false);
        // A processor with one side for both fetches where it loads and stores.
        boolean apart =
                platform.spaces().stream()
                        .anyMatch(
                                space ->
                                        space.initiator().block() == processor
                                                && space.initiator().fetches());
        BusMap fetch = apart ? map(processor, true) : data;
        this.hart =
                new Hart(
                        fetch,
                        data,
                        view.hasMultiplier(),
                        (int) processor.shape().number("RESET_VECTOR"),
                        (int) processor.shape().number("TRAP_VECTOR"),
                        (int) processor.shape().number("HART_ID"));
        this.console = findConsole();
        this.clockHz = Math.max(1, platform.frequencyHz(processor));
        hart.onProgress(this::catchUp);
        processor
                .shape()
                .interrupt("local")
                .ifPresent(local -> hart.csrs().addLocalLines(local.count()));
        platform.interrupts().forEach(this::addWire);
        reset();
    }

    private BusMap map(ElaboratedBlock processor, boolean fetches) {
        List<BusMap.Entry> entries = new ArrayList<>();
        for (AddressSpace space : platform.spaces()) {
            if (space.initiator().block() == processor && space.initiator().fetches() == fetches) {
                for (TargetRange target : space.ranges()) {
                    add(entries, target);
                }
            }
        }
        return new BusMap(entries);
    }

    private void add(List<BusMap.Entry> entries, TargetRange target) {
        if (Long.compareUnsigned(target.range().last(), 0xFFFF_FFFFL) > 0) {
            return;
        }
        int base = (int) target.range().base();
        int last = (int) target.range().last();
        if (target.form().isMemory()) {
            entries.addAll(memory(target).at(base, last));
        } else if (models.containsKey(target.block().name())) {
            entries.add(new BusMap.Entry(base, last, models.get(target.block().name())));
        }
    }

    private Memory memory(TargetRange target) {
        long size = target.form().sizeBytes();
        boolean writable = target.form().isWritable();
        // By block: a memory with several ports is one memory.
        return memories.computeIfAbsent(
                target.block().name(),
                ref ->
                        size <= LARGEST_WHOLE
                                ? new Ram((int) size, writable)
                                : new PagedRam(size, writable, MOST_TOUCHED));
    }

    private void addWire(InterruptLink link) {
        BlockModel source = models.get(link.block().name());
        if (source == null || !link.isConnected() || !link.sink().hasInput(link.wire().input())) {
            return;
        }
        if (link.sinkBlock().kind() == Kind.PROCESSOR) {
            int line =
                    switch (link.sink().type().line()) {
                        case "software" -> Trap.SOFTWARE_LINE;
                        case "timer" -> Trap.TIMER_LINE;
                        case "device" ->
                                link.sink().name().equals("local")
                                        ? link.wire().input()
                                        : Trap.EXTERNAL_LINE;
                        default -> Trap.EXTERNAL_LINE;
                    };
            wires.add(new Wire(source, link.source().name(), null, line));
        } else if (models.containsKey(link.wire().block())) {
            // Wires into controllers come first, so that one pass settles them all.
            wires.addFirst(
                    new Wire(
                            source,
                            link.source().name(),
                            models.get(link.wire().block()),
                            link.wire().input()));
        }
    }

    public ElaboratedPlatform platform() {
        return platform;
    }

    public Hart hart() {
        return hart;
    }

    /** The model of a block. */
    public Optional<BlockModel> model(String block) {
        return Optional.ofNullable(models.get(block));
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

    private UartModel findConsole() {
        List<ElaboratedBlock> uarts =
                platform.blocks().stream()
                        .filter(block -> models.get(block.name()) instanceof UartModel)
                        .toList();
        return uarts.stream()
                .filter(block -> Uart.drivesConsole(platform, block))
                .findFirst()
                .or(() -> uarts.stream().findFirst())
                .map(block -> (UartModel) models.get(block.name()))
                .orElse(null);
    }

    /**
     * Puts a program in and resets.
     *
     * @throws BenchException when the program does not fit the platform
     */
    public void load(ProgramImage program) {
        if (!program.fits()) {
            throw new BenchException(String.join("; ", program.problems()));
        }
        if (program.program().isCompressed()) {
            throw new BenchException(
                    "the bench runs no compressed instructions; compile with -march=rv32im_zicsr to"
                            + " try the program here");
        }
        image = program;
        reset();
    }

    /** Back to power-up: memories hold the program again, everything else its reset value. */
    public void reset() {
        cycles = 0;
        memories.values().forEach(Memory::clear);
        if (image != null) {
            image.pieces().forEach(this::put);
        }
        models.values().forEach(BlockModel::reset);
        hart.reset();
        settle();
    }

    /** Runs for so many cycles, exactly. */
    public void run(long moreCycles) {
        long end = cycles + moreCycles;
        while (cycles < end) {
            if (cycles >= nextEvent) {
                settle();
            }
            hart.takeInterrupt();
            if (hart.isWaiting()) {
                cycles = Math.min(end, nextEvent);
                advanceModels();
                continue;
            }
            long most = Math.min(LONGEST_RUN, Math.min(end, nextEvent) - cycles);
            cycles += execute((int) Math.max(1, most));
            settle();
        }
    }

    /** Runs one instruction, or until the next event when the hart waits. */
    public void step() {
        settle();
        if (hart.takeInterrupt()) {
            return;
        }
        if (hart.isWaiting()) {
            if (nextEvent != BlockModel.NEVER) {
                cycles = nextEvent;
                settle();
                hart.takeInterrupt();
            }
            return;
        }
        cycles += execute(1);
        settle();
    }

    private void put(LoadedPiece piece) {
        try {
            memories.get(piece.memory().block().name()).load(piece.offset(), piece.bytes());
        } catch (MemoryExhausted exhausted) {
            throw new BenchException(exhausted.getMessage());
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
        advanceModels();
        // Several wires may share a line of the hart: it is high when one of them is.
        int high = 0;
        int wired = 0;
        for (Wire wire : wires) {
            boolean raised = wire.source().interrupt(wire.name());
            if (wire.sink() != null) {
                wire.sink().setInput(wire.input(), raised);
            } else {
                wired |= 1 << wire.input();
                high |= raised ? 1 << wire.input() : 0;
            }
        }
        for (int lines = wired; lines != 0; lines &= lines - 1) {
            int line = Integer.numberOfTrailingZeros(lines);
            hart.csrs().setLine(line, (high & 1 << line) != 0);
        }
        nextEvent = BlockModel.NEVER;
        for (BlockModel model : models.values()) {
            nextEvent = Math.min(nextEvent, model.nextEvent());
        }
    }

    /** Tells the time to what can notice it in the middle of a run. */
    private void catchUp(int done, Registers accessed) {
        hart.csrs().setCycles(cycles + done);
        if (accessed instanceof BlockModel model) {
            model.advance(cycles + done);
        }
    }

    private void advanceModels() {
        hart.csrs().setCycles(cycles);
        for (BlockModel model : models.values()) {
            model.advance(cycles);
        }
    }
}
