package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.board.Parts;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;

/** Ports differ from the board part that they drive in direction or width. */
final class PartMismatchRule implements Rule {
    @Override
    public String id() {
        return "outward-mismatch";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Port against the board part";
    }

    @Override
    public String explanation() {
        return "Lines would be left over or missing, or an output would work against what the board"
                + " drives.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (OutwardLink link : platform.outward()) {
            if (link.part() == null) {
                continue;
            }
            List<String> differences = Parts.differences(link, link.part());
            if (!differences.isEmpty()) {
                List<Fix> fixes = new ArrayList<>();
                List<Edit> edits =
                        Parts.parameterEdits(
                                link.block().name(), link.block().type().identity(), link.part());
                if (!edits.isEmpty()) {
                    String label =
                            "Set %s up for %s".formatted(link.block().name(), link.part().name());
                    fixes.add(new Fix(label, new Edit.Several(label, edits)));
                }
                fixes.add(
                        new Fix(
                                "Let %s go".formatted(link.part().name()),
                                new Edit.Unbind(link.block().name(), link.form().name())));
                report.accept(finding(link.ref(), String.join("; ", differences), fixes));
            }
        }
    }
}
