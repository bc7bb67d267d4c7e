package polymetron.lookup;

import java.util.List;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;

/**
 * What one initiator finds at an address.
 *
 * @param target null when nothing answers
 * @param offset bytes from the target's base
 * @param hits registers there; several where registers share an address
 */
public record Place(AddressSpace space, TargetRange target, long offset, List<Hit> hits) {

    /** A register, and which one of its row. */
    public record Hit(Register register, int index) {
        public String name() {
            return register.name(index);
        }
    }
}
