package polymetron.placement;

import polymetron.address.Address;
import polymetron.elaborate.TargetRange;

/**
 * A range that placing again moves.
 *
 * @param from null when it had no place
 */
public record Move(TargetRange target, Address from, Address to) {}
