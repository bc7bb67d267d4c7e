package polymetron.server.event;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * The one stream of events of one browser. Whoever has news leaves it here and goes on; a thread of the stream's own
 * sends it. So a slow reader delays no other, and of several revisions of a platform that it could not take in time
 * it gets the newest.
 */
final class BrowserStream {
    private static final long LOOK_MILLIS = 50;
    private static final long BEAT_MILLIS = 15_000;

    /** A platform and its newest revision; {@link #GONE} when it is removed. */
    record RevisionEvent(UUID platform, long revision) {}

    static final long GONE = -1;

    private final SseEmitter emitter = new SseEmitter(0L);
    private final Set<UUID> platforms;
    private final List<Topic.Watch> watches;
    private final ReentrantLock lock = new ReentrantLock();
    private final Condition something = lock.newCondition();
    private final Map<UUID, Long> waiting = new LinkedHashMap<>();
    private boolean over;

    BrowserStream(Set<UUID> platforms, List<Topic.Watch> watches) {
        this.platforms = platforms;
        this.watches = watches;
    }

    SseEmitter emitter() {
        return emitter;
    }

    boolean follows(UUID platform) {
        return platforms.contains(platform);
    }

    Set<UUID> platforms() {
        return platforms;
    }

    /** Leaves news to be sent. */
    void leave(UUID platform, long revision) {
        lock.lock();
        try {
            waiting.merge(platform, revision, BrowserStream::newer);
            something.signal();
        } finally {
            lock.unlock();
        }
    }

    private static long newer(long one, long other) {
        return one == GONE || other == GONE ? GONE : Math.max(one, other);
    }

    void end() {
        lock.lock();
        try {
            over = true;
            something.signal();
        } finally {
            lock.unlock();
        }
    }

    /** Sends until the browser has gone or {@link #end} is called. */
    void run() {
        try {
            tell("hello", Map.of());
            long quietSince = System.nanoTime();
            while (true) {
                Map<UUID, Long> news = await();
                if (news == null) {
                    completeWith(null);
                    return;
                }
                boolean[] told = {!news.isEmpty()};
                for (Map.Entry<UUID, Long> each : news.entrySet()) {
                    tellRevision(each.getKey(), each.getValue());
                }
                for (Topic.Watch watch : watches) {
                    watch.tellNews(
                            (event, data) -> {
                                told[0] = true;
                                tell(event, data);
                            });
                }
                long now = System.nanoTime();
                if (!told[0] && now - quietSince > TimeUnit.MILLISECONDS.toNanos(BEAT_MILLIS)) {
                    // Finds out about a browser that is gone, and keeps the connection open.
                    tell("beat", Map.of());
                    told[0] = true;
                }
                quietSince = told[0] ? now : quietSince;
            }
        } catch (IOException | RuntimeException gone) {
            completeWith(gone);
        } catch (InterruptedException end) {
            Thread.currentThread().interrupt();
        }
    }

    private void completeWith(Exception failure) {
        try {
            if (failure == null) {
                emitter.complete();
            } else {
                emitter.completeWithError(failure);
            }
        } catch (IllegalStateException already) {
            // The web server noticed first.
        }
    }

    private void tellRevision(UUID platform, long revision) throws IOException {
        if (revision == GONE) {
            tell("gone", Map.of("platform", platform));
        } else {
            tell("revision", new RevisionEvent(platform, revision));
        }
    }

    private void tell(String event, Object data) throws IOException {
        emitter.send(SseEmitter.event().name(event).data(data));
    }

    /** What was left, as soon as there is something or it is time to look; null when the stream is over. */
    private Map<UUID, Long> await() throws InterruptedException {
        lock.lock();
        try {
            if (waiting.isEmpty() && !over) {
                something.await(
                        watches.isEmpty() ? BEAT_MILLIS : LOOK_MILLIS, TimeUnit.MILLISECONDS);
            }
            Map<UUID, Long> news = over ? null : Map.copyOf(waiting);
            waiting.clear();
            return news;
        } finally {
            lock.unlock();
        }
    }
}
