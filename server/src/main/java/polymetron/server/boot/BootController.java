package polymetron.server.boot;

import jakarta.annotation.Nullable;
import java.util.List;
import java.util.OptionalLong;
import java.util.UUID;
import java.util.function.Function;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import polymetron.address.Address;
import polymetron.edit.RejectedEdit;
import polymetron.output.image.ImageFile;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.MemoryContents;
import polymetron.output.image.ProgramImage;
import polymetron.output.image.ProgramReader;
import polymetron.output.image.SectionPlace;
import polymetron.platform.Names;
import polymetron.server.api.Downloads;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Elaborations;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.Program;
import polymetron.server.store.ProgramStore;
import polymetron.server.store.StoredPlatform;
import polymetron.software.Programs;

/** Programs, and the images that are made from them. */
@RestController
final class BootController {
    private final PlatformStore platforms;
    private final ProgramStore programs;
    private final Elaborations elaborations;

    BootController(PlatformStore platforms, ProgramStore programs, Elaborations elaborations) {
        this.platforms = platforms;
        this.programs = programs;
        this.elaborations = elaborations;
    }

    record ProgramView(String id, String name, String sha256, int sizeBytes, String uploadedAt) {}

    record ImageView(
            long revision,
            String entry,
            String processor,
            List<String> processors,
            List<SectionView> sections,
            List<String> problems,
            @Nullable String mismatch,
            List<MemoryView> memories,
            List<OutputView> outputs) {}

    record SectionView(
            String name,
            String address,
            String size,
            long sizeBytes,
            String contents,
            @Nullable String memory,
            @Nullable String problem) {}

    record MemoryView(
            String name,
            String base,
            String size,
            long sizeBytes,
            long loadedBytes,
            long zeroBytes,
            @Nullable String crc32) {}

    record OutputView(String name, String title, int sizeBytes, String crc32) {}

    record Uploaded(String id) {}

    @GetMapping("/api/platforms/{id}/programs")
    List<ProgramView> list(@PathVariable UUID id) {
        return programs.list(id).stream().map(BootController::view).toList();
    }

    private static ProgramView view(Program program) {
        return new ProgramView(
                program.id().toString(),
                program.name(),
                program.sha256(),
                program.sizeBytes(),
                program.uploadedAt().toInstant().toString());
    }

    @PostMapping(
            value = "/api/platforms/{id}/programs",
            consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
    Uploaded upload(
            @PathVariable UUID id, @RequestParam String name, @RequestBody byte[] contents) {
        platforms.read(id);
        ProgramReader.read(contents, OptionalLong.empty());
        String shown = Downloads.shownName(name);
        if (shown.isEmpty()) {
            throw new RejectedEdit("name", "a program needs a file name");
        }
        return new Uploaded(programs.add(id, shown, contents).toString());
    }

    @DeleteMapping("/api/platforms/{id}/programs/{program}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@PathVariable UUID id, @PathVariable UUID program) {
        programs.delete(id, program);
    }

    @GetMapping("/api/platforms/{id}/programs/{program}/image")
    ImageView image(
            @PathVariable UUID id,
            @PathVariable UUID program,
            @RequestParam(required = false) String processor,
            @RequestParam(defaultValue = "0") int fill,
            @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = platforms.read(id, at);
        return withImage(stored, program, processor, fill, image -> view(stored, image));
    }

    private static ImageView view(StoredPlatform stored, ProgramImage image) {
        return new ImageView(
                stored.revision(),
                Address.format(image.entry()),
                image.view().name(),
                Programs.of(image.view().platform()).names(),
                image.sections().stream().map(BootController::section).toList(),
                image.problems(),
                image.mismatch(),
                image.memories().stream().map(BootController::memory).toList(),
                ImageFiles.of(image, baseName(stored)).stream()
                        .map(BootController::output)
                        .toList());
    }

    private static SectionView section(SectionPlace place) {
        String contents =
                !place.section().hasContents()
                        ? "zeroed"
                        : place.section().executable() ? "code" : "data";
        return new SectionView(
                place.section().name(),
                Address.format(place.section().address()),
                Address.formatSize(place.section().sizeBytes()),
                place.section().sizeBytes(),
                contents,
                place.memory(),
                place.problem());
    }

    private static MemoryView memory(MemoryContents memory) {
        return new MemoryView(
                memory.name(),
                Address.format(memory.memory().range().base()),
                Address.formatSize(memory.memory().form().sizeBytes()),
                memory.memory().form().sizeBytes(),
                memory.loadedBytes(),
                memory.zeroBytes(),
                memory.isJoined() ? "%08X".formatted(memory.crc32()) : null);
    }

    private static OutputView output(ImageFile file) {
        return new OutputView(
                file.name(), file.title(), file.bytes().length, "%08X".formatted(file.crc32()));
    }

    @GetMapping("/api/platforms/{id}/programs/{program}/file")
    ResponseEntity<byte[]> file(
            @PathVariable UUID id,
            @PathVariable UUID program,
            @RequestParam String name,
            @RequestParam(required = false) String processor,
            @RequestParam(defaultValue = "0") int fill,
            @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = platforms.read(id, at);
        ImageFile file =
                withImage(
                        stored,
                        program,
                        processor,
                        fill,
                        image ->
                                ImageFiles.of(image, baseName(stored)).stream()
                                        .filter(each -> each.name().equals(name))
                                        .findFirst()
                                        .orElseThrow(
                                                () ->
                                                        new NotThere(
                                                                "the image has no file %s"
                                                                        .formatted(name))));
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .header(HttpHeaders.CONTENT_DISPOSITION, Downloads.attachment(file.name()))
                .body(file.bytes());
    }

    private <T> T withImage(
            StoredPlatform stored,
            UUID program,
            String processor,
            int fill,
            Function<ProgramImage, T> work) {
        if (fill < 0 || fill > 255) {
            throw new RejectedEdit("fill", "the fill is a byte, 0 to 255, not %s".formatted(fill));
        }
        return programs.with(
                stored.id(),
                program,
                contents ->
                        work.apply(
                                ChosenPrograms.image(
                                        elaborations.of(stored),
                                        processor,
                                        contents,
                                        (byte) fill)));
    }

    private static String baseName(StoredPlatform stored) {
        return Names.fromTitle(stored.platform().name());
    }
}
