package polymetron.server.pin;

import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.pin.PinAssignment;
import polymetron.pin.PinCsv;
import polymetron.server.store.Elaborations;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;

/** Pins, proposals for those that are missing, and tables of them. Nothing here changes a platform. */
@RestController
final class PinController {
    private final PlatformStore store;
    private final Elaborations elaborations;

    PinController(PlatformStore store, Elaborations elaborations) {
        this.store = store;
        this.elaborations = elaborations;
    }

    @GetMapping("/api/platforms/{id}/pins")
    PinsView pins(@PathVariable UUID id, @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = store.read(id, at);
        return PinsViews.of(stored.revision(), elaborations.of(stored));
    }

    /** Legal pins for what has none. */
    @GetMapping("/api/platforms/{id}/pins/plan")
    PinsView.PinPlanView plan(@PathVariable UUID id) {
        StoredPlatform stored = store.read(id);
        PinAssignment plan = PinAssignment.of(elaborations.of(stored));
        return new PinsView.PinPlanView(
                stored.revision(),
                plan.given().stream()
                        .map(
                                each ->
                                        new PinsView.GivenPinsView(
                                                each.link().ref().toString(),
                                                each.bank().name(),
                                                each.bank().voltage(),
                                                each.pins().entrySet().stream()
                                                        .map(
                                                                port ->
                                                                        port.getKey()
                                                                                + " "
                                                                                + String.join(
                                                                                        " ",
                                                                                        port
                                                                                                .getValue()))
                                                        .collect(Collectors.joining(", "))))
                        .toList(),
                plan.unplaceable(),
                plan.asEdit());
    }

    /** What a table of pins would change. */
    @PostMapping(
            value = "/api/platforms/{id}/pins/import",
            consumes = MediaType.TEXT_PLAIN_VALUE,
            produces = MediaType.APPLICATION_JSON_VALUE)
    PinsView.PinImportView read(@PathVariable UUID id, @RequestBody String table) {
        StoredPlatform stored = store.read(id);
        ElaboratedPlatform platform = elaborations.of(stored);
        PinCsv csv = PinCsv.read(platform, table);
        return new PinsView.PinImportView(stored.revision(), csv.problems(), csv.edit());
    }
}
