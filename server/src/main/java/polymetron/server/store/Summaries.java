package polymetron.server.store;

import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.springframework.stereotype.Component;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.finding.Finding;
import polymetron.finding.Grade;
import polymetron.fit.Amount;
import polymetron.fit.DeviceFit;

/**
 * What the list of platforms says about each. It is kept with the revision, and worked out beside the request where it is
 * missing or was made with another edition of the library. The list waits a moment for it and then goes without; who asks
 * again finds it. When no request waits any more, what has not begun is dropped.
 */
@Component
public class Summaries {
    private static final Duration PATIENCE = Duration.ofMillis(500);
    private static final Duration FORGOTTEN = Duration.ofSeconds(10);

    private final PlatformStore store;
    private final Elaborations elaborations;
    private final Libraries libraries;
    private final ExecutorService worker =
            Executors.newSingleThreadExecutor(
                    Thread.ofPlatform().daemon().name("summaries").factory());
    private final Map<UUID, Future<?>> underWay = new ConcurrentHashMap<>();
    private volatile long asked;

    public Summaries(PlatformStore store, Elaborations elaborations, Libraries libraries) {
        this.store = store;
        this.elaborations = elaborations;
        this.libraries = libraries;
    }

    /** All platforms, the one changed last first; some may still be without a summary. */
    public List<PlatformRow> list() {
        Libraries.Current current = libraries.currentEdition();
        asked = System.nanoTime();
        List<PlatformRow> rows = store.list();
        List<PlatformRow> missing = rows.stream().filter(row -> isOld(row, current)).toList();
        if (missing.isEmpty()) {
            return rows;
        }
        long end = asked + PATIENCE.toNanos();
        List<Future<?>> begun = new ArrayList<>();
        missing.forEach(row -> begun.add(begin(row, current)));
        begun.forEach(each -> await(each, end - System.nanoTime()));
        return store.list().stream()
                .map(row -> isOld(row, current) ? row.with(null) : row)
                .toList();
    }

    private static boolean isOld(PlatformRow row, Libraries.Current current) {
        return row.summary() == null
                || row.summary().fit() == null
                || !row.summary().library().equals(current.edition().toString());
    }

    private static void await(Future<?> each, long nanos) {
        try {
            each.get(Math.max(0, nanos), TimeUnit.NANOSECONDS);
        } catch (TimeoutException | ExecutionException later) {
            // The list goes without.
        } catch (InterruptedException end) {
            Thread.currentThread().interrupt();
        }
    }

    private Future<?> begin(PlatformRow row, Libraries.Current current) {
        return underWay.computeIfAbsent(
                row.id(),
                id ->
                        worker.submit(
                                () -> {
                                    try {
                                        if (System.nanoTime() - asked < FORGOTTEN.toNanos()) {
                                            workOut(row, current);
                                        }
                                    } finally {
                                        underWay.remove(id);
                                    }
                                }));
    }

    private void workOut(PlatformRow row, Libraries.Current current) {
        StoredPlatform stored = store.read(row.id(), row.revision());
        Elaborations.Worked worked = elaborations.worked(stored);
        List<Finding> findings = worked.findings();
        store.keep(
                row.id(),
                row.revision(),
                new Summary(
                        current.edition().toString(),
                        current.library()
                                .board(stored.platform().board())
                                .map(board -> board.title())
                                .orElse(stored.platform().board().toString()),
                        stored.platform().blocks().size(),
                        count(findings, Grade.ERROR),
                        count(findings, Grade.WARNING),
                        fit(worked.platform())));
    }

    private static String fit(ElaboratedPlatform platform) {
        return DeviceFit.of(platform)
                .flatMap(
                        fit ->
                                fit.amounts().stream()
                                        .filter(each -> each.available() > 0 && each.used() > 0)
                                        .max(Comparator.comparingDouble(Summaries::part)))
                .map(each -> "%.0f %% of %s".formatted(100 * part(each), each.name()))
                .orElse("");
    }

    private static double part(Amount amount) {
        return (double) amount.used() / amount.available();
    }

    @PreDestroy
    void close() {
        worker.shutdownNow();
    }

    private static int count(List<Finding> findings, Grade grade) {
        return (int)
                findings.stream()
                        .filter(each -> each.grade() == grade && !each.isAccepted())
                        .count();
    }
}
