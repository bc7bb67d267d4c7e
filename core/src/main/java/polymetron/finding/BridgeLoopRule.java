package polymetron.finding;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.platform.Attachment;

/** Bridges lead back to a bus that they come from. */
final class BridgeLoopRule implements Rule {
    @Override
    public String id() {
        return "bridge-loop";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Loop of bridges";
    }

    @Override
    public String explanation() {
        return "An access never ends: each bus waits for the other to answer.";
    }

    private record Step(ElaboratedBlock bridge, String from, String to) {}

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Map<String, List<Step>> steps = new HashMap<>();
        List<Step> all = new ArrayList<>();
        for (ElaboratedBlock block : platform.blocks()) {
            Step step = step(block);
            if (step != null) {
                steps.computeIfAbsent(step.from(), from -> new ArrayList<>()).add(step);
                all.add(step);
            }
        }
        for (Step step : all) {
            if (leadsTo(step.to(), step.from(), steps)) {
                Bridge bridge = step.bridge().shape().bridge();
                report.accept(
                        finding(
                                new InterfaceRef(step.bridge().name(), bridge.downstream()),
                                "%s goes from %s to %s, from where bridges lead back to %s"
                                        .formatted(
                                                step.bridge().name(),
                                                step.from(),
                                                step.to(),
                                                step.from()),
                                List.of(
                                        new Fix(
                                                "Take %s off %s"
                                                        .formatted(step.bridge().name(), step.to()),
                                                new Edit.Detach(
                                                        step.bridge().name(),
                                                        bridge.downstream())))));
            }
        }
    }

    private static Step step(ElaboratedBlock block) {
        Bridge bridge = block.shape().bridge();
        if (bridge == null) {
            return null;
        }
        Attachment from = block.block().attachments().get(bridge.upstream());
        Attachment to = block.block().attachments().get(bridge.downstream());
        return from == null || to == null ? null : new Step(block, from.bus(), to.bus());
    }

    private static boolean leadsTo(String from, String goal, Map<String, List<Step>> steps) {
        Set<String> seen = new HashSet<>();
        Deque<String> waiting = new ArrayDeque<>(List.of(from));
        while (!waiting.isEmpty()) {
            String at = waiting.pop();
            if (at.equals(goal)) {
                return true;
            }
            if (seen.add(at)) {
                steps.getOrDefault(at, List.of()).forEach(step -> waiting.push(step.to()));
            }
        }
        return false;
    }
}
