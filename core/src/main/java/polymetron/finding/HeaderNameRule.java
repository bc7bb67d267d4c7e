package polymetron.finding;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.software.HeaderClashes;
import polymetron.platform.Names;
import polymetron.software.SoftwareView;

/** Two names lead to one macro of the C header. */
final class HeaderNameRule extends PlainRule {
    HeaderNameRule() {
        super(
                "header-name",
                Grade.ERROR,
                "Names that clash in the C header",
                "Macros are made of the names of blocks and of what belongs to them. Two of them"
                        + " with one name do not compile, or give software the wrong one.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Set<Set<String>> told = new HashSet<>();
        for (SoftwareView view : SoftwareView.all(platform)) {
            for (HeaderClashes.Clash clash : HeaderClashes.of(view)) {
                Set<String> pair = new HashSet<>();
                pair.add(clash.block());
                pair.add(clash.other());
                if (told.add(pair)) {
                    report.accept(clash(platform, clash));
                }
            }
        }
    }

    private Finding clash(ElaboratedPlatform platform, HeaderClashes.Clash clash) {
        List<Fix> fixes = new ArrayList<>();
        if (!clash.block().equals(clash.other())) {
            fixes.add(rename(platform, clash.block()));
            if (clash.other() != null) {
                fixes.add(rename(platform, clash.other()));
            }
        }
        return finding(
                clash.block(),
                clash.other() == null
                        ? "%s leads to the macro %s, which C or the header itself has"
                                .formatted(clash.block(), clash.macro())
                        : "%s and %s both lead to the macro %s"
                                .formatted(clash.other(), clash.block(), clash.macro()),
                fixes);
    }

    /** A name that begins with no other block's, so that nothing else can lead to its macros. */
    private static Fix rename(ElaboratedPlatform platform, String block) {
        String other = Names.free("block_" + block, platform.blockIndex().keySet());
        String name =
                Names.isName(other) ? other : Names.free("block", platform.blockIndex().keySet());
        return new Fix("Rename %s to %s".formatted(block, name), new Edit.RenameBlock(block, name));
    }
}
