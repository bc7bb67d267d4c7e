package polymetron.output.software;

import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Set;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.TargetRange;
import polymetron.platform.Names;
import polymetron.software.Hart;
import polymetron.software.SoftwareView;

/**
 * The labels of a devicetree, each once. A block has its name; what is named after it (an interface, a hart's
 * interrupts, the software half of a timer), a clock, or a target seen a second time gives way with a number where
 * the name is taken.
 */
final class DeviceTreeLabels {
    private final Set<String> used = new HashSet<>();
    private final Map<TargetRange, String> targets = new IdentityHashMap<>();
    private final Map<String, String> derived = new HashMap<>();

    DeviceTreeLabels(SoftwareView view) {
        Set<String> blocks = new HashSet<>();
        view.platform().blocks().forEach(block -> blocks.add(block.name()));
        used.addAll(blocks);
        for (TargetRange target : view.seen()) {
            String name = target.label().replace('.', '_');
            // The first with the name of its block has it; everybody else asks.
            boolean own = name.equals(target.block().name()) && blocks.remove(name);
            targets.put(target, own ? name : free(name));
        }
    }

    private String free(String wish) {
        String free = Names.free(wish, used);
        used.add(free);
        return free;
    }

    String of(TargetRange target) {
        return targets.get(target);
    }

    /** A hart has the name of its block; further ones are numbered. */
    String of(Hart hart) {
        return hart.index() == 0
                ? hart.block().name()
                : derived.computeIfAbsent(
                        "hart %s %s".formatted(hart.block().name(), hart.index()),
                        key -> free("%s_hart%s".formatted(hart.block().name(), hart.index())));
    }

    String interruptsOf(Hart hart) {
        return derived.computeIfAbsent(
                "interrupts " + hart.id(), key -> free(of(hart) + "_interrupts"));
    }

    /** The buffer that a block writes by itself. */
    String bufferOf(ElaboratedBlock block) {
        return derived.computeIfAbsent(
                "buffer " + block.name(), key -> free(block.name() + "_buffer"));
    }

    String clockOf(String domain) {
        return derived.computeIfAbsent("clock " + domain, key -> free("clock_" + domain));
    }

    /** The software interrupts of a machine timer, beside its time. */
    String softwareOf(TargetRange timer) {
        return derived.computeIfAbsent(
                "software " + of(timer), key -> free(of(timer) + "_software"));
    }
}
