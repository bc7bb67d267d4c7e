package polymetron.server.event;

import jakarta.annotation.PreDestroy;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.Properties;
import java.util.UUID;
import org.postgresql.PGConnection;
import org.postgresql.PGNotification;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import polymetron.server.store.PlatformStore;

/**
 * Listens to the database, which tells every server of every new revision, whichever server stored it. Whatever
 * goes wrong, it connects again and lets every browser look at what is newest.
 */
@Component
class RevisionListener {
    private static final Logger LOG = LoggerFactory.getLogger(RevisionListener.class);
    private static final int WAIT_MILLIS = 1000;

    /** Within this time a connection that no longer answers is given up. */
    private static final int ANSWER_SECONDS = 10;

    private final String url;
    private final Properties login = new Properties();
    private final BrowserStreams streams;
    private volatile boolean closed;
    private volatile long heardNanos = System.nanoTime();

    RevisionListener(
            @Value("${spring.datasource.url}") String url,
            @Value("${spring.datasource.username}") String user,
            @Value("${spring.datasource.password}") String password,
            BrowserStreams streams) {
        this.url = url;
        this.streams = streams;
        login.setProperty("user", user);
        login.setProperty("password", password);
        login.setProperty("connectTimeout", String.valueOf(ANSWER_SECONDS));
        login.setProperty("socketTimeout", String.valueOf(ANSWER_SECONDS));
        login.setProperty("ApplicationName", "polymetron events");
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        Thread.ofVirtual().name("revision-listener").start(this::listen);
    }

    @PreDestroy
    void stop() {
        closed = true;
    }

    /** How long ago the database was last known to tell us everything. */
    Duration silence() {
        return Duration.ofNanos(System.nanoTime() - heardNanos);
    }

    private void listen() {
        boolean lost = false;
        while (!closed) {
            try (Connection connection = DriverManager.getConnection(url, login);
                    Statement statement = connection.createStatement()) {
                statement.execute("listen " + PlatformStore.CHANNEL);
                if (lost) {
                    streams.tellNewest();
                    lost = false;
                }
                PGConnection notifications = connection.unwrap(PGConnection.class);
                while (!closed) {
                    hear(notifications.getNotifications(WAIT_MILLIS));
                    // Notifications alone do not notice a database that has stopped answering.
                    statement.execute("select 1");
                    heardNanos = System.nanoTime();
                }
            } catch (SQLException broken) {
                LOG.debug("waiting for the database: {}", broken.getMessage());
                lost = true;
                pause();
            } catch (RuntimeException unexpected) {
                LOG.warn("listening for revisions begins anew", unexpected);
                lost = true;
                pause();
            }
        }
    }

    private void hear(PGNotification[] told) {
        if (told == null) {
            return;
        }
        for (PGNotification each : told) {
            try {
                String[] parts = each.getParameter().split(":");
                streams.tell(
                        UUID.fromString(parts[0]),
                        parts[1].equals(PlatformStore.GONE)
                                ? BrowserStream.GONE
                                : Long.parseLong(parts[1]));
            } catch (RuntimeException nonsense) {
                // Anybody with a login may send on the channel; the next one may be ours again.
                LOG.warn("not a revision: {}", each.getParameter().replaceAll("\\p{Cntrl}", "?"));
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
}
