package polymetron.finding;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.Elaborator;
import polymetron.library.Library;
import polymetron.platform.Platform;

/**
 * Settles all findings of a group: the first fix of the first one, then the platform is checked again, and so on, so that
 * two ranges never get the same free place. A fix that does not settle its finding is tried once.
 */
public final class FixAll {
    private static final int MOST = 100;

    private FixAll() {}

    /**
     * The fixes as one edit.
     *
     * @param key group as {@link FindingGroups#key} names it
     * @return empty when no finding of the group has a fix that can be applied
     */
    public static Optional<Edit> of(Library library, Platform platform, String key) {
        Editor editor = new Editor(library);
        Elaborator elaborator = new Elaborator(library);
        List<Edit> edits = new ArrayList<>();
        Set<String> tried = new HashSet<>();
        String title = "";
        Platform now = platform;
        while (edits.size() < MOST) {
            Optional<Finding> next =
                    Checks.run(elaborator.elaborate(now)).stream()
                            .filter(finding -> FindingGroups.key(finding).equals(key))
                            .filter(finding -> !finding.fixes().isEmpty())
                            .filter(finding -> tried.add(finding.subject() + finding.what()))
                            .findFirst();
            if (next.isEmpty()) {
                break;
            }
            Edit edit = next.get().fixes().getFirst().edit();
            try {
                now = editor.apply(now, edit);
                edits.add(edit);
                title = Checks.rule(next.get().rule()).title();
            } catch (RejectedEdit impossible) {
                // The next one may still go.
            }
        }
        return edits.isEmpty()
                ? Optional.empty()
                : Optional.of(new Edit.Several("settle " + title.toLowerCase(Locale.ROOT), edits));
    }
}
