package polymetron.placement;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.address.FreeSpace;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.TargetRange;

/**
 * Places all ranges of a bus again, except held ones, as {@link Placement} says: memories first, then registers, larger
 * ones first. With natural alignment that never leaves a hole that a smaller range could not use, and each range stays
 * within the smallest aligned region around its sort that has room; so the ranges of a sort span as few address bits as
 * they can. Where no range of the sort is held, every gap is tried for the first one, up to a limit. When one sort leaves
 * no room for the other, both are placed from the bottom.
 *
 * @param moves ranges that get another base
 * @param unplaceable ranges for which no gap is left, and what is in their way
 */
public record PlacementPlan(ElaboratedBus bus, List<Move> moves, List<Unplaceable> unplaceable) {
    /** More tries for the first range than this take longer than anybody waits. */
    private static final int MOST_WORK = 20_000;

    private static final Comparator<TargetRange> LARGEST_FIRST =
            Comparator.<TargetRange, Boolean>comparing(target -> target.form().place() == null)
                    .thenComparing(
                            target -> target.form().sizeBytes(),
                            (one, other) -> Long.compareUnsigned(other, one))
                    .thenComparing(TargetRange::ref);

    public static PlacementPlan of(ElaboratedBus bus) {
        return of(bus, PlacementWish.COMPACT);
    }

    public static PlacementPlan of(ElaboratedBus bus, PlacementWish wish) {
        return of(bus, bus.reachable(), Map.of(), wish);
    }

    /**
     * @param window addresses that can be used
     * @param sizes ranges that are to have another size than they have now, in bytes
     * @param wish what the user wants of it
     */
    static PlacementPlan of(
            ElaboratedBus bus,
            AddressRange window,
            Map<InterfaceRef, Long> sizes,
            PlacementWish wish) {
        List<TargetRange> fixed = new ArrayList<>();
        List<TargetRange> free = new ArrayList<>();
        for (TargetRange target : bus.unplaced()) {
            free.add(sized(target, sizes));
        }
        for (TargetRange target : bus.placed()) {
            boolean stays =
                    target.held()
                            || target.range().equals(target.form().place())
                            || wish.staying().contains(target.ref());
            if (stays) {
                fixed.add(target);
            } else {
                free.add(sized(target, sizes));
            }
        }
        free.removeIf(target -> target.form().sizeBytes() == 0);
        Attempt best = wish.fewestMoves() ? around(bus, window, fixed, free) : null;
        if (best == null) {
            best = settled(bus, window, fixed, free);
            if (!best.left.isEmpty()) {
                Attempt other = around(bus, window, fixed, free);
                best = other.left.size() < best.left.size() ? other : best;
            }
        }
        return best.plan();
    }

    /** Moves only what overlaps or cannot be decoded. */
    private static Attempt around(
            ElaboratedBus bus,
            AddressRange window,
            List<TargetRange> fixed,
            List<TargetRange> free) {
        List<TargetRange> staying = new ArrayList<>(fixed);
        List<TargetRange> moving = new ArrayList<>(free);
        for (TargetRange target : inNobodysWay(bus, window, fixed, free)) {
            staying.add(target);
            moving.removeIf(each -> each.ref().equals(target.ref()));
        }
        return settled(bus, window, staying, moving);
    }

    /** What has no better place stays where it is, and nothing else goes there. */
    private static Attempt settled(
            ElaboratedBus bus,
            AddressRange window,
            List<TargetRange> fixed,
            List<TargetRange> free) {
        List<TargetRange> stuck = new ArrayList<>();
        while (true) {
            List<TargetRange> staying = new ArrayList<>(fixed);
            staying.addAll(stuck);
            List<TargetRange> moving = new ArrayList<>(free);
            moving.removeAll(stuck);
            Attempt attempt = attempt(bus, window, staying, moving);
            if (!stuck.addAll(attempt.left.stream().filter(TargetRange::isPlaced).toList())) {
                attempt.left.addAll(stuck);
                attempt.fixed.removeAll(stuck);
                return attempt;
            }
        }
    }

