package polymetron.server.platform;

import java.util.List;
import java.util.UUID;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.boardchange.BoardChange;
import polymetron.edit.Edit;
import polymetron.finding.Consequences;
import polymetron.library.Vlnv;
import polymetron.server.store.Elaborations;
import polymetron.server.store.Libraries;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;

/** What becomes of a platform on another board. Nothing here changes it. */
@RestController
final class BoardChangeController {
    private final PlatformStore store;
    private final Elaborations elaborations;
    private final Libraries libraries;

    BoardChangeController(PlatformStore store, Elaborations elaborations, Libraries libraries) {
        this.store = store;
        this.elaborations = elaborations;
        this.libraries = libraries;
    }

    /**
     * @param lines what happens to each domain, PLL, part and pin
     * @param breaks findings that there are on the other board and not on this one
     */
    record BoardChangeView(
            long revision,
            String title,
            List<BoardChangeLineView> lines,
            List<PlanController.ConsequenceView> breaks,
            Edit edit) {}

    /**
     * @param outcome stays, changes or lost
     */
    record BoardChangeLineView(String outcome, String subject, String what) {}

    @GetMapping("/api/platforms/{id}/board-change")
    BoardChangeView boardChange(@PathVariable UUID id, @RequestParam String board) {
        StoredPlatform stored = store.read(id);
        BoardChange change = BoardChange.of(elaborations.of(stored), Vlnv.parse(board));
        Edit edit = change.asEdit();
        return new BoardChangeView(
                stored.revision(),
                change.to().title(),
                change.lines().stream()
                        .map(
                                line ->
                                        new BoardChangeLineView(
                                                line.outcome().toString(),
                                                line.subject(),
                                                line.what()))
                        .toList(),
                PlanController.views(Consequences.of(libraries.current(), stored.platform(), edit)),
                edit);
    }
}
