package polymetron.server.event;

import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import polymetron.server.budget.Busy;
import polymetron.server.store.PlatformStore;

/** The streams of events of this server's browsers, and what is told on them. */
@Component
class BrowserStreams {
    private static final int MOST = 4000;

    private final Set<BrowserStream> streams = ConcurrentHashMap.newKeySet();
    private final PlatformStore store;

    BrowserStreams(PlatformStore store) {
        this.store = store;
    }

    /**
     * A stream that begins with the newest revision of each platform, so that nothing falls between what the browser
     * has read and what it hears.
     */
    SseEmitter open(Set<UUID> platforms, List<Topic.Watch> watches) {
        if (streams.size() >= MOST) {
            throw new Busy(
                    "this server has as many streams of events as it can keep; try again later");
        }
        BrowserStream stream = new BrowserStream(platforms, watches);
        SseEmitter emitter = stream.emitter();
        Runnable leave =
                () -> {
                    streams.remove(stream);
                    stream.end();
                };
        emitter.onCompletion(leave);
        emitter.onTimeout(leave);
        emitter.onError(error -> leave.run());
        streams.add(stream);
        try {
            leaveNewest(List.of(stream));
        } catch (RuntimeException unread) {
            leave.run();
            throw unread;
        }
        Thread.ofVirtual().name("browser-stream").start(stream::run);
        return emitter;
    }

    void tell(UUID platform, long revision) {
        for (BrowserStream stream : streams) {
            if (stream.follows(platform)) {
                stream.leave(platform, revision);
            }
        }
    }

    /** After a time without a connection to the database: what happened meanwhile is sent now. */
    void tellNewest() {
        leaveNewest(new ArrayList<>(streams));
    }

    private void leaveNewest(List<BrowserStream> to) {
        Set<UUID> all =
                to.stream()
                        .flatMap(stream -> stream.platforms().stream())
                        .collect(Collectors.toSet());
        if (all.isEmpty()) {
            return;
        }
        Map<UUID, Long> newest = store.newest(all);
        for (BrowserStream stream : to) {
            stream.platforms()
                    .forEach(id -> stream.leave(id, newest.getOrDefault(id, BrowserStream.GONE)));
        }
    }

    @PreDestroy
    void close() {
        streams.forEach(BrowserStream::end);
    }
}
