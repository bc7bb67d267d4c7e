package polymetron.server.library;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import polymetron.library.BlockTypeDocument;
import polymetron.library.Library;
import polymetron.library.Vlnv;
import polymetron.platform.PlatformDocument;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Libraries;

/** What platforms are made of. */
@RestController
final class LibraryController {
    private final Libraries libraries;

    LibraryController(Libraries libraries) {
        this.libraries = libraries;
    }

    @GetMapping("/api/library/types/{identity}")
    DatasheetView datasheet(@PathVariable String identity) {
        Library library = libraries.current();
        return library.type(Vlnv.parse(identity))
                .map(type -> DatasheetView.of(type, library))
                .orElseThrow(
                        () -> new NotThere("the library has no block type %s".formatted(identity)));
    }

    @GetMapping("/api/library/boards/{identity}")
    BoardSheetView board(@PathVariable String identity) {
        Library library = libraries.current();
        return library.board(Vlnv.parse(identity))
                .map(board -> BoardSheetView.of(board, library))
                .orElseThrow(() -> new NotThere("the library has no board %s".formatted(identity)));
    }

    @GetMapping("/api/library")
    LibraryView library() {
        return LibraryView.of(libraries.current(), libraries.shipped());
    }

    @GetMapping(value = "/api/block-type.schema.json", produces = "application/schema+json")
    String blockTypeSchema() {
        return BlockTypeDocument.schemaText();
    }

    @GetMapping(value = "/api/platform.schema.json", produces = "application/schema+json")
    String schema() {
        return PlatformDocument.schemaText();
    }
}
