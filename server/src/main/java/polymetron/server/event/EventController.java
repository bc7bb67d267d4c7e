package polymetron.server.event;

import jakarta.annotation.Nullable;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import polymetron.edit.RejectedEdit;

/**
 * One stream of events for a whole browser, whatever number of its tabs: browsers open six connections to a server
 * at most, and a stream a tab would soon leave none for anything else.
 */
@RestController
final class EventController {
    private static final int MOST_PLATFORMS = 200;

    private final BrowserStreams streams;
    private final Topic benches;

    EventController(BrowserStreams streams, Topic benches) {
        this.streams = streams;
        this.benches = benches;
    }

    /**
     * Events: {@code hello} once everything is listened for, {@code revision} with the newest revision of a platform,
     * {@code gone} for one that is removed, {@code frame} and {@code unloaded} of benches, {@code beat} in between.
     *
     * @param platform platforms whose revisions are told
     * @param bench platforms whose benches are shown
     */
    @GetMapping(value = "/api/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter events(
            @RequestParam(required = false) @Nullable List<UUID> platform,
            @RequestParam(required = false) @Nullable List<UUID> bench) {
        return streams.open(
                few("platform", platform),
                few("bench", bench).stream().map(benches::watch).toList());
    }

    private static Set<UUID> few(String field, @Nullable List<UUID> named) {
        if (named == null) {
            return Set.of();
        }
        if (named.size() > MOST_PLATFORMS) {
            throw new RejectedEdit(
                    field, "one browser follows at most %s platforms".formatted(MOST_PLATFORMS));
        }
        return new LinkedHashSet<>(named);
    }
}
