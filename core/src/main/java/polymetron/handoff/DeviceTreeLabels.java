package polymetron.handoff;

import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Set;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.TargetRange;
import polymetron.library.Kind;

/**
 * The labels of a devicetree, each once. A block has its name; what is named after it (an interface, a hart's
 * interrupts, the software half of a timer), a clock, or a target seen a second time gives way with a number where
 * the name is taken.
 */
final class DeviceTreeLabels {
    private final Set<String> used = new HashSet<>();
    private final Map<TargetRange, String> targets = new IdentityHashMap<>();
    private final Map<TargetRange, String> software = new IdentityHashMap<>();
    private final Map<String, String> interrupts = new HashMap<>();
    private final Map<String, String> clocks = new HashMap<>();

    DeviceTreeLabels(SoftwareView view) {
        Set<String> blocks = new HashSet<>();
        for (ElaboratedBlock block : view.platform().blocks()) {
            blocks.add(block.name());
        }
        used.addAll(blocks);
        for (TargetRange target : view.seen()) {
            String name = target.label().replace('.', '_');
            // The first with the name of its block has it; everybody else asks.
            boolean own = name.equals(target.block().name()) && blocks.remove(name);
            targets.put(target, own ? name : free(name));
        }
        for (ElaboratedBlock block : view.platform().blocks()) {
            if (block.kind() == Kind.PROCESSOR) {
                interrupts.put(block.name(), free(block.name() + "_interrupts"));
            }
        }
        for (Domain domain : view.platform().domains()) {
            clocks.put(domain.name(), free("clock_" + domain.name()));
        }
        for (TargetRange target : view.seen()) {
            if ("riscv-aclint".equals(target.software().standard())) {
                software.put(target, free(targets.get(target) + "_software"));
            }
        }
    }

    private String free(String wanted) {
        String free = wanted;
        for (int number = 2; !used.add(free); number++) {
            free = wanted + "_" + number;
        }
        return free;
    }

    String of(TargetRange target) {
        return targets.get(target);
    }

    String interruptsOf(String processor) {
        return interrupts.get(processor);
    }

    String clockOf(String domain) {
        return clocks.get(domain);
    }

    /** The software interrupts of a machine timer, beside its time. */
    String softwareOf(TargetRange timer) {
        return software.get(timer);
    }
}
