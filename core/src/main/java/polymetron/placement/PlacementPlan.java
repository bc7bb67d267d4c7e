package polymetron.placement;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.address.FreeSpace;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.TargetRange;

/**
 * Places all ranges of a bus again, except held ones. Larger ranges come first: with natural alignment this
 * never leaves a hole that a smaller range could not use.
 *
 * @param moves ranges that get another base
 * @param homeless ranges for which no gap is left
 */
public record PlacementPlan(ElaboratedBus bus, List<Move> moves, List<TargetRange> homeless) {

    public static PlacementPlan of(ElaboratedBus bus) {
        List<AddressRange> taken = new ArrayList<>();
        List<TargetRange> free = new ArrayList<>(bus.unplaced());
        for (TargetRange target : bus.placed()) {
            if (target.held() || target.form().place() != null) {
                taken.add(target.range());
            } else {
                free.add(target);
            }
        }
        free.removeIf(target -> target.form().sizeBytes() == 0);
        free.sort(
                Comparator.<TargetRange, Long>comparing(
                                target -> target.form().sizeBytes(),
                                (one, other) -> Long.compareUnsigned(other, one))
                        .thenComparing(TargetRange::ref));
        List<Move> moves = new ArrayList<>();
        List<TargetRange> homeless = new ArrayList<>();
        for (TargetRange target : free) {
            FreeSpace space = new FreeSpace(bus.window(), taken);
            Optional<Address> base = Placement.baseIn(space, bus, target.form());
            if (base.isEmpty()) {
                homeless.add(target);
                continue;
            }
            taken.add(AddressRange.of(base.get().bits(), target.form().sizeBytes()));
            Address from = target.isPlaced() ? new Address(target.range().base()) : null;
            if (!base.get().equals(from)) {
                moves.add(new Move(target, from, base.get()));
            }
        }
        return new PlacementPlan(bus, List.copyOf(moves), List.copyOf(homeless));
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
}
