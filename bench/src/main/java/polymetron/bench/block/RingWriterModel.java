package polymetron.bench.block;

import java.util.Map;
import java.util.function.Function;
import polymetron.bench.hart.DirectMemory;
import polymetron.bench.stream.SinkPort;
import polymetron.bench.stream.StreamWord;
import polymetron.bench.stream.WordFifo;

/** Writes words of a stream round and round into a buffer; a word without room is lost. */
public final class RingWriterModel extends StreamModel implements MemoryMover {
    private static final long LOW = 0xFFFF_FFFFL;
    private static final int QUEUED_BURSTS = 4;

    private final int bytes;
    private final BankField run;
    private final BankField once;
    private final BankField mark;
    private final BankField round;
    private final BankField error;
    private final BankField lost;
    private final BankField base;
    private final BankField size;
    private final BankField marks;
    private final BankField rounds;
    private final SinkPort in = new SinkPort();
    private final WordFifo words;
    private final MemoryAccess access = new MemoryAccess();
    private boolean runs;
    private boolean underWay;
    private long place;
    private long sinceMark;

    RingWriterModel(RegisterBank bank, int bytes, int burst) {
        super(bank);
        this.bytes = bytes;
        words = new WordFifo(QUEUED_BURSTS * burst);
        run = bank.field("CONTROL", "RUN");
        once = bank.field("CONTROL", "ONCE");
        mark = bank.field("STATUS", "MARK");
        round = bank.field("STATUS", "ROUND");
        error = bank.field("STATUS", "ERROR");
        lost = bank.field("STATUS", "LOST");
        base = bank.field("BASE", "BYTE");
        size = bank.field("SIZE", "BYTES");
        marks = bank.field("MARK", "BYTES");
        rounds = bank.field("ROUNDS", "ROUNDS");
        bank.field("WRITTEN", "BYTES").gives(() -> place);
        clear();
    }

    @Override
    public void connect(Function<String, DirectMemory> memories) {
        access.connect(memories.apply("writes"));
    }

    @Override
    public Map<String, SinkPort> sinks() {
        return Map.of("in", in);
    }

    @Override
    public void edge() {
        StreamWord word = runs ? in.arriving() : null;
        boolean isOff = !runs && !underWay;
        boolean begins = run.isSet() && isOff;
        boolean requests = words.head() != null && !isOff;
        boolean ends = requests && access.write(address(), words.head().bytes(), null, 0);
        if (word != null && !words.isReady()) {
            lost.set(1);
            word = null;
        }
        words.edge(word, ends);
        if (isOff) {
            words.clear();
        }
        underWay = requests && !ends;
        boolean stays = runs && run.isSet();
        if (begins) {
            place = 0;
            sinceMark = 0;
            stays = true;
        } else if (ends && runs) {
            stays &= !written();
        }
        runs = stays;
    }

    private int address() {
        return (int) (base.get() + place & LOW & -bytes);
    }

    /** A word is in memory; returns whether it was the last one. */
    private boolean written() {
        if (access.hasFailed()) {
            error.set(1);
        }
        sinceMark += bytes;
        if (marks.isSet() && sinceMark >= marks.get()) {
            sinceMark = 0;
            mark.set(1);
        }
        place += bytes;
        if (place < size.get()) {
            return false;
        }
        place = 0;
        round.set(1);
        rounds.put(rounds.get() + 1 & LOW);
        if (once.isSet()) {
            run.put(0);
            return true;
        }
        return false;
    }

    @Override
    public long quietFor() {
        if (run.isSet() != runs || !words.isStill()) {
            return 0;
        }
        if (access.isUnderWay()) {
            return access.quietFor();
        }
        return words.head() != null ? 0 : FOREVER;
    }

    @Override
    public void skip(long edges) {
        if (access.isUnderWay()) {
            access.skip(edges);
        }
    }

    @Override
    public void resetStream() {
        words.clear();
        access.clear();
        runs = false;
        underWay = false;
        place = 0;
        sinceMark = 0;
        in.setReady(true);
    }
}
