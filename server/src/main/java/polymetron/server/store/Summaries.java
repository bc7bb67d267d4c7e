package polymetron.server.store;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import polymetron.finding.Checks;
import polymetron.finding.Finding;
import polymetron.finding.Grade;
import polymetron.server.budget.Busy;

/**
 * What the list of platforms says about each. It is kept with the revision, and worked out where it is missing or was
 * made with another edition of the library: some of them within one request, the others in the next.
 */
@Component
public class Summaries {
    private static final Duration PATIENCE = Duration.ofMillis(500);

    private final PlatformStore store;
    private final Elaborations elaborations;
    private final Libraries libraries;

    public Summaries(PlatformStore store, Elaborations elaborations, Libraries libraries) {
        this.store = store;
        this.elaborations = elaborations;
        this.libraries = libraries;
    }

    /** All platforms, the one changed last first; some may still be without a summary. */
    public List<PlatformRow> list() {
        Libraries.Current current = libraries.currentEdition();
        String edition = current.edition().toString();
        long end = System.nanoTime() + PATIENCE.toNanos();
        List<PlatformRow> rows = new ArrayList<>();
        for (PlatformRow row : store.list()) {
            boolean isKnown = row.summary() != null && row.summary().library().equals(edition);
            if (isKnown || System.nanoTime() > end) {
                rows.add(isKnown ? row : row.with(null));
            } else {
                rows.add(row.with(workOut(row, current)));
            }
        }
        return rows;
    }

    private Summary workOut(PlatformRow row, Libraries.Current current) {
        StoredPlatform stored = store.read(row.id(), row.revision());
        List<Finding> findings;
        try {
            findings = Checks.run(elaborations.of(stored));
        } catch (Busy later) {
            return null;
        }
        Summary summary =
                new Summary(
                        current.edition().toString(),
                        current.library()
                                .board(stored.platform().board())
                                .map(board -> board.title())
                                .orElse(stored.platform().board().toString()),
                        stored.platform().blocks().size(),
                        count(findings, Grade.ERROR),
                        count(findings, Grade.WARNING));
        store.keep(row.id(), row.revision(), summary);
        return summary;
    }

    private static int count(List<Finding> findings, Grade grade) {
        return (int)
                findings.stream()
                        .filter(each -> each.grade() == grade && !each.isAccepted())
                        .count();
    }
}
