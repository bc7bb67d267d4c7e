package polymetron.server.library;

import jakarta.annotation.Nullable;
import java.nio.charset.StandardCharsets;
import java.util.List;
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
import polymetron.edit.RejectedEdit;
import polymetron.json.DocumentException;
import polymetron.library.BlockType;
import polymetron.library.Library;
import polymetron.library.Vlnv;
import polymetron.ownblock.BlockProblem;
import polymetron.ownblock.InterfaceChanges;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.ownblock.RegisterImport;
import polymetron.server.api.Downloads;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Libraries;
import polymetron.server.store.PlatformStore;

/** Block types that people write themselves: looked at while they are written, checked before they are kept. */
@RestController
final class OwnBlockController {
    private final Libraries libraries;
    private final PlatformStore platforms;

    OwnBlockController(Libraries libraries, PlatformStore platforms) {
        this.libraries = libraries;
        this.platforms = platforms;
    }

    /**
     * @param change what a later change names as the one that it was made from
     */
    record OwnBlockRow(String identity, String title, String summary, long change) {}

    record SavedBlock(String identity, long change) {}

    @GetMapping("/api/library/blocks")
    List<OwnBlockRow> list() {
        return libraries.blocks().stream().map(OwnBlockController::row).toList();
    }

    private static OwnBlockRow row(Libraries.KeptBlock kept) {
        BlockType type = kept.block().type();
        return new OwnBlockRow(
                type.identity().toString(), type.title(), type.summary(), kept.change());
    }

    private Libraries.KeptBlock kept(String identity) {
        return libraries
                .block(Vlnv.parse(identity).toString())
                .orElseThrow(
                        () -> new NotThere("there is no own block type %s".formatted(identity)));
    }

    @GetMapping("/api/library/blocks/{identity}")
    OwnBlockRow row(@PathVariable String identity) {
        return row(kept(identity));
    }

    /** The block as one file, for another installation. */
    @GetMapping(
            value = "/api/library/blocks/{identity}/document",
            produces = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<String> document(@PathVariable String identity) {
        OwnBlock block = kept(identity).block();
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        Downloads.attachment(block.type().identity().name() + ".json"))
                .body(OwnBlockDocument.write(block));
    }

    @GetMapping(value = "/api/own-block.schema.json", produces = "application/schema+json")
    String schema() {
        return OwnBlockDocument.schemaText();
    }

    private static OwnBlock read(byte[] document, String name) {
        return OwnBlockDocument.read(name, new String(document, StandardCharsets.UTF_8));
    }

    /** What is wrong with a block, and what follows from it; nothing is kept. */
    @PostMapping(
            value = "/api/library/blocks/look",
            consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    BlockLook look(
            @RequestBody byte[] document, @RequestParam(defaultValue = "block") String name) {
        try {
            return BlockLook.of(read(document, name), libraries.current());
        } catch (DocumentException wrong) {
            return BlockLook.unreadable(wrong.pointer(), wrong.getMessage());
        }
    }

    /** Registers out of the rows of a spreadsheet, or a component of IEEE 1685, as a definition has them. */
    @PostMapping(
            value = "/api/library/blocks/registers",
            consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE,
            produces = MediaType.APPLICATION_JSON_VALUE)
    String registers(@RequestBody byte[] table) {
        return RegisterImport.read(new String(table, StandardCharsets.UTF_8));
    }

    /**
     * Keeps a block.
     *
     * @param change the change that it was made from; missing for a new one
     */
    @PostMapping(value = "/api/library/blocks", consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
    SavedBlock save(
            @RequestBody byte[] document,
            @RequestParam(defaultValue = "block") String name,
            @RequestParam(required = false) @Nullable Long change) {
        OwnBlock block = read(document, name);
        String identity = block.type().identity().toString();
        Library library = libraries.current();
        List<BlockProblem> problems = OwnBlockChecks.of(block, library);
        if (!problems.isEmpty()) {
            BlockProblem first = problems.getFirst();
            throw new RejectedEdit(
                    first.at(),
                    "%s, at %s: %s%s"
                            .formatted(
                                    name,
                                    first.at(),
                                    first.what(),
                                    problems.size() == 1
                                            ? ""
                                            : "; and %s more".formatted(problems.size() - 1)));
        }
        refuseChangeInUse(block.type(), library);
        if (!libraries.save(block, change)) {
            throw new RejectedEdit(
                    "change",
                    change == null
                            ? "there is a block type %s already; open it to change it, or give this one another version"
                                    .formatted(identity)
                            : "%s was changed by another user meanwhile; open it again, and keep what you wrote as another version"
                                    .formatted(identity));
        }
        return new SavedBlock(identity, kept(identity).change());
    }

    private void refuseChangeInUse(BlockType now, Library library) {
        BlockType before = library.type(now.identity()).orElse(null);
        List<String> changes = before == null ? List.of() : InterfaceChanges.between(before, now);
        if (changes.isEmpty()) {
            return;
        }
        List<String> users = users(now.identity().toString());
        if (!users.isEmpty()) {
            throw new RejectedEdit(
                    "/definition/identity",
                    "%s, and %s %s made with it; give it a new version, to which they can be upgraded"
                            .formatted(
                                    String.join(", ", changes),
                                    String.join(", ", users),
                                    users.size() == 1 ? "is" : "are"));
        }
    }

    /** Platforms that have a block of the type. */
    @GetMapping("/api/library/blocks/{identity}/platforms")
    List<String> users(@PathVariable String identity) {
        Vlnv type = Vlnv.parse(identity);
        return platforms.list().stream()
                .map(row -> platforms.read(row.id()).platform())
                .filter(
                        platform ->
                                platform.blocks().stream()
                                        .anyMatch(block -> block.type().equals(type)))
                .map(platform -> platform.name())
                .toList();
    }

    /** Takes an own block type out. Platforms with it stay, and say that it is gone. */
    @DeleteMapping("/api/library/blocks/{identity}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String identity) {
        libraries
                .removeBlock(Vlnv.parse(identity).toString())
                .orElseThrow(
                        () ->
                                new NotThere(
                                        "there is no own block type %s; those that come with Polymetron cannot be removed"
                                                .formatted(identity)));
    }
}
