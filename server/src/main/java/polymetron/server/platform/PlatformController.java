package polymetron.server.platform;

import jakarta.annotation.Nullable;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
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
import polymetron.edit.Edit;
import polymetron.edit.RejectedEdit;
import polymetron.library.Recipe;
import polymetron.library.Vlnv;
import polymetron.paste.BlocksText;
import polymetron.platform.Names;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.server.api.Downloads;
import polymetron.server.store.Elaborations;
import polymetron.server.store.Libraries;
import polymetron.server.store.PlatformRow;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;
import polymetron.server.store.Summaries;
import polymetron.server.store.Summary;
import polymetron.server.store.Turns;
import polymetron.wiring.Starter;

/** Platforms: the list, one of them, and changes. */
@RestController
final class PlatformController {
    private static final int MOST_OWN = 200;

    private final PlatformStore store;
    private final Elaborations elaborations;
    private final Libraries libraries;
    private final Summaries summaries;
    private final Turns turns;

    PlatformController(
            PlatformStore store,
            Elaborations elaborations,
            Libraries libraries,
            Summaries summaries,
            Turns turns) {
        this.store = store;
        this.elaborations = elaborations;
        this.libraries = libraries;
        this.summaries = summaries;
        this.turns = turns;
    }

    /**
     * @param board title; null, as the counts, where it is not worked out yet: ask again
     */
    record PlatformSummary(
            String id,
            String name,
            long revision,
            String savedAt,
            @Nullable String by,
            @Nullable String board,
            @Nullable Integer blocks,
            @Nullable Integer errors,
            @Nullable Integer warnings,
            @Nullable String fit) {}

    record NewPlatform(String name, Vlnv board, @Nullable String recipe) {}

    record Created(String id) {}

    /**
     * @param revision the newest that the edit's author has seen
     * @param sentAs number of the edit, so that one that is sent again after a lost answer is not made twice; missing for none
     * @param own later ones that its author has made without having seen them; null for none
     */
    record EditRequest(long revision, @Nullable List<Long> own, Edit edit, @Nullable UUID sentAs) {}

    record RevisionRequest(long revision) {}

    record Accepted(long revision) {}

    @GetMapping("/api/platforms")
    List<PlatformSummary> list() {
        return summaries.list().stream().map(PlatformController::summary).toList();
    }

    private static PlatformSummary summary(PlatformRow row) {
        Summary counted = row.summary();
        return new PlatformSummary(
                row.id().toString(),
                row.name(),
                row.revision(),
                row.savedAt().toInstant().toString(),
                row.by(),
                counted == null ? null : counted.board(),
                counted == null ? null : counted.blocks(),
                counted == null ? null : counted.errors(),
                counted == null ? null : counted.warnings(),
                counted == null ? null : counted.fit());
    }

    @PostMapping("/api/platforms")
    @ResponseStatus(HttpStatus.CREATED)
    Created create(@RequestBody NewPlatform request) {
        if (request.board() == null || libraries.current().board(request.board()).isEmpty()) {
            throw new RejectedEdit(
                    "board", "the library has no board %s".formatted(request.board()));
        }
        Recipe recipe =
                request.recipe() == null
                        ? null
                        : libraries
                                .current()
                                .recipe(request.recipe())
                                .orElseThrow(
                                        () ->
                                                new RejectedEdit(
                                                        "recipe",
                                                        "there is no recipe %s"
                                                                .formatted(request.recipe())));
        Platform platform =
                Starter.start(libraries.current(), request.name(), request.board(), recipe);
        String title = recipe == null ? "start empty" : "start from recipe " + recipe.title();
        return new Created(store.create(platform, title).toString());
    }

    @PostMapping(
            value = "/api/platforms/import",
            consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
    Created importDocument(
            @RequestBody byte[] document, @RequestParam(defaultValue = "document") String name) {
        Platform platform =
                PlatformDocument.read(
                        name, new String(document, java.nio.charset.StandardCharsets.UTF_8));
        return new Created(
                store.create(platform, "import " + Downloads.shownName(name)).toString());
    }

    @PostMapping("/api/platforms/{id}/copy")
    @ResponseStatus(HttpStatus.CREATED)
    Created copy(@PathVariable UUID id) {
        Platform platform = store.read(id).platform();
        String name = "Copy of " + platform.name();
        Platform copy = platform.withName(name.length() <= 80 ? name : platform.name());
        return new Created(store.create(copy, "copy " + platform.name()).toString());
    }

    @DeleteMapping("/api/platforms/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@PathVariable UUID id) {
        store.delete(id);
    }

    /** The newest revision, or an earlier one to look at. */
    @GetMapping("/api/platforms/{id}")
    PlatformView read(@PathVariable UUID id, @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = store.read(id, at);
        return PlatformViews.of(stored, elaborations.worked(stored));
    }

    @GetMapping(value = "/api/platforms/{id}/document", produces = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<String> document(@PathVariable UUID id) {
        Platform platform = store.read(id).platform();
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        Downloads.attachment(Names.fromTitle(platform.name()) + ".json"))
                .body(PlatformDocument.write(platform));
    }

    /** Some blocks as text for the clipboard. */
    @GetMapping(value = "/api/platforms/{id}/blocks", produces = MediaType.TEXT_PLAIN_VALUE)
    String blocks(@PathVariable UUID id, @RequestParam List<String> name) {
        return BlocksText.of(store.read(id).platform(), name);
    }

    @PostMapping("/api/platforms/{id}/edits")
    Accepted edit(@PathVariable UUID id, @RequestBody EditRequest request) {
        if (request.edit() == null) {
            throw new RejectedEdit("edit", "the edit is missing");
        }
        List<Long> own = request.own() == null ? List.of() : request.own();
        if (own.size() > MOST_OWN || own.stream().anyMatch(Objects::isNull)) {
            throw new RejectedEdit(
                    "own", "at most %s revisions of one's own are named".formatted(MOST_OWN));
        }
        return new Accepted(
                turns.in(
                        id,
                        () ->
                                store.apply(
                                        id,
                                        request.revision(),
                                        own,
                                        request.edit(),
                                        request.sentAs())));
    }

    @PostMapping("/api/platforms/{id}/undo")
    Accepted undo(@PathVariable UUID id, @RequestBody RevisionRequest request) {
        return new Accepted(turns.in(id, () -> store.undo(id, request.revision())));
    }

    @PostMapping("/api/platforms/{id}/redo")
    Accepted redo(@PathVariable UUID id, @RequestBody RevisionRequest request) {
        return new Accepted(turns.in(id, () -> store.redo(id, request.revision())));
    }
}
