package polymetron.server.hardware;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.annotation.Nullable;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.output.Fingerprint;
import polymetron.output.HandoffFile;
import polymetron.output.hardware.Hardware;
import polymetron.output.hardware.NotBuilt;
import polymetron.server.api.Downloads;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Elaborations;
import polymetron.server.store.Libraries;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;
import polymetron.verilog.Module;

/** The hardware of a platform, made from the newest revision: modules, files, and what cannot be built yet. */
@RestController
final class HardwareController {
    /** A platform's hardware can have many megabytes, and is looked at file by file. */
    private static final int MOST = 2;

    private record Key(UUID id, long revision, Libraries.Edition library) {}

    private final PlatformStore store;
    private final Elaborations elaborations;
    private final Libraries libraries;
    private final Cache<Key, Hardware> made = Caffeine.newBuilder().maximumSize(MOST).build();

    HardwareController(PlatformStore store, Elaborations elaborations, Libraries libraries) {
        this.store = store;
        this.elaborations = elaborations;
        this.libraries = libraries;
    }

    private Hardware hardware(StoredPlatform stored) {
        return made.get(
                new Key(stored.id(), stored.revision(), libraries.currentEdition().edition()),
                key -> Hardware.of(elaborations.of(stored)));
    }

    /**
     * @param instances the module tree, each instance behind the one that it is in; empty when something is not built
     */
    record HardwareView(
            long revision,
            String top,
            String fingerprint,
            List<InstanceView> instances,
            List<HardwareFileView> files,
            List<NotBuilt> notBuilt) {}

    /**
     * An instance in the module tree.
     *
     * @param depth 0 for the top level
     * @param path file of its module
     */
    record InstanceView(String name, String module, int depth, String path) {}

    record HardwareFileView(String path, String title, int sizeBytes) {}

    @GetMapping("/api/platforms/{id}/hardware")
    HardwareView hardware(
            @PathVariable UUID id, @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = store.read(id, at);
        Hardware hardware = hardware(stored);
        return new HardwareView(
                stored.revision(),
                hardware.top(),
                Fingerprint.of(elaborations.of(stored)),
                tree(hardware),
                hardware.files().stream()
                        .map(
                                file ->
                                        new HardwareFileView(
                                                file.path(), file.title(), file.bytes().length))
                        .toList(),
                hardware.notBuilt());
    }

    private static List<InstanceView> tree(Hardware hardware) {
        Map<String, Module> modules = new HashMap<>();
        hardware.modules().forEach(module -> modules.put(module.name(), module));
        List<InstanceView> tree = new ArrayList<>();
        if (!modules.isEmpty()) {
            add(tree, modules, hardware.top(), hardware.top(), 0);
        }
        return List.copyOf(tree);
    }

    private static void add(
            List<InstanceView> tree,
            Map<String, Module> modules,
            String name,
            String module,
            int depth) {
        tree.add(new InstanceView(name, module, depth, "hdl/" + module + ".v"));
        Module generated = modules.get(module);
        if (generated != null) {
            generated
                    .instances()
                    .forEach((inner, type) -> add(tree, modules, inner, type, depth + 1));
        }
    }

    @GetMapping(
            value = "/api/platforms/{id}/hardware/file",
            produces = MediaType.TEXT_PLAIN_VALUE + ";charset=UTF-8")
    ResponseEntity<byte[]> file(
            @PathVariable UUID id,
            @RequestParam String path,
            @RequestParam(required = false) @Nullable Long at) {
        HandoffFile file =
                hardware(store.read(id, at)).files().stream()
                        .filter(each -> each.path().equals(path))
                        .findFirst()
                        .orElseThrow(
                                () -> new NotThere("the hardware has no file %s".formatted(path)));
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        Downloads.attachment(path.substring(path.lastIndexOf('/') + 1)))
                .body(file.bytes());
    }
}
