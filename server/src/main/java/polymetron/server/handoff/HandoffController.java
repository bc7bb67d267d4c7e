package polymetron.server.handoff;

import jakarta.annotation.Nullable;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.output.HandoffFile;
import polymetron.output.handoff.Delivery;
import polymetron.output.handoff.Handoff;
import polymetron.server.api.Downloads;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Elaborations;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;

/** The files for software teams, made from the newest revision. */
@RestController
final class HandoffController {
    private final PlatformStore store;
    private final Elaborations elaborations;

    HandoffController(PlatformStore store, Elaborations elaborations) {
        this.store = store;
        this.elaborations = elaborations;
    }

    record HandoffView(long revision, String baseName, String fingerprint, List<FileView> files) {}

    record FileView(String path, String title, int sizeBytes, String text) {}

    @GetMapping("/api/platforms/{id}/handoff")
    HandoffView handoff(@PathVariable UUID id, @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = store.read(id, at);
        Handoff handoff = Handoff.of(elaborations.of(stored));
        return new HandoffView(
                stored.revision(),
                handoff.baseName(),
                handoff.fingerprint(),
                handoff.files().stream()
                        .map(
                                file ->
                                        new FileView(
                                                file.path(),
                                                file.title(),
                                                file.bytes().length,
                                                file.text()))
                        .toList());
    }

    @GetMapping("/api/platforms/{id}/handoff/file")
    ResponseEntity<byte[]> file(
            @PathVariable UUID id,
            @RequestParam String path,
            @RequestParam(required = false) @Nullable Long at) {
        HandoffFile file =
                Handoff.of(elaborations.of(store.read(id, at))).files().stream()
                        .filter(each -> each.path().equals(path))
                        .findFirst()
                        .orElseThrow(
                                () -> new NotThere("the hand-off has no file %s".formatted(path)));
        return download(
                path.substring(path.lastIndexOf('/') + 1), MediaType.TEXT_PLAIN, file.bytes());
    }

    @GetMapping("/api/platforms/{id}/handoff/zip")
    ResponseEntity<byte[]> zip(
            @PathVariable UUID id, @RequestParam(required = false) @Nullable Long at) {
        Delivery delivery = Delivery.of(elaborations.of(store.read(id, at)));
        return download(
                delivery.handoff().baseName() + ".zip",
                MediaType.APPLICATION_OCTET_STREAM,
                delivery.zip());
    }

    private static ResponseEntity<byte[]> download(String name, MediaType type, byte[] bytes) {
        return ResponseEntity.ok()
                .contentType(type)
                .header(HttpHeaders.CONTENT_DISPOSITION, Downloads.attachment(name))
                .body(bytes);
    }
}
