package polymetron.server.fit;

import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.fit.DeviceFit;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Elaborations;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;

/** What a platform needs of its device. */
@RestController
final class FitController {
    private final PlatformStore store;
    private final Elaborations elaborations;

    FitController(PlatformStore store, Elaborations elaborations) {
        this.store = store;
        this.elaborations = elaborations;
    }

    @GetMapping("/api/platforms/{id}/fit")
    FitView fit(@PathVariable UUID id, @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = store.read(id, at);
        ElaboratedPlatform platform = elaborations.of(stored);
        DeviceFit fit =
                DeviceFit.of(platform)
                        .orElseThrow(
                                () ->
                                        new NotThere(
                                                "the board of this platform is not in the library,"
                                                        + " so its device is not known"));
        return new FitViews(platform, fit).view(stored.revision());
    }
}
