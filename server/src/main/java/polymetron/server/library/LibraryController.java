package polymetron.server.library;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import polymetron.library.Library;
import polymetron.platform.PlatformDocument;

/** What platforms are made of. */
@RestController
final class LibraryController {
    private final LibraryView view;

    LibraryController(Library library) {
        this.view = LibraryView.of(library);
    }

    @GetMapping("/api/library")
    LibraryView library() {
        return view;
    }

    @GetMapping(value = "/api/platform.schema.json", produces = "application/schema+json")
    String schema() {
        return PlatformDocument.schemaText();
    }
}
