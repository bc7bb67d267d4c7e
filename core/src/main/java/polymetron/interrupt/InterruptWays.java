package polymetron.interrupt;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.Pass;
import polymetron.library.Kind;

/** The ways of interrupts from their sources through controllers to harts. */
public final class InterruptWays {
    public static final Pass<InterruptWays> PASS =
            Pass.named("ways of interrupts", InterruptWays::new);

    /** The sort of line that goes from a block into an interrupt controller. */
    public static final String TO_CONTROLLER = "device";

    private static final String EXTERNAL = "external";

    /** Where the first connected line of a controller leads on, by the controller's name. */
    private final Map<String, InterruptLink> onward = new HashMap<>();

    private InterruptWays(ElaboratedPlatform platform) {
        for (InterruptLink link : platform.interrupts()) {
            if (link.isConnected() && link.source().type().line().equals(EXTERNAL)) {
                onward.putIfAbsent(link.block().name(), link);
            }
        }
    }

    public static InterruptWays of(ElaboratedPlatform platform) {
        return platform.result(PASS);
    }

    /** The links on the way, the source's own first; controllers in a loop are passed once. */
    public List<InterruptLink> from(InterruptLink source) {
        List<InterruptLink> way = new ArrayList<>();
        Set<String> passed = new HashSet<>();
        InterruptLink at = source;
        while (at != null && at.isConnected() && passed.add(at.block().name())) {
            way.add(at);
            boolean goesOn = at.sink().type().line().equals(TO_CONTROLLER);
            at = goesOn ? onward.get(at.sinkBlock().name()) : null;
        }
        return way;
    }

    /** Whether what comes into a port of a block gets to a hart: into a processor, or through controllers. */
    public boolean leadsToHart(ElaboratedBlock block, String line) {
        ElaboratedBlock at = block;
        Set<String> passed = new HashSet<>();
        while (line.equals(TO_CONTROLLER) && at.kind() != Kind.PROCESSOR && passed.add(at.name())) {
            InterruptLink next = onward.get(at.name());
            if (next == null) {
                return false;
            }
            if (!next.sink().type().line().equals(TO_CONTROLLER)) {
                return true;
            }
            at = next.sinkBlock();
        }
        return !line.equals(TO_CONTROLLER) || at.kind() == Kind.PROCESSOR;
    }

    /** Whether the way leads back to a controller that it passed. */
    public boolean isCircle(InterruptLink source) {
        Set<String> passed = new HashSet<>(Set.of(source.block().name()));
        for (InterruptLink link : from(source)) {
            if (link.sink().type().line().equals(TO_CONTROLLER)
                    && !passed.add(link.sinkBlock().name())) {
                return true;
            }
        }
        return false;
    }
}
