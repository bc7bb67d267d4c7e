package polymetron.bench.block;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import polymetron.bench.hart.DirectMemory;
import polymetron.bench.stream.SinkPort;
import polymetron.bench.stream.SourcePort;
import polymetron.bench.stream.StreamElement;
import polymetron.bench.stream.StreamWord;
import polymetron.bench.stream.WordFifo;

/** One direction of a DMA, edge by edge as {@code polymetron_dma_channel}. */
final class DmaChannel {
    private static final int DONE = 1 << 31;
    private static final int FAILED = 1 << 30;
    private static final int LENGTH_BITS = FAILED - 1;

    /** Words of a descriptor, by their offset. */
    private static final int NEXT = 0;

    private static final int BUFFER = 4;
    private static final int LENGTH = 8;
    private static final int TOLD = 12;

    private enum Does {
        RESTS,
        READS_NEXT,
        READS_BUFFER,
        READS_LENGTH,
        STARTS,
        MOVES,
        TELLS,
        ENDS
    }

    private final boolean receives;
    private final int bytes;
    private final boolean hasRing;
    private final BankField run;
    private final BankField ring;
    private final BankField done;
    private final BankField error;
    private final BankField buffer;
    private final BankField length;
    private final BankField tail;
    private final SinkPort in = new SinkPort();
    private final SourcePort out = new SourcePort();
    private final WordFifo words;
    private final BurstPlan plan;
    private final MemoryAccess access = new MemoryAccess();
    private Does does;
    private boolean asked;
    private boolean fromRing;
    private boolean failed;
    private boolean leaves;
    private long place;
    private long left;

    /** Bytes of accesses that are done, and of those whose answer is known: a burst of writes has one for all. */
    private long moving;

    private long moved;

    /** Of an access that was requested, how many follow it in its burst; -1 where none was. */
    private int planned;

    private long descriptor;
    private long next;

    /**
     * @param side how its registers begin
     * @param receives whether it goes from the stream to memory
     * @param bytes bytes of a word
     * @param burst most accesses of a burst; 1 where its bus has none
     */
    DmaChannel(
            RegisterBank bank,
            String side,
            boolean receives,
            int bytes,
            int depth,
            int burst,
            boolean hasRing) {
        this.receives = receives;
        this.bytes = bytes;
        this.hasRing = hasRing;
        words = new WordFifo(depth);
        plan = new BurstPlan(burst, bytes, words, receives);
        run = bank.field(side + "_CONTROL", "RUN");
        ring = bank.field(side + "_CONTROL", "RING");
        done = bank.field(side + "_STATUS", "DONE");
        error = bank.field(side + "_STATUS", "ERROR");
        buffer = bank.field(side + "_ADDRESS", "BYTE");
        length = bank.field(side + "_LENGTH", "BYTES");
        tail = hasRing ? bank.field(side + "_TAIL", "ADDRESS") : null;
        bank.field(side + "_CONTROL", "RESET").onWritten(ones -> leave(ones != 0));
        bank.field(side + "_STATUS", "IDLE").gives(() -> isIdle() ? 1 : 0);
        length.onStored(() -> asked |= !ring.isSet());
        if (hasRing) {
            BankField first = bank.field(side + "_RING", "ADDRESS");
            first.onStored(
                    () -> {
                        descriptor = first.get();
                        failed = false;
                    });
        }
    }

    void connect(DirectMemory memory) {
        access.connect(memory);
    }

    SinkPort in() {
        return in;
    }

    SourcePort out() {
        return out;
    }

    private void leave(boolean now) {
        if (now) {
            leaves = true;
            asked = false;
            // A word that comes with it stays at its source.
            show();
        }
    }

    /** Of the access that was requested or done last, how many follow it in its burst; -1 where none does. */
    int following() {
        return planned;
    }

    /** Bytes of the transfer under way that have been moved, and a place to put them; -1 between transfers and within a burst. */
    long moved() {
        return does == Does.MOVES && planned < 0 && !failed && !leaves ? moved : -1;
    }

    void putMoved(long bytes) {
        moving = bytes;
        moved = bytes;
    }

    private boolean isIdle() {
        return does == Does.RESTS && !asked && (receives || words.held() == 0);
    }

    void edge() {
        boolean hadRoom = words.isReady();
        StreamWord head = words.head();
        StreamWord arriving = receives ? in.arriving() : null;
        boolean goes = !receives && out.isTaken();
        boolean requests =
                switch (does) {
                    case READS_NEXT, READS_BUFFER, READS_LENGTH, TELLS -> true;
                    case MOVES -> receives ? head != null : hadRoom;
                    default -> false;
                };
        int more =
                planned >= 0
                        ? planned
                        : does == Does.MOVES && requests ? plan.more(place, left) : 0;
        boolean isDone = requests && access(head, more);
        boolean isOff = leaves && (requests ? isDone && more == 0 : planned < 0);
        if (requests) {
            planned = isDone ? more - 1 : more;
        }
        switch (does) {
            case RESTS -> rest();
            case READS_NEXT, READS_BUFFER, READS_LENGTH -> {
                if (isDone) {
                    describe();
                }
            }
            case STARTS -> {
                moving = 0;
                moved = 0;
                length.put(receives ? 0 : left);
                does = left != 0 ? Does.MOVES : fromRing ? Does.TELLS : Does.ENDS;
            }
            case MOVES -> {
                if (isDone) {
                    StreamWord made = move(head, more == 0);
                    goes |= receives;
                    arriving = receives ? arriving : made;
                }
            }
            case TELLS -> {
                if (isDone) {
                    descriptor = next;
                    failed |= access.hasFailed();
                    does = Does.ENDS;
                }
            }
            case ENDS -> {
                if (!leaves) {
                    done.set(1);
                    if (failed) {
                        error.set(1);
                    }
                }
                does = Does.RESTS;
            }
        }
        if (receives) {
            plan.edge(arriving, goes ? head : null);
        }
        words.edge(arriving, goes);
        if (isOff) {
            does = Does.RESTS;
            leaves = false;
            failed = false;
            words.clear();
            plan.clear();
        }
        show();
    }

