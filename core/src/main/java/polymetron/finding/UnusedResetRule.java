package polymetron.finding;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.ResetOutput;

/** A block makes a reset that no domain takes. */
final class UnusedResetRule extends PlainRule {
    UnusedResetRule() {
        super(
                "reset-output-unused",
                Grade.NOTE,
                "Reset that resets nothing",
                "A watchdog, say, that resets no domain changes nothing when it fires.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Set<String> taken = new HashSet<>();
        platform.domains().forEach(domain -> taken.add(domain.domain().reset()));
        for (ElaboratedBlock block : platform.blocks()) {
            for (ResetOutput output : block.type().resetOutputs()) {
                String ref = block.name() + "." + output.name();
                if (!taken.contains(ref)) {
                    report.accept(
                            finding(
                                    ref,
                                    "no clock domain is reset by %s".formatted(ref),
                                    fixes(platform, block, ref)));
                }
            }
        }
    }

    /** Any domain but those of the block, which would reset itself. */
    private static List<Fix> fixes(ElaboratedPlatform platform, ElaboratedBlock block, String ref) {
        return platform.domains().stream()
                .filter(domain -> !block.block().domains().containsValue(domain.name()))
                .map(
                        domain ->
                                new Fix(
                                        "Reset %s by %s".formatted(domain.name(), ref),
                                        new Edit.ChangeDomain(domain.domain().withReset(ref))))
                .toList();
    }
}
