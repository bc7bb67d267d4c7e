package polymetron.finding;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;

/** A hard block on a device that does not have it, or too many of them. */
final class HardBlockRule implements Rule {
    @Override
    public String id() {
        return "hard-block-missing";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Hard block that the device does not have";
    }

    @Override
    public String explanation() {
        return "A hard block is made of silicon, not of logic: on another device there is nothing"
                + " to use.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        if (platform.device() == null) {
            return;
        }
        Map<String, Integer> used = new HashMap<>();
        Map<String, List<Fix>> others = new HashMap<>();
        for (ElaboratedBlock block : platform.blocks()) {
            String needs = block.type().needs();
            if (needs == null) {
                continue;
            }
            int has = platform.device().hardBlocks(needs);
            if (used.merge(needs, 1, Integer::sum) > has) {
                report.accept(
                        finding(
                                block.name(),
                                has == 0
                                        ? "%s has no %s".formatted(platform.device().name(), needs)
                                        : "%s has %s of %s, this is one too many"
                                                .formatted(platform.device().name(), has, needs),
                                has == 0
                                        ? others.computeIfAbsent(
                                                needs,
                                                sort ->
                                                        OtherBoardFixes.with(
                                                                platform,
                                                                other ->
                                                                        other.hardBlocks(sort) > 0))
                                        : List.of()));
            }
        }
    }
}
