package polymetron.edit;

import static polymetron.edit.Known.require;

import java.util.ArrayList;
import java.util.List;
import polymetron.platform.Acceptance;
import polymetron.platform.Platform;

/** Findings that are accepted. */
final class AcceptanceEdits {
    private AcceptanceEdits() {}

    private static boolean isText(String text, int longest) {
        return text != null && !text.isEmpty() && text.length() <= longest;
    }

    static Platform accept(Known known, Edit.Accept edit) {
        require(isText(edit.rule(), 64), "rule", "say which rule found it, such as baud-error");
        require(isText(edit.subject(), 200), "subject", "say what the finding is about");
        require(
                edit.revision() == null || edit.revision() >= 0,
                "revision",
                "a revision is 0 or more");
        require(isText(edit.what(), 2000), "what", "say what was found");
        require(
                edit.reason() != null && !edit.reason().isBlank(),
                "reason",
                "say why the finding is accepted; the reason is kept with it");
        require(edit.reason().length() <= 500, "reason", "a reason has at most 500 characters");
        List<Acceptance> accepted = new ArrayList<>(known.platform().accepted());
        accepted.removeIf(
                old -> old.rule().equals(edit.rule()) && old.subject().equals(edit.subject()));
        boolean isNamed = edit.author() != null && !edit.author().isBlank();
        require(
                !isNamed || edit.author().strip().length() <= 80,
                "author",
                "a name has at most 80 characters");
        accepted.add(
                new Acceptance(
                        edit.rule(),
                        edit.subject(),
                        edit.what(),
                        edit.reason().strip(),
                        isNamed ? edit.author().strip() : null,
                        edit.revision()));
        return known.platform().withAccepted(accepted);
    }

    static Platform reopen(Known known, Edit.Reopen edit) {
        List<Acceptance> others =
                known.platform().accepted().stream()
                        .filter(
                                old ->
                                        !(old.rule().equals(edit.rule())
                                                && old.subject().equals(edit.subject())))
                        .toList();
        require(
                others.size() < known.platform().accepted().size(),
                "subject",
                "%s of %s is not accepted".formatted(edit.rule(), edit.subject()));
        return known.platform().withAccepted(others);
    }
}
