package polymetron.server.bench;

import jakarta.annotation.Nullable;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Component;
import polymetron.bench.machine.BenchException;

/**
 * Requests that take long, by the numbers that their clients give them, so that they can be cancelled by another request: what runs in
 * the sandbox for one ends then, and nothing of it is kept.
 */
@Component
class CancellableWork {
    private final Map<UUID, Thread> running = new HashMap<>();

    /** What a request does. */
    @FunctionalInterface
    interface Work<T> {
        T run() throws InterruptedException;
    }

    /**
     * Does something on this thread.
     *
     * @param number what it is cancelled by; null for what is not cancelled
     * @throws BenchException when it was cancelled, or the number is in use
     */
    <T> T run(@Nullable UUID number, Work<T> work) {
        if (number != null) {
            begin(number);
        }
        try {
            return work.run();
        } catch (InterruptedException cancelled) {
            throw cancelled();
        } catch (UncheckedIOException failure) {
            // A file that is written to when the thread is interrupted is closed.
            throw Thread.currentThread().isInterrupted() ? cancelled() : failure;
        } finally {
            end(number);
        }
    }

    private static BenchException cancelled() {
        return new BenchException("it was cancelled");
    }

    private synchronized void begin(UUID number) {
        if (running.putIfAbsent(number, Thread.currentThread()) != null) {
            throw new BenchException("work %s is under way already".formatted(number));
        }
    }

    private synchronized void end(@Nullable UUID number) {
        running.remove(number, Thread.currentThread());
        // The thread goes on with other requests.
        Thread.interrupted();
    }

    /** Ends what runs under a number; nothing where that has ended. */
    synchronized void cancel(UUID number) {
        Thread thread = running.get(number);
        if (thread != null) {
            thread.interrupt();
        }
    }
}
