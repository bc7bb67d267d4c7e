package polymetron.server.budget;

import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/**
 * How many bytes of uploads and of programs are being worked on at a time. Each byte is there several times while it is
 * read, checked and stored, so this is a good part less than the heap. Who finds no room waits for a turn, in order.
 */
@Component
public class WorkingMemory {
    private static final int UNIT = 64 * 1024;
    private static final int UNITS = (int) ((128L << 20) / UNIT);
    private static final int TURN_SECONDS = 30;

    private final Semaphore units = new Semaphore(UNITS, true);

    /** Some of it, until it is closed. */
    public interface Lease extends AutoCloseable {
        @Override
        void close();
    }

    /**
     * @param bytes as much as is read; what is more than all there is counts as all
     * @throws Busy when there was no room for half a minute
     */
    public Lease take(long bytes) {
        int wanted = Math.clamp((bytes + UNIT - 1) / UNIT, 1, UNITS);
        try {
            if (!units.tryAcquire(wanted, TURN_SECONDS, TimeUnit.SECONDS)) {
                throw new Busy("other large files are being worked on; try again in a moment");
            }
        } catch (InterruptedException end) {
            Thread.currentThread().interrupt();
            throw new Busy("the server is ending");
        }
        return () -> units.release(wanted);
    }
}
