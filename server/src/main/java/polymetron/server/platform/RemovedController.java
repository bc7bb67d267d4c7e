package polymetron.server.platform;

import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import polymetron.server.store.Removed;

/** Platforms that were removed and can be brought back. */
@RestController
final class RemovedController {
    private final Removed removed;

    RemovedController(Removed removed) {
        this.removed = removed;
    }

    /**
     * @param removedAt ISO 8601, as all times here
     * @param goneAt from when on it cannot be brought back
     */
    record RemovedView(String id, String name, String removedAt, String goneAt) {}

    @GetMapping("/api/removed-platforms")
    List<RemovedView> list() {
        return removed.list().stream()
                .map(
                        each ->
                                new RemovedView(
                                        each.id().toString(),
                                        each.name(),
                                        each.removedAt().toInstant().toString(),
                                        each.removedAt()
                                                .plusDays(Removed.KEPT_DAYS)
                                                .toInstant()
                                                .toString()))
                .toList();
    }

    @PostMapping("/api/removed-platforms/{id}/bring-back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void bringBack(@PathVariable UUID id) {
        removed.bringBack(id);
    }
}