    private void show() {
        in.setReady(receives && words.isReady() && !leaves);
        out.offer(receives ? null : words.head());
    }

    private void rest() {
        fromRing = false;
        place = buffer.get();
        left = length.get();
        if (run.isSet() && asked) {
            does = Does.STARTS;
            asked = false;
            failed = false;
        } else if (hasWork()) {
            does = Does.READS_NEXT;
            fromRing = true;
        }
    }

    private boolean hasWork() {
        return run.isSet() && hasRing && ring.isSet() && descriptor != tail.get() && !failed;
    }

    private boolean access(StreamWord head, int more) {
        return switch (does) {
            case READS_NEXT -> access.read(aligned(descriptor + NEXT), bytes, 0);
            case READS_BUFFER -> access.read(aligned(descriptor + BUFFER), bytes, 0);
            case READS_LENGTH -> access.read(aligned(descriptor + LENGTH), bytes, 0);
            case TELLS -> tell();
            default ->
                    receives
                            ? access.write(aligned(place), head.bytes(), stores(head), more)
                            : access.read(aligned(place), bytes, more);
        };
    }

    private int aligned(long address) {
        return (int) (address & -bytes);
    }

    private boolean tell() {
        int told = DONE | (failed ? FAILED : 0) | (int) moved & LENGTH_BITS;
        byte[] lanes = new byte[bytes];
        boolean[] enabled = new boolean[bytes];
        int at = (int) (descriptor + TOLD & bytes - 1 & ~3);
        ByteBuffer.wrap(lanes).order(ByteOrder.LITTLE_ENDIAN).putInt(at, told);
        java.util.Arrays.fill(enabled, at, at + Integer.BYTES, true);
        return access.write(aligned(descriptor + TOLD), lanes, enabled, 0);
    }

    /** A word of a descriptor was read. */
    private void describe() {
        failed = access.hasFailed();
        if (failed) {
            does = Does.ENDS;
            return;
        }
        int offset = does == Does.READS_NEXT ? NEXT : does == Does.READS_BUFFER ? BUFFER : LENGTH;
        int at = (int) (descriptor + offset & bytes - 1 & ~3);
        long word =
                Integer.toUnsignedLong(
                        ByteBuffer.wrap(access.answer()).order(ByteOrder.LITTLE_ENDIAN).getInt(at));
        switch (does) {
            case READS_NEXT -> {
                next = word;
                does = Does.READS_BUFFER;
            }
            case READS_BUFFER -> {
                place = word;
                does = Does.READS_LENGTH;
            }
            default -> {
                left = word & length.type().ones();
                does = Does.STARTS;
            }
        }
    }

    /**
     * An access of the data is done; returns the word that goes into the stream. Behind one that could not be read the rest of its
     * burst is read, and goes nowhere.
     */
    private StreamWord move(StreamWord head, boolean endsBurst) {
        boolean wrong = failed || access.hasFailed();
        boolean isLast;
        StreamWord made = null;
        long amount;
        if (receives) {
            amount = count(stores(head));
            isLast = head.last() || amount == left;
        } else {
            amount = Math.min(left, bytes);
            isLast = left <= bytes;
            made = wrong ? null : new StreamWord(access.answer(), part(), isLast);
        }
        place = place + bytes & 0xFFFF_FFFFL;
        if (!wrong) {
            left -= amount;
            moving += amount;
            moved = receives && !endsBurst ? moved : moving;
        }
        failed = wrong;
        if (!receives || endsBurst) {
            length.put(receives ? moved : left);
        }
        if (endsBurst && (wrong || isLast)) {
            does = fromRing ? Does.TELLS : Does.ENDS;
        }
        return made;
    }

    private boolean[] part() {
        if (left >= bytes) {
            return null;
        }
        boolean[] part = new boolean[bytes];
        java.util.Arrays.fill(part, 0, (int) left, true);
        return part;
    }

    private boolean[] stores(StreamWord word) {
        boolean[] stores = new boolean[bytes];
        for (int at = 0; at < bytes; at++) {
            stores[at] = word.keeps(at) && at < left;
        }
        return stores;
    }

    private static int count(boolean[] set) {
        int count = 0;
        for (boolean each : set) {
            count += each ? 1 : 0;
        }
        return count;
    }

    long quietFor() {
        if (leaves || !words.isStill()) {
            return 0;
        }
        if (access.isUnderWay()) {
            return access.quietFor();
        }
        return switch (does) {
            case RESTS -> run.isSet() && asked || hasWork() ? 0 : StreamElement.FOREVER;
            case MOVES ->
                    (receives ? words.head() == null : !words.isReady())
                            ? StreamElement.FOREVER
                            : 0;
            default -> 0;
        };
    }

    void skip(long edges) {
        if (access.isUnderWay()) {
            access.skip(edges);
        }
    }

    void clear() {
        does = Does.RESTS;
        asked = false;
        fromRing = false;
        failed = false;
        leaves = false;
        place = 0;
        left = 0;
        moving = 0;
        moved = 0;
        planned = -1;
        descriptor = 0;
        next = 0;
        words.clear();
        plan.clear();
        access.clear();
        show();
    }
}
