package polymetron.placement;

import java.util.Set;
import polymetron.elaborate.InterfaceRef;

/**
 * What the user wants of automatic placement.
 *
 * @param fewestMoves whether ranges that neither overlap nor are misaligned stay where they are
 * @param staying ranges that are not to move
 */
public record PlacementWish(boolean fewestMoves, Set<InterfaceRef> staying) {
    public static final PlacementWish COMPACT = new PlacementWish(false, Set.of());
    public static final PlacementWish FEWEST_MOVES = new PlacementWish(true, Set.of());

    public PlacementWish {
        staying = Set.copyOf(staying);
    }
}
