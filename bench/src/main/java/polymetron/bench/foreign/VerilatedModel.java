package polymetron.bench.foreign;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import polymetron.bench.block.MemoryMover;
import polymetron.bench.block.OwnBlockModel;
import polymetron.bench.hart.DirectMemory;
import polymetron.bench.machine.BenchException;
import polymetron.output.hardware.BlockHarness;
import polymetron.output.hardware.BlockHarness.Line;

/**
 * A user's block on the bench: its Verilog itself, stepped in a process of its own. It is as far as the processor at
 * each access. What it does by itself in between is noticed at the next step: as soon as 64 cycles later, and after a while without
 * a change as late as 4096; the same run always notices it at the same cycle.
 */
public class VerilatedModel extends OwnBlockModel implements MemoryMover {
    private static final int RUN = 0;
    private static final int ACCESS = 1;
    private static final int SET = 2;
    private static final int RESET = 3;
    private static final int STEP = 4;
    static final int SOONEST = 64;
    static final int LATEST = 4096;

    /** Cycles of one request: a large block takes far less than the patience for an answer. */
    static final int MOST_AT_ONCE = 1 << 15;

    private static final int BYTES = 0xF;

    private final String name;
    private final StepperProcess process;
    private final BlockHarness harness;
    private final List<ServedInitiator> initiators;
    private final long[] inputs;
    private long[] outputs;

    /** Cycles that the block is at. */
    private long done;

    private int pace = SOONEST;
    private boolean ended;

    VerilatedModel(String name, StepperProcess process, BlockHarness harness) {
        this.name = name;
        this.process = process;
        this.harness = harness;
        this.initiators = harness.initiators().stream().map(ServedInitiator::new).toList();
        this.inputs = new long[harness.inputs().size()];
        this.outputs = new long[harness.outputs().size()];
    }

    /** Goes through a request of {@code stepper.cpp}. */
    final StepperProcess.Answer ask(int... words) {
        StepperProcess.Answer answer = process.ask(words);
        done += answer.cycles();
        ended |= answer.hasEnded();
        if (!java.util.Arrays.equals(outputs, answer.outputs())) {
            outputs = answer.outputs();
            pace = SOONEST;
        }
        return answer;
    }

    @Override
    public void connect(Function<String, DirectMemory> memories) {
        initiators.forEach(each -> each.connect(memories.apply(each.name())));
    }

    /** Lets at most so many cycles pass, until something that it drives has changed; returns how many have. */
    final StepperProcess.Answer forward(int cycles) {
        long quiet = cycles;
        for (ServedInitiator each : initiators) {
            quiet = Math.min(quiet, each.quietFor(outputs));
        }
        if (quiet <= 0) {
            return step(new ArrayList<>(), new ArrayList<>());
        }
        long[] before = outputs;
        StepperProcess.Answer answer = ask(RUN, (int) quiet);
        initiators.forEach(each -> each.skip(before, answer.cycles()));
        return answer;
    }

    /**
     * Does one edge.
     *
     * @param set inputs of the cycle before it, each as number and both words of its value
     * @param cleared numbers of inputs that are 0 again behind it
     */
    final StepperProcess.Answer step(List<Integer> set, List<Integer> cleared) {
        initiators.forEach(each -> each.edge(outputs, set, cleared));
        List<Integer> request = new ArrayList<>(List.of(STEP, set.size() / 3));
        request.addAll(set);
        request.add(cleared.size());
        request.addAll(cleared);
        return ask(request.stream().mapToInt(Integer::intValue).toArray());
    }

    @Override
    protected void run() {
        while (done < now() && !ended) {
            int cycles = (int) Math.min(now() - done, MOST_AT_ONCE);
            int before = pace;
            forward(cycles);
            if (pace == before) {
                pace = Math.min(LATEST, 2 * pace);
            }
        }
    }

    @Override
    public long nextEvent() {
        return outputs.length == 0 || ended ? NEVER : Math.max(done, now()) + pace;
    }

    @Override
    protected void clear() {
        done = 0;
        pace = SOONEST;
        ended = false;
        initiators.forEach(ServedInitiator::clear);
        ask(RESET);
        done = 0;
    }

    @Override
    protected void powerUp() {
        for (int at = 0; at < inputs.length; at++) {
            put(at, inputs[at]);
        }
    }

    @Override
    public final int read(int offset) {
        return access(0, offset, 0, BYTES).value();
    }

    @Override
    public final void write(int offset, int value, int mask) {
        int bytes = 0;
        for (int lane = 0; lane < Integer.BYTES; lane++) {
            bytes |= (mask >>> 8 * lane & 0xFF) != 0 ? 1 << lane : 0;
        }
        access(1, offset, value, bytes);
    }

    private StepperProcess.Answer access(int write, int offset, int value, int bytes) {
        pace = SOONEST;
        beforeAccess();
        long[] before = outputs;
        StepperProcess.Answer answer = ask(ACCESS, write, offset & ~3, value, bytes);
        initiators.forEach(each -> each.skip(before, answer.cycles()));
        accessed(answer.cycles());
        if (answer.isSilent()) {
            throw new BenchException(
                    "%s does not answer %s of offset 0x%X: a processor would wait forever"
                            .formatted(name, write == 1 ? "a write" : "a read", offset));
        }
        return answer;
    }

    /** An access comes. */
    void beforeAccess() {}

    /**
     * An access is done.
     *
     * @param cycles that it took the block
     */
    void accessed(int cycles) {}

    /** Reading may do something: what a register has is not known without. */
    @Override
    public boolean canPeek() {
        return false;
    }

    @Override
    public boolean interrupt(String source) {
        return level(source) != 0;
    }

    @Override
    public long level(String port) {
        List<Line> lines = harness.outputs();
        for (int at = 0; at < lines.size(); at++) {
            String its = lines.get(at).name();
            if (its.equals(port) || its.equals(port + "__") || its.equals(port + "_out")) {
                return outputs[at];
            }
        }
        return 0;
    }

    @Override
    public String clock() {
        return harness.clocks().stepped().name();
    }

    @Override
    public void set(String port, long levels) {
        List<Line> lines = new ArrayList<>(harness.inputs());
        for (int at = 0; at < lines.size(); at++) {
            String its = lines.get(at).name();
            if (its.equals(port) || its.equals(port + "__") || its.equals(port + "_in")) {
                inputs[at] = levels;
                put(at, levels);
            }
        }
    }

    /** What it drives, by the numbers of the harness. */
    final long output(int number) {
        return outputs[number];
    }

    final BlockHarness harness() {
        return harness;
    }

    private void put(int input, long levels) {
        ask(SET, input, (int) levels, (int) (levels >>> 32));
    }

    @Override
    public void close() {
        process.close();
    }
}
