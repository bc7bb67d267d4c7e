package polymetron.finding;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.Elaborator;
import polymetron.library.Library;
import polymetron.platform.Platform;

/** What an edit would break: the findings that there would be after it and are not there before. */
public final class Consequences {
    private Consequences() {}

    /**
     * @throws polymetron.edit.RejectedEdit when the edit makes no sense
     */
    public static List<Finding> of(Library library, Platform platform, Edit edit) {
        Elaborator elaborator = new Elaborator(library);
        Set<String> before = new HashSet<>();
        for (Finding finding : Checks.run(elaborator.elaborate(platform))) {
            before.add(key(finding));
        }
        Platform after = new Editor(library).apply(platform, edit);
        return Checks.run(elaborator.elaborate(after)).stream()
                .filter(finding -> !before.contains(key(finding)))
                .toList();
    }

    private static String key(Finding finding) {
        return finding.rule() + " " + finding.subject();
    }
}
