package polymetron.server.event;

import java.time.Duration;
import org.springframework.boot.health.contributor.Health;
import org.springframework.boot.health.contributor.HealthIndicator;
import org.springframework.stereotype.Component;

/** Whether browsers are told of what is stored. Part of readiness: a restart would not help when the database is away. */
@Component("events")
final class EventsHealth implements HealthIndicator {
    private static final Duration LONGEST_SILENCE = Duration.ofSeconds(15);

    private final RevisionListener listener;

    EventsHealth(RevisionListener listener) {
        this.listener = listener;
    }

    @Override
    public Health health() {
        Duration silence = listener.silence();
        Health.Builder health =
                silence.compareTo(LONGEST_SILENCE) < 0 ? Health.up() : Health.down();
        return health.withDetail("silentSeconds", silence.toSeconds()).build();
    }
}
