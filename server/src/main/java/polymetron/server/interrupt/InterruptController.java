package polymetron.server.interrupt;

import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.server.store.Elaborations;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;

/** Who interrupts whom. */
@RestController
final class InterruptController {
    private final PlatformStore store;
    private final Elaborations elaborations;

    InterruptController(PlatformStore store, Elaborations elaborations) {
        this.store = store;
        this.elaborations = elaborations;
    }

    @GetMapping("/api/platforms/{id}/interrupts")
    InterruptsView interrupts(
            @PathVariable UUID id, @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = store.read(id, at);
        return InterruptsViews.of(stored.revision(), elaborations.of(stored));
    }
}