    private static Attempt attempt(
            ElaboratedBus bus,
            AddressRange window,
            List<TargetRange> fixed,
            List<TargetRange> free) {
        Attempt best = Attempt.apart(bus, window, fixed, free);
        if (best.left.size() > 0) {
            Attempt together = new Attempt(bus, window, fixed);
            together.place(free);
            if (together.left.size() < best.left.size()) {
                best = together;
            }
        }
        return best;
    }

    /** Ranges that are aligned, within the window and apart from each other; of two that overlap the larger. */
    private static List<TargetRange> inNobodysWay(
            ElaboratedBus bus,
            AddressRange window,
            List<TargetRange> fixed,
            List<TargetRange> free) {
        List<AddressRange> taken = new ArrayList<>();
        bus.kept().forEach(each -> taken.add(each.range()));
        fixed.forEach(target -> taken.add(target.range()));
        free.stream()
                .map(target -> target.form().place())
                .filter(Objects::nonNull)
                .forEach(taken::add);
        List<TargetRange> well = new ArrayList<>();
        for (TargetRange target : free.stream().sorted(LARGEST_FIRST).toList()) {
            if (!target.isPlaced() || target.form().place() != null) {
                continue;
            }
            long room = Placement.room(bus, target.form());
            // The range of a target at the end of all addresses is cut; an aligned one never is.
            boolean aligned = (target.range().base() & (Address.powerOfTwoAtLeast(room) - 1)) == 0;
            AddressRange range =
                    aligned
                            ? AddressRange.of(target.range().base(), target.form().sizeBytes())
                            : target.range();
            if (aligned && window.contains(range) && taken.stream().noneMatch(range::overlaps)) {
                taken.add(range);
                well.add(
                        new TargetRange(target.block(), target.form(), range, false, target.via()));
            }
        }
        return well;
    }

    private static TargetRange sized(TargetRange target, Map<InterfaceRef, Long> sizes) {
        Long size = sizes.get(target.ref());
        return size == null
                ? target
                : new TargetRange(
                        target.block(),
                        target.form().withSize(size),
                        target.range(),
                        target.held(),
                        target.via());
    }

    /** Last address that is taken once the plan is carried out; empty for a bus without ranges. */
    Optional<Address> lastTaken() {
        Map<InterfaceRef, Move> moved = new HashMap<>();
        moves.forEach(move -> moved.put(move.target().ref(), move));
        long last = 0;
        boolean any = false;
        for (TargetRange target : bus.placed()) {
            if (!moved.containsKey(target.ref())) {
                any = true;
                last = max(last, target.range().last());
            }
        }
        for (Move move : moves) {
            any = true;
            last = max(last, move.to().bits() + move.target().form().sizeBytes() - 1);
        }
        return any ? Optional.of(new Address(last)) : Optional.empty();
    }

    private static long max(long one, long other) {
        return Long.compareUnsigned(one, other) >= 0 ? one : other;
    }

    /** The plan as one edit. */
    public Edit asEdit() {
        return new Edit.Several(
                "place the ranges of %s again".formatted(bus.name()),
                moves.stream()
                        .<Edit>map(
                                move ->
                                        new Edit.Attach(
                                                move.target().block().name(),
                                                move.target().form().name(),
                                                bus.name(),
                                                move.to(),
                                                null))
                        .toList());
    }

    /** Places ranges one after the other around those that stay. */
    private static final class Attempt {
        private final ElaboratedBus bus;
        private final AddressRange window;
        private final List<TargetRange> fixed;
        private final List<AddressRange> taken = new ArrayList<>();
        private final Map<TargetRange, Address> bases = new HashMap<>();
        private final List<TargetRange> left = new ArrayList<>();

        private Attempt(ElaboratedBus bus, AddressRange window, List<TargetRange> fixed) {
            this.bus = bus;
            this.window = window;
            this.fixed = fixed;
            bus.kept().forEach(each -> taken.add(each.range()));
            fixed.forEach(target -> taken.add(target.range()));
        }

