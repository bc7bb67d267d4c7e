package polymetron.interrupt;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.Pass;

/** The ways of interrupts from their sources through controllers to harts. */
public final class InterruptWays {
    public static final Pass<InterruptWays> PASS =
            Pass.named("ways of interrupts", InterruptWays::new);

    private static final String TO_CONTROLLER = "device";
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

    /** The links on the way, the source's own first; controllers in a circle are passed once. */
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
