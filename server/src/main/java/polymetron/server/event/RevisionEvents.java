package polymetron.server.event;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import org.postgresql.PGConnection;
import org.postgresql.PGNotification;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import polymetron.server.store.PlatformStore;

/**
 * Tells browsers about new revisions. The database tells every server, whichever of them stored the revision, and
 * each server tells its own browsers.
 */
@Component
public class RevisionEvents {
    private static final Logger LOG = LoggerFactory.getLogger(RevisionEvents.class);
    private static final int WAIT_MILLIS = 1000;

    private final String url;
    private final String user;
    private final String password;
    private final Map<UUID, List<SseEmitter>> listeners = new ConcurrentHashMap<>();
    private volatile boolean closed;

    public RevisionEvents(
            @Value("${spring.datasource.url}") String url,
            @Value("${spring.datasource.username}") String user,
            @Value("${spring.datasource.password}") String password) {
        this.url = url;
        this.user = user;
        this.password = password;
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        Thread.ofVirtual().name("revision-events").start(this::listen);
    }

    @PreDestroy
    void stop() {
        closed = true;
    }

    private void listen() {
        boolean lost = false;
        while (!closed) {
            try (Connection connection = DriverManager.getConnection(url, user, password);
                    Statement statement = connection.createStatement()) {
                statement.execute("listen " + PlatformStore.CHANNEL);
                if (lost) {
                    // Whatever happened while nobody listened: let every browser look again.
                    listeners.keySet().forEach(id -> tell(id, "again"));
                    lost = false;
                }
                PGConnection notifications = connection.unwrap(PGConnection.class);
                while (!closed) {
                    PGNotification[] told = notifications.getNotifications(WAIT_MILLIS);
                    for (PGNotification each : told == null ? new PGNotification[0] : told) {
                        String[] parts = each.getParameter().split(":");
                        tell(UUID.fromString(parts[0]), parts[1]);
                    }
                }
            } catch (SQLException broken) {
                LOG.debug("waiting for the database: {}", broken.getMessage());
                lost = true;
                pause();
            }
        }
    }

    private static void pause() {
        try {
            Thread.sleep(WAIT_MILLIS);
        } catch (InterruptedException end) {
            Thread.currentThread().interrupt();
        }
    }

    /** A stream of the new revisions of one platform. */
    public SseEmitter subscribe(UUID platform) {
        SseEmitter emitter = new SseEmitter(0L);
        List<SseEmitter> all =
                listeners.computeIfAbsent(platform, id -> new CopyOnWriteArrayList<>());
        all.add(emitter);
        emitter.onCompletion(() -> all.remove(emitter));
        emitter.onTimeout(() -> all.remove(emitter));
        emitter.onError(error -> all.remove(emitter));
        send(emitter, "hello", "");
        return emitter;
    }

    /** Finds out about browsers that are gone, and keeps the others' connections open. */
    @Scheduled(fixedDelay = 15_000)
    void beat() {
        listeners.values().forEach(all -> all.forEach(emitter -> send(emitter, "beat", "")));
    }

    private void tell(UUID platform, String revision) {
        listeners
                .getOrDefault(platform, List.of())
                .forEach(emitter -> send(emitter, "revision", revision));
    }

    private static void send(SseEmitter emitter, String name, String text) {
        try {
            emitter.send(SseEmitter.event().name(name).data(text));
        } catch (IOException | IllegalStateException gone) {
            emitter.completeWithError(gone);
        }
    }
}