        private static Attempt apart(
                ElaboratedBus bus,
                AddressRange window,
                List<TargetRange> fixed,
                List<TargetRange> free) {
            Attempt attempt = new Attempt(bus, window, fixed);
            if (Placement.isShort(bus)) {
                attempt.place(free);
            } else {
                attempt.place(free.stream().filter(target -> target.form().isMemory()).toList());
                attempt.place(free.stream().filter(target -> !target.form().isMemory()).toList());
            }
            return attempt;
        }

        /** Places ranges of one sort. */
        private void place(List<TargetRange> sort) {
            if (sort.isEmpty()) {
                return;
            }
            List<TargetRange> ordered = sort.stream().sorted(LARGEST_FIRST).toList();
            SizedInterface form = ordered.getFirst().form();
            AddressRange peers =
                    Placement.hull(
                            fixed.stream()
                                    .filter(each -> Placement.isPeer(bus, form, each.form()))
                                    .map(TargetRange::range)
                                    .toList());
            Run best = run(ordered, peers, null);
            if (peers == null) {
                long anchor = Placement.anchor(bus, window, form);
                List<AddressRange> gaps = new FreeSpace(window, taken).gaps();
                long work = (long) gaps.size() * ordered.size();
                if (gaps.size() > 1 && work * gaps.size() <= MOST_WORK) {
                    for (AddressRange gap : gaps) {
                        if (Long.compareUnsigned(gap.last(), anchor) >= 0) {
                            Run other = run(ordered, null, gap);
                            best = other.isBetterThan(best) ? other : best;
                        }
                    }
                }
            }
            taken.addAll(best.taken);
            bases.putAll(best.bases);
            left.addAll(best.left);
        }

        private record Run(
                Map<TargetRange, Address> bases,
                List<AddressRange> taken,
                List<TargetRange> left,
                AddressRange hull) {
            private boolean isBetterThan(Run other) {
                if (left.size() != other.left.size()) {
                    return left.size() < other.left.size();
                }
                return hull != null
                        && other.hull != null
                        && hull.spanBits() < other.hull.spanBits();
            }
        }

        /**
         * @param start gap that the first range goes into; null for where the policy puts it
         */
        private Run run(List<TargetRange> ordered, AddressRange peers, AddressRange start) {
            Run run = new Run(new HashMap<>(), new ArrayList<>(), new ArrayList<>(), null);
            List<AddressRange> all = new ArrayList<>(taken);
            AddressRange hull = peers;
            for (TargetRange target : ordered) {
                FreeSpace free = new FreeSpace(window, all);
                Optional<Address> base = Optional.empty();
                if (hull == null && start != null && target.form().place() == null) {
                    long room = Placement.room(bus, target.form());
                    base = free.place(room, Address.powerOfTwoAtLeast(room), start);
                }
                if (base.isEmpty()) {
                    base = Placement.baseIn(free, bus, window, target.form(), hull);
                }
                if (base.isEmpty()) {
                    run.left.add(target);
                    continue;
                }
                AddressRange range = AddressRange.of(base.get().bits(), target.form().sizeBytes());
                all.add(range);
                run.taken.add(range);
                run.bases.put(target, base.get());
                hull = hull == null ? range : hull.hull(range);
            }
            return new Run(run.bases, run.taken, run.left, hull);
        }

        private PlacementPlan plan() {
            List<Move> moves = new ArrayList<>();
            bases.keySet().stream()
                    .sorted(LARGEST_FIRST)
                    .forEach(
                            target -> {
                                Address from =
                                        target.isPlaced()
                                                ? new Address(target.range().base())
                                                : null;
                                if (!bases.get(target).equals(from)) {
                                    moves.add(new Move(target, from, bases.get(target)));
                                }
                            });
            List<TargetRange> around = new ArrayList<>(fixed);
            bases.forEach(
                    (target, base) ->
                            around.add(
                                    new TargetRange(
                                            target.block(),
                                            target.form(),
                                            AddressRange.of(base.bits(), target.form().sizeBytes()),
                                            false,
                                            List.of())));
            return new PlacementPlan(
                    bus,
                    List.copyOf(moves),
                    left.stream()
                            .map(target -> Unplaceable.of(bus, window, target, around))
                            .toList());
        }
    }
}
