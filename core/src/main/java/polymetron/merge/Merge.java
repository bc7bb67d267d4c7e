package polymetron.merge;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.Elaborator;
import polymetron.finding.Checks;
import polymetron.finding.Finding;
import polymetron.finding.Grade;
import polymetron.library.Library;
import polymetron.platform.Platform;

/**
 * Carries an edit that was made on an older revision over to the newest. Since edits are semantic, it is applied there
 * as it is. That is right when three things hold, and otherwise the edit is refused:
 *
 * <ul>
 *   <li>nothing that the edit names has changed since: its author has looked at it;
 *   <li>it has the same effect on the newest revision as it had where it was made, fact by fact;
 *   <li>both changes together make no error that neither makes alone, such as two ranges at one address.
 * </ul>
 *
 * <p>So the outcome is always that of the edits one after the other, in the order in which they were accepted.
 */
public final class Merge {
    private final Library library;
    private final Editor editor;

    public Merge(Library library) {
        this.library = library;
        this.editor = new Editor(library);
    }

    /**
     * @param base what the edit was made on
     * @param newest what it is applied to
     * @throws RejectedEdit when the edit makes no sense where it was made
     * @throws MergeRefused when it cannot be carried over; the message says why
     */
    public Platform apply(Platform base, Platform newest, Edit edit) throws MergeRefused {
        Platform intended = editor.apply(base, edit);
        if (newest.equals(base)) {
            return intended;
        }
        Facts before = Facts.of(base);
        Facts now = Facts.of(newest);
        Map<String, Facts.Change> meanwhile = before.changesTo(now);
        Optional<String> touched =
                Named.in(edit).stream()
                        .filter(named -> meanwhile.keySet().stream().anyMatch(isPartOf(named)))
                        .findFirst();
        if (touched.isPresent()) {
            throw new MergeRefused(words(touched.get()) + " was changed meanwhile");
        }
        Platform merged;
        try {
            merged = editor.apply(newest, edit);
        } catch (RejectedEdit impossible) {
            throw new MergeRefused("it is no longer possible: " + impossible.getMessage());
        }
        Map<String, Facts.Change> wanted = before.changesTo(Facts.of(intended));
        Map<String, Facts.Change> had = now.changesTo(Facts.of(merged));
        if (!wanted.equals(had)) {
            throw new MergeRefused(
                    "it would now do something else to %s".formatted(difference(wanted, had)));
        }
        Set<String> changed = subjects(meanwhile.keySet());
        changed.addAll(subjects(wanted.keySet()));
        Optional<Finding> together = errorOfBoth(intended, newest, merged, changed);
        if (together.isPresent()) {
            throw new MergeRefused("both changes together are an error: " + together.get().what());
        }
        return merged;
    }

    /** Names of the blocks, buses and domains that paths belong to. */
    private static Set<String> subjects(Set<String> paths) {
        return paths.stream()
                .map(path -> path.split("/"))
                .filter(steps -> steps.length > 2)
                .map(steps -> steps[2])
                .collect(Collectors.toCollection(TreeSet::new));
    }

    /**
     * An error at something that was changed. That a whole device is full is no conflict. Mostly there is no error
     * at all, and then the two alone need not be looked at.
     */
    private Optional<Finding> errorOfBoth(
            Platform intended, Platform newest, Platform merged, Set<String> changed) {
        List<Finding> left =
                errors(merged).stream()
                        .filter(each -> changed.contains(each.subjectBlock()))
                        .toList();
        for (Platform alone : List.of(newest, intended)) {
            if (left.isEmpty()) {
                return Optional.empty();
            }
            Set<String> known = errors(alone).stream().map(Merge::key).collect(Collectors.toSet());
            left = left.stream().filter(each -> !known.contains(key(each))).toList();
        }
        return left.stream().findFirst();
    }

    private static Predicate<String> isPartOf(String named) {
        return path -> path.equals(named) || path.startsWith(named + "/");
    }

    /** The first thing, in the order of the paths, to which two effects differ. */
    private static String difference(
            Map<String, Facts.Change> wanted, Map<String, Facts.Change> had) {
        Set<String> paths = new TreeSet<>(wanted.keySet());
        paths.addAll(had.keySet());
        return paths.stream()
                .filter(path -> !Objects.equals(wanted.get(path), had.get(path)))
                .findFirst()
                .map(Merge::words)
                .orElseThrow();
    }

    /** {@code /blocks/lamps/parameters} in words: block lamps. */
    private static String words(String path) {
        String[] steps = path.split("/");
        return switch (steps[1]) {
            case "blocks" -> "block " + steps[2];
            case "buses" -> "bus " + steps[2];
            case "domains" -> "domain " + steps[2];
            case "accepted" -> "the acceptance of " + steps[2];
            case "name" -> "the name of the platform";
            default -> "the platform";
        };
    }

    private List<Finding> errors(Platform platform) {
        return Checks.run(new Elaborator(library).elaborate(platform)).stream()
                .filter(each -> each.grade() == Grade.ERROR && !each.isAccepted())
                .toList();
    }

    private static String key(Finding finding) {
        return finding.rule() + " " + finding.subject();
    }
}
