package polymetron.bench.live;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Predicate;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.GpioModel;
import polymetron.bench.block.OwnBlockModel;
import polymetron.bench.block.PwmModel;
import polymetron.bench.block.RegisterFileModel;
import polymetron.bench.check.MemoryNotice;
import polymetron.bench.hart.Trap;
import polymetron.bench.machine.BenchException;
import polymetron.bench.machine.Machine;
import polymetron.bench.stream.StreamTap;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedPort;
import polymetron.elaborate.TargetRange;
import polymetron.library.Direction;

/**
 * A machine that runs by itself at the pace of the real board, while others look at it, type, and move switches.
 * Safe for several threads: one lock guards the machine, and the running thread lets go of it many times a second.
 */
public final class LiveBench implements AutoCloseable {
    private static final long SLICE_NANOS = 5_000_000;
    private static final double SPEED_WEIGHT = 0.1;
    private static final int MOST_ROWS = 32;
    private static final int LAST_PART = 100;
    private static final int MOST_NOTICES = 50;

    private final ReentrantLock lock = new ReentrantLock(true);
    private final Machine machine;
    private final ConsoleLog console = new ConsoleLog();
    private final Map<String, Long> outside = new HashMap<>();
    private final OutsideOfBench world;
    private final Map<InterfaceRef, StreamTap> taps = new HashMap<>();
    private final Thread thread;
    private final Runnable released;
    private volatile boolean running;
    private volatile boolean closed;
    private volatile String stopped;
    private double speed;

    /**
     * @param machine with its program loaded; only the bench may use it from now on
     */
    public LiveBench(Machine machine) {
        this(machine, () -> {});
    }

    /**
     * @param released called when it is put away
     */
    public LiveBench(Machine machine, Runnable released) {
        this.machine = machine;
        this.released = released;
        this.world = new OutsideOfBench(machine);
        this.thread = Thread.ofPlatform().daemon().name("bench").unstarted(this::loop);
        thread.start();
    }

    public void run() {
        stopped = null;
        running = true;
        lock.lock();
        try {
            speed = 1;
        } finally {
            lock.unlock();
        }
        Thread.yield();
    }

    /** Nothing runs any more when this returns. */
    public void pause() {
        running = false;
        lock.lock();
        lock.unlock();
    }

    /** Pauses and executes one instruction, or lets time pass until the next event when the processor waits. */
    public void step() {
        pause();
        locked(machine::step);
    }

    /** Back to power-up; switches stay as they are. */
    public void reset() {
        stopped = null;
        locked(
                () -> {
                    machine.reset();
                    outside.forEach(machine::move);
                    world.begin();
                    machine.settle();
                });
    }

    @Override
    public void close() {
        closed = true;
        thread.interrupt();
        released.run();
        machine.close();
    }

    private void locked(Runnable action) {
        lock.lock();
        try {
            action.run();
            machine.console().ifPresent(uart -> console.append(uart.takeSent()));
        } finally {
            lock.unlock();
        }
    }

    private void loop() {
        long debtNanos = 0;
        long before = System.nanoTime();
        while (!closed) {
            try {
                if (!running) {
                    Thread.sleep(10);
                    before = System.nanoTime();
                    debtNanos = 0;
                    continue;
                }
                long now = System.nanoTime();
                // A machine that cannot keep up runs as fast as it can, and does not try to catch
                // up later.
                debtNanos = Math.min(debtNanos + now - before, 4 * SLICE_NANOS);
                long wall = now - before;
                before = now;
                long slice = Math.min(debtNanos, SLICE_NANOS);
                if (slice < SLICE_NANOS / 2) {
                    Thread.sleep(2);
                    continue;
                }
                debtNanos -= slice;
                long cycles = (long) (machine.clockHz() * (slice / 1e9));
                locked(() -> runUnlessPaused(Math.max(1, cycles)));
                speed += SPEED_WEIGHT * ((double) slice / Math.max(wall, slice) - speed);
            } catch (BenchException impossible) {
                stopped = impossible.getMessage();
                running = false;
            } catch (InterruptedException end) {
                return;
            } catch (RuntimeException | OutOfMemoryError defect) {
                // The thread goes on, so that the bench can be reset or loaded anew.
                stopped = "the bench itself failed: " + defect;
                running = false;
            }
        }
    }

