package polymetron.finding;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Findings that belong together, so that one cause is one line: those that say the same cause, and those of one rule. The
 * groups keep the order of their worst findings; accepted findings are apart from open ones.
 */
public final class FindingGroups {
    private static final int NAMED = 3;

    private FindingGroups() {}

    /**
     * Findings with one cause.
     *
     * @param line the cause, or the finding itself when it is alone
     * @param findings in their order; at least one
     */
    public record Group(String line, Grade grade, Step step, List<Finding> findings) {
        /** Whether each can be settled by a fix. */
        public boolean isFixable() {
            return findings.stream().noneMatch(finding -> finding.fixes().isEmpty());
        }
    }

    /**
     * @param findings as the checks ranked them
     */
    public static List<Group> of(List<Finding> findings) {
        Map<String, List<Finding>> groups = new LinkedHashMap<>();
        for (Finding finding : findings) {
            groups.computeIfAbsent(key(finding), key -> new ArrayList<>()).add(finding);
        }
        return groups.values().stream().map(FindingGroups::group).toList();
    }

    /** What findings of one group have in common. */
    public static String key(Finding finding) {
        String state = finding.isAccepted() ? "accepted " : "";
        return finding.cause() == null
                ? state + finding.rule()
                : state + "because " + finding.cause();
    }

    private static Group group(List<Finding> findings) {
        Finding first = findings.getFirst();
        return new Group(
                line(findings), first.grade(), Checks.step(first.rule()), List.copyOf(findings));
    }

    private static String line(List<Finding> findings) {
        Finding first = findings.getFirst();
        if (findings.size() == 1) {
            return first.what();
        }
        if (first.cause() != null) {
            return first.cause();
        }
        List<String> subjects =
                findings.stream().map(Finding::subject).distinct().limit(NAMED).toList();
        long more = findings.stream().map(Finding::subject).distinct().count() - subjects.size();
        return "%s: %s%s"
                .formatted(
                        Checks.rule(first.rule()).title(),
                        String.join(", ", subjects),
                        more > 0 ? " and %s more".formatted(more) : "");
    }
}
