package polymetron.bench.hart;

import java.util.concurrent.atomic.AtomicLong;

/**
 * What one bench has taken of the memory that all benches of a process share, for the memories of its board and for what
 * is decoded of the instructions in them. It grows as the board's memories are touched; closing gives all of it back.
 */
public final class MemoryShare implements AutoCloseable {
    /** What all benches may take together. */
    public static final class Pool {
        private final long bytes;
        private final AtomicLong left;

        /**
         * @param bytes as much as all may take
         */
        public Pool(long bytes) {
            this.bytes = bytes;
            this.left = new AtomicLong(bytes);
        }

        public MemoryShare share() {
            return new MemoryShare(this);
        }

        /** Bytes that are not taken. */
        public long left() {
            return left.get();
        }
    }

    private final Pool pool;
    private long taken;
    private boolean closed;

    private MemoryShare(Pool pool) {
        this.pool = pool;
    }

    /** A share of a pool of its own that is hardly ever empty, for a process that does nothing else. */
    public static MemoryShare ample() {
        return new Pool(Long.MAX_VALUE).share();
    }

    /**
     * @throws MemoryExhausted when the pool has no more; then nothing is taken
     */
    synchronized void take(long bytes) {
        if (closed) {
            throw new MemoryExhausted("the bench is put away");
        }
        if (pool.left.addAndGet(-bytes) < 0) {
            pool.left.addAndGet(bytes);
            throw new MemoryExhausted(
                    "the memories that programs use on the benches here come to more than the %s"
                                    .formatted(pool.bytes >> 20)
                            + " MiB there are for them; put another bench away");
        }
        taken += bytes;
    }

    @Override
    public synchronized void close() {
        closed = true;
        pool.left.addAndGet(taken);
        taken = 0;
    }
}
