package polymetron.placement;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.edit.Edit;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.TargetRange;
import polymetron.library.ParameterType;
import polymetron.platform.Attachment;

/**
 * Places the ranges of all buses again. A bus behind a bridge comes before the one in front of it, because what it needs
 * makes the window: a window of which more than three quarters would be taken is made larger, so that there is room to
 * grow. A held window keeps its size, and no window is made smaller.
 *
 * @param plans one for each bus, in the order of the document
 * @param windows bridges whose windows grow
 */
public record PlatformPlacement(List<PlacementPlan> plans, List<Growth> windows) {
    /**
     * A window that grows.
     *
     * @param parameter parameter of the bridge that is the size
     * @param from bytes now
     * @param to bytes afterwards, a power of two
     */
    public record Growth(ElaboratedBlock bridge, String parameter, long from, long to) {}

    public static PlatformPlacement of(ElaboratedPlatform platform) {
        return of(platform, PlacementWish.COMPACT);
    }

    public static PlatformPlacement of(ElaboratedPlatform platform, PlacementWish wish) {
        Set<InterfaceRef> asTheyAre = new HashSet<>();
        while (true) {
            Planner planner = new Planner(platform, asTheyAre, wish);
            PlatformPlacement plan = planner.plan();
            // Where the bus in front has no room for a larger window, it stays as it is.
            boolean fits = true;
            for (PlacementPlan each : plan.plans()) {
                for (Unplaceable left : each.unplaceable()) {
                    if (planner.growths.containsKey(left.target().ref())) {
                        asTheyAre.add(left.target().ref());
                        fits = false;
                    }
                }
            }
            if (fits) {
                return plan;
            }
        }
    }

    /** Whether nothing would change. */
    public boolean isEmpty() {
        return windows.isEmpty() && plans.stream().allMatch(plan -> plan.moves().isEmpty());
    }

    /** The plan as one edit; what points into memories follows them. */
    public Edit asEdit(ElaboratedPlatform platform) {
        return Followers.with(platform, moving());
    }

    /** What has to follow the ranges that move. */
    public List<Edit> followers(ElaboratedPlatform platform) {
        return Followers.of(platform, moving());
    }

    private Edit moving() {
        List<Edit> edits = new ArrayList<>();
        for (Growth growth : windows) {
            edits.add(
                    new Edit.SetParameter(
                            growth.bridge().name(),
                            growth.parameter(),
                            Long.toUnsignedString(growth.to())));
        }
        for (PlacementPlan plan : plans) {
            if (!plan.moves().isEmpty()) {
                edits.add(plan.asEdit());
            }
        }
        return new Edit.Several("place ranges automatically", edits);
    }

    private static final class Planner {
        private final ElaboratedPlatform platform;
        private final Map<String, PlacementPlan> plans = new HashMap<>();
        private final Map<InterfaceRef, Growth> growths = new LinkedHashMap<>();
        private final Set<String> begun = new HashSet<>();

        private final Set<InterfaceRef> asTheyAre;
        private final PlacementWish wish;

        private Planner(
                ElaboratedPlatform platform, Set<InterfaceRef> asTheyAre, PlacementWish wish) {
            this.platform = platform;
            this.asTheyAre = asTheyAre;
            this.wish = wish;
        }

        private PlatformPlacement plan() {
            platform.buses().forEach(this::plan);
            return new PlatformPlacement(
                    platform.buses().stream().map(bus -> plans.get(bus.name())).toList(),
                    List.copyOf(growths.values()));
        }

        private void plan(ElaboratedBus bus) {
            if (!begun.add(bus.name())) {
                return;
            }
            List<TargetRange> targets = new ArrayList<>(bus.placed());
            targets.addAll(bus.unplaced());
            for (TargetRange target : targets) {
                if (target.isWindow()) {
                    behind(target.block()).ifPresent(this::plan);
                }
            }
            InitiatorPort bridge = growingBridge(bus);
            AddressRange window = bus.window();
            if (bridge != null) {
                window = widest(bridge, bus);
            }
            Map<InterfaceRef, Long> sizes = new HashMap<>();
            growths.forEach((ref, growth) -> sizes.put(ref, growth.to()));
            PlacementPlan plan = PlacementPlan.of(bus, window, sizes, wish);
            plans.put(bus.name(), plan);
            if (bridge != null) {
                grow(bridge, plan);
            }
        }

        private Optional<ElaboratedBus> behind(ElaboratedBlock bridge) {
            Attachment below =
                    bridge.block().attachments().get(bridge.shape().bridge().downstream());
            return below == null ? Optional.empty() : platform.bus(below.bus());
        }

        /** The only bridge to a bus, when its window may grow; null otherwise. */
        private InitiatorPort growingBridge(ElaboratedBus bus) {
            if (bus.initiators().size() != 1 || !bus.isBehindBridge()) {
                return null;
            }
            InitiatorPort only = bus.initiators().getFirst();
            Bridge bridge = only.block().shape().bridge();
            SizedInterface upstream = upstream(only.block());
            Attachment above = only.block().block().attachments().get(bridge.upstream());
            boolean isHeld = above != null && above.staysPut();
            InterfaceRef window = new InterfaceRef(only.block().name(), upstream.name());
            boolean stays = isHeld || asTheyAre.contains(window) || wish.staying().contains(window);
            return stays || bridge.window() == null || upstream.sizeParameter().isEmpty()
                    ? null
                    : only;
        }

        private static SizedInterface upstream(ElaboratedBlock bridge) {
            return bridge.shape().busInterface(bridge.shape().bridge().upstream()).orElseThrow();
        }

        /** Everything that the largest window shows. */
        private static AddressRange widest(InitiatorPort bridge, ElaboratedBus bus) {
            long origin = bridge.block().shape().bridge().window().base();
            AddressRange all = AddressRange.of(origin, largest(bridge.block()));
            return all.part(bus.addresses()).orElse(bus.window());
        }

        private static long largest(ElaboratedBlock bridge) {
            String name = upstream(bridge).sizeParameter().orElseThrow();
            ParameterType type = bridge.type().parameter(name).orElseThrow();
            long now = bridge.shape().bridge().window().sizeBytes();
            return type.maximum() == null ? now : bridge.shape().number(type.maximum(), now);
        }

        private void grow(InitiatorPort bridge, PlacementPlan plan) {
            AddressRange now = bridge.block().shape().bridge().window();
            long needed =
                    plan.lastTaken()
                            .map(Address::bits)
                            .filter(last -> Long.compareUnsigned(last, now.base()) >= 0)
                            .map(last -> last - now.base() + 1)
                            .orElse(0L);
            long wanted = Address.powerOfTwoAtLeast(needed);
            // A window with room to grow is a wish of its own; who wants few moves has not got it.
            long enough = wish.fewestMoves() ? now.sizeBytes() : now.sizeBytes() / 4 * 3;
            if (!wish.fewestMoves() && Long.compareUnsigned(needed, wanted / 4 * 3) > 0) {
                wanted *= 2;
            }
            wanted = Math.min(wanted, Long.highestOneBit(largest(bridge.block())));
            if (Long.compareUnsigned(wanted, now.sizeBytes()) > 0
                    && Long.compareUnsigned(needed, enough) > 0) {
                SizedInterface upstream = upstream(bridge.block());
                growths.put(
                        new InterfaceRef(bridge.block().name(), upstream.name()),
                        new Growth(
                                bridge.block(),
                                upstream.sizeParameter().orElseThrow(),
                                now.sizeBytes(),
                                wanted));
            }
        }
    }
}
