package polymetron.server.platform;

import jakarta.annotation.Nullable;
import java.util.List;
import java.util.UUID;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.compare.Change;
import polymetron.compare.Comparison;
import polymetron.edit.RejectedEdit;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.Turns;

/** What a platform was: its revisions, what differs between two of them, and the way back. */
@RestController
final class HistoryController {
    private static final int MOST = 500;
    private static final int LONGEST_NAME = 80;

    private final PlatformStore store;
    private final Turns turns;

    HistoryController(PlatformStore store, Turns turns) {
        this.store = store;
        this.turns = turns;
    }

    /**
     * @param by who made it, as far as they say
     * @param name given to it by a user
     * @param repeats the earlier revision that an undo or redo put on top again
     */
    record RevisionView(
            long number,
            String title,
            String madeAt,
            @Nullable PlatformView.AuthorView by,
            @Nullable String name,
            @Nullable Long repeats) {}

    /**
     * @param name empty takes the name away
     */
    record RevisionName(String name) {}

    /**
     * @param before as it was; missing for something new
     * @param after as it is; missing for something that is gone
     */
    record ChangeView(
            String sort, String subject, @Nullable String before, @Nullable String after) {}

    record RestoreRequest(long revision) {}

    record Restored(long revision) {}

    /** The newest 500 revisions, the newest first. */
    @GetMapping("/api/platforms/{id}/revisions")
    List<RevisionView> revisions(@PathVariable UUID id) {
        store.read(id);
        return store.revisions(id, MOST).stream()
                .map(
                        row ->
                                new RevisionView(
                                        row.number(),
                                        row.title(),
                                        row.madeAt().toInstant().toString(),
                                        PlatformView.AuthorView.of(row.author()),
                                        row.name(),
                                        row.repeats()))
                .toList();
    }

    /** Calls a revision something, such as what was handed over; the platform itself does not change. */
    @PutMapping("/api/platforms/{id}/revisions/{number}/name")
    void name(@PathVariable UUID id, @PathVariable long number, @RequestBody RevisionName wanted) {
        String name = wanted.name() == null ? "" : wanted.name().strip();
        if (name.length() > LONGEST_NAME || name.chars().anyMatch(Character::isISOControl)) {
            throw new RejectedEdit(
                    "name", "a name has at most %s letters in one line".formatted(LONGEST_NAME));
        }
        turns.in(
                id,
                () -> {
                    store.name(id, number, name.isEmpty() ? null : name);
                    return number;
                });
    }

    /** What changed from one revision to another. */
    @GetMapping("/api/platforms/{id}/changes")
    List<ChangeView> changes(
            @PathVariable UUID id, @RequestParam long from, @RequestParam long to) {
        return Comparison.of(store.at(id, from), store.at(id, to)).stream()
                .map(HistoryController::view)
                .toList();
    }

    private static ChangeView view(Change change) {
        return new ChangeView(
                change.sort().toString(), change.subject(), change.before(), change.after());
    }

    @PostMapping("/api/platforms/{id}/revisions/{number}/restore")
    Restored restore(
            @PathVariable UUID id, @PathVariable long number, @RequestBody RestoreRequest request) {
        return new Restored(turns.in(id, () -> store.restore(id, request.revision(), number)));
    }
}