    /** With the lock held, since it may have been paused after the slice was planned. */
    private void runUnlessPaused(long cycles) {
        if (!running) {
            return;
        }
        machine.run(cycles);
        if (machine.isStuck()) {
            // What it was sending still goes out, and then nothing more can come.
            machine.run(machine.clockHz() / LAST_PART);
            stopped = machine.lastTrap();
            running = false;
        }
    }

    /** Characters typed at the console. */
    public void type(String text) {
        locked(
                () ->
                        machine.console()
                                .ifPresent(
                                        uart -> {
                                            uart.arrive(text.getBytes(StandardCharsets.UTF_8));
                                            machine.settle();
                                        }));
    }

    /**
     * What the console said.
     *
     * @param end characters said since the program was loaded, up to the end of the bytes
     */
    public record Said(byte[] bytes, long end) {}

    /** What the console said after so many characters. */
    public Said consoleSince(long position) {
        lock.lock();
        try {
            return new Said(console.since(position), console.total());
        } finally {
            lock.unlock();
        }
    }

    /**
     * Sets the level that a board part puts on one of its lines.
     *
     * @throws BenchException when no block is on the part, or the part has no such line or does not drive it
     */
    public void setLine(String part, int line, boolean high) {
        OutwardLink link =
                links().stream()
                        .filter(each -> each.part().name().equals(part))
                        .findFirst()
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "no block is on board part %s".formatted(part)));
        if (link.form().ports().getFirst().direction() == Direction.OUT) {
            throw new BenchException(
                    "%s is driven by the platform; it cannot be moved by hand".formatted(part));
        }
        BlockModel moved = machine.model(link.block().name()).orElse(null);
        if (!(moved instanceof GpioModel || moved instanceof OwnBlockModel)) {
            throw new BenchException(
                    "%s has no lines that are moved by hand: it is on %s"
                            .formatted(part, link.block().name()));
        }
        world.requireFree(part);
        int width = link.form().ports().getFirst().width();
        if (line < 0 || line >= width) {
            throw new BenchException(
                    "%s has lines 0 to %s, not %s".formatted(part, width - 1, line));
        }
        locked(
                () -> {
                    long before = outside.getOrDefault(part, 0L);
                    long levels = high ? before | 1L << line : before & ~(1L << line);
                    outside.put(part, levels);
                    machine.move(part, levels);
                });
    }

    /**
     * Sets the voltage at a part of the board that a block measures.
     *
     * @throws BenchException when no block does, or it does not measure as much
     */
    public void setVoltage(String part, int channel, double volts) {
        locked(() -> world.setVoltage(part, channel, volts));
    }

    /**
     * Begins a signal at a converter.
     *
     * @param shape one of those that the state lists
     * @throws BenchException when there is no converter, or no such shape
     */
    public void setSignal(String part, String shape) {
        locked(() -> world.setSignal(part, shape));
    }

    /**
     * Begins samples of a table at a converter: a row for each sample, a column for each channel.
     *
     * @throws BenchException when there is no converter, or the table is none of its samples
     */
    public void setSamples(String part, String table) {
        locked(() -> world.setSamples(part, table));
    }

    /**
     * Lets a receiver see its satellites, or not.
     *
     * @throws BenchException when no block is on it
     */
    public void setReception(String part, boolean on) {
        locked(() -> world.setReception(part, on));
    }

    /**
     * Lets something around the board act, or not: while it does, its parts cannot be moved otherwise.
     *
     * @param kind its kind, as the board says it
     * @throws BenchException when there is no such thing
     */
    public void setActing(String kind, boolean on) {
        locked(() -> world.setActing(kind, on));
    }

    /**
     * Words that went through a stream.
     *
     * @param end words since the first call, up to the last of them
     */
    public record Streamed(List<StreamTap.Word> words, long end) {}

    /**
     * The words that went through a stream after so many; from the first call on they are kept.
     *
     * @throws BenchException when there is no such source
     */
    public Streamed streamSince(InterfaceRef source, long first) {
        lock.lock();
        try {
            if (!machine.streams().sources().contains(source)) {
                throw new BenchException("there is no stream source %s".formatted(source));
            }
            StreamTap tap =
                    taps.computeIfAbsent(
                            source,
                            each -> {
                                StreamTap made = new StreamTap();
                                machine.streams().tap(each, made);
                                return made;
                            });
            return new Streamed(tap.since(first), tap.count());
        } finally {
            lock.unlock();
        }
    }

    /** A stream that can be looked at, and the bits of its samples; 0 where its words are no samples. */
    public record StreamSource(InterfaceRef source, int sampleBits) {}

    /** The streams of the platform that the bench has. */
    public List<StreamSource> streams() {
        return machine.platform().streams().stream()
                .filter(link -> machine.streams().sources().contains(link.ref()))
                .map(link -> new StreamSource(link.ref(), link.carries().sampleWidth()))
                .toList();
    }

    private List<OutwardLink> links() {
        return machine.platform().outward().stream().filter(link -> link.part() != null).toList();
    }

    private static long driven(BlockModel model, SizedPort port) {
        return model instanceof OwnBlockModel own
                ? own.level(port.name())
                : Integer.toUnsignedLong(((GpioModel) model).driven());
    }

    public BenchState state() {
        lock.lock();
        try {
            List<BenchState.PartLevel> parts = new ArrayList<>();
            for (OutwardLink link : links()) {
                BlockModel model = machine.model(link.block().name()).orElse(null);
                if (model instanceof GpioModel || model instanceof OwnBlockModel) {
                    SizedPort port = link.form().ports().getFirst();
                    long levels =
                            port.direction() == Direction.OUT
                                    ? driven(model, port)
                                    : machine.levels(link.part().name());
                    parts.add(
                            new BenchState.PartLevel(
                                    link.part().name(),
                                    link.block().name(),
                                    link.form().ports().getFirst().width(),
                                    levels,
                                    List.of()));
                } else if (machine.model(link.block().name()).orElse(null)
                        instanceof PwmModel pwm) {
                    parts.add(pulses(link, pwm));
                }
            }
            boolean trapped = machine.hart().csrs().traps() > 0;
            return new BenchState(
                    running ? BenchState.Mode.RUNNING : BenchState.Mode.PAUSED,
                    machine.cycles(),
                    machine.seconds(),
                    running ? speed : 0,
                    Integer.toUnsignedLong(machine.hart().pc()),
                    harts(),
                    machine.hart().isWaiting(),
                    machine.hart().csrs().traps(),
                    trapped ? Trap.words(machine.hart().csrs().lastCause()) : null,
                    stopped,
                    console.total(),
                    parts,
                    machine.isChecked()
                            ? machine.notices().stream()
                                    .limit(MOST_NOTICES)
                                    .map(MemoryNotice::text)
                                    .toList()
                            : null,
                    world.state());
        } finally {
            lock.unlock();
        }
    }

    private List<BenchState.HartState> harts() {
        List<BenchState.HartState> harts = new ArrayList<>();
        machine.harts()
                .forEach(
                        (label, hart) ->
                                harts.add(
                                        new BenchState.HartState(
                                                label,
                                                Integer.toUnsignedLong(hart.pc()),
                                                machine.placeOf(hart.pc()).orElse(null),
                                                hart.isWaiting())));
        return harts;
    }

    /** A line that is high all the time has that level; any other is low, with its part of the time beside it. */
    private static BenchState.PartLevel pulses(OutwardLink link, PwmModel pwm) {
        int width = link.form().ports().getFirst().width();
        List<Double> pulses = new ArrayList<>();
        long levels = 0;
        for (int line = 0; line < width; line++) {
            double part = pwm.part(line);
            pulses.add(part);
            levels |= part >= 1 ? 1L << line : 0;
        }
        return new BenchState.PartLevel(
                link.part().name(), link.block().name(), width, levels, pulses);
    }

    /** General-purpose registers of the processor, x0 to x31. */
    public List<Long> processorRegisters() {
        lock.lock();
        try {
            List<Long> values = new ArrayList<>();
            for (int number = 0; number < 32; number++) {
                values.add(Integer.toUnsignedLong(machine.hart().register(number)));
            }
            return values;
        } finally {
            lock.unlock();
        }
    }

    /**
     * The registers of a block, without the effects that reading has; of long rows only the first.
     *
     * @throws BenchException when there is no such block, or it has no registers on the bench
     */
    public List<RegisterValue> registers(String block) {
        TargetRange target = target(block);
        BlockModel model = model(target);
        List<RegisterValue> values = new ArrayList<>();
        lock.lock();
        try {
            if (!running) {
                machine.settle();
            }
            for (Register register : target.registers()) {
                for (int index = 0; index < Math.min(register.count(), MOST_ROWS); index++) {
                    long offset = register.offset() + (long) index * register.stride();
                    values.add(
                            new RegisterValue(
                                    block,
                                    register.name(),
                                    index,
                                    target.range().base() + offset,
                                    register.width(),
                                    model.isThere(register.name()),
                                    model.canPeek()
                                                    && model.isThere(register.name())
                                                    && register.access().readable()
                                            ? peek(model, (int) offset, register.width())
                                            : null));
                }
            }
        } finally {
            lock.unlock();
        }
        return values;
    }

    private static long peek(BlockModel model, int offset, int width) {
        long low = Integer.toUnsignedLong(model.peek(offset & ~3));
        if (width == 64) {
            return low | (long) model.peek(offset + 4) << 32;
        }
        long shifted = low >>> 8 * (offset & 3);
        return width >= 32 ? shifted : shifted & (1L << width) - 1;
    }

    /**
     * Writes a register as software would, with the effects that writing has.
     *
     * @throws BenchException when there is no such register, or it cannot be written
     */
    public void write(String block, String name, int index, long value) {
        TargetRange target = target(block);
        BlockModel model = model(target);
        Register register =
                target.registers().stream()
                        .filter(each -> each.name().equals(name))
                        .findFirst()
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "%s has no register %s".formatted(block, name)));
        if (!register.access().writable()) {
            throw new BenchException("%s of %s is read-only".formatted(name, block));
        }
        if (index < 0 || index >= register.count()) {
            throw new BenchException(
                    "%s of %s has no number %s".formatted(name, block, index + register.first()));
        }
        if (register.width() < 64 && value >>> register.width() != 0) {
            throw new BenchException(
                    "%s of %s has %s bits; 0x%X does not fit"
                            .formatted(name, block, register.width(), value));
        }
        int offset = (int) (register.offset() + (long) index * register.stride());
        locked(
                () -> {
                    machine.settle();
                    if (!model.isThere(name)) {
                        throw new BenchException(
                                "%s of %s is only there when %s"
                                        .formatted(name, block, register.condition()));
                    }
                    if (register.width() == 64) {
                        model.write(offset, (int) value, -1);
                        model.write(offset + 4, (int) (value >>> 32), -1);
                    } else {
                        int shift = 8 * (offset & 3);
                        int mask =
                                (register.width() == 32 ? -1 : (1 << register.width()) - 1)
                                        << shift;
                        model.write(offset & ~3, (int) value << shift, mask);
                    }
                    machine.settle();
                });
    }

    private BlockModel model(TargetRange target) {
        return machine.model(target.ref())
                .orElseThrow(
                        () ->
                                new BenchException(
                                        "there are no registers of %s on the bench"
                                                .formatted(target.label())));
    }

    private TargetRange target(String label) {
        return machine.view().devices().stream()
                .filter(target -> target.label().equals(label))
                .findFirst()
                .orElseThrow(
                        () ->
                                new BenchException(
                                        "%s does not reach registers of %s"
                                                .formatted(machine.view().name(), label)));
    }

    /** Name of the processor that runs. */
    public String processor() {
        return machine.view().name();
    }

    /** Names of the processors that run programs of their own beside it. */
    public List<String> beside() {
        return machine.further().stream().map(image -> image.view().name()).toList();
    }

    /** What the processor reaches of which the bench keeps the registers but does nothing else. */
    public List<String> passiveBlocks() {
        return labels(model -> model instanceof RegisterFileModel);
    }

    /** The users' blocks that the processor reaches and whose Verilog runs. */
    public List<String> verilogBlocks() {
        return labels(model -> model instanceof OwnBlockModel);
    }

    /** What the processor reaches that has registers on the bench. */
    public List<String> blocksWithRegisters() {
        return labels(model -> true);
    }

    private List<String> labels(Predicate<BlockModel> which) {
        return machine.view().devices().stream()
                .filter(target -> machine.model(target.ref()).filter(which).isPresent())
                .map(TargetRange::label)
                .toList();
    }
}
