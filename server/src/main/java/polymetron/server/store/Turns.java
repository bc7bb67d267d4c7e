package polymetron.server.store;

import java.util.UUID;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import polymetron.server.budget.Busy;

/**
 * Changes of one platform take turns before they go to the database. There they would as well, but each that waits
 * there has one of the few connections, and many editors of one platform would keep all others out.
 */
@Component
public class Turns {
    private static final int STRIPES = 64;
    private static final int TURN_SECONDS = 20;

    private final ReentrantLock[] locks = new ReentrantLock[STRIPES];

    public Turns() {
        for (int at = 0; at < STRIPES; at++) {
            locks[at] = new ReentrantLock(true);
        }
    }

    /**
     * @throws Busy when others had the platform for too long
     */
    public <T> T in(UUID platform, Supplier<T> change) {
        ReentrantLock lock = locks[Math.floorMod(platform.hashCode(), STRIPES)];
        try {
            if (!lock.tryLock(TURN_SECONDS, TimeUnit.SECONDS)) {
                throw new Busy(
                        "many others change this platform; the change is not stored, try again in"
                                + " a moment");
            }
        } catch (InterruptedException end) {
            Thread.currentThread().interrupt();
            throw new Busy("the server is ending; the change is not stored");
        }
        try {
            return change.get();
        } finally {
            lock.unlock();
        }
    }
}
