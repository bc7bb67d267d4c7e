package polymetron.elaborate;

import java.util.Comparator;
import java.util.List;
import polymetron.address.AddressRange;
import polymetron.library.SoftwareBinding;

/**
 * A target on a bus.
 *
 * @param range where it is; null as long as it has no place
 * @param held whether automatic placement leaves it there
 * @param via bridges between it and who sees it, from the outside in; empty on the bus itself
 */
public record TargetRange(
        ElaboratedBlock block,
        SizedInterface form,
        AddressRange range,
        boolean held,
        List<String> via) {
    static final Comparator<TargetRange> BY_ADDRESS =
            Comparator.comparing(TargetRange::range).thenComparing(TargetRange::ref);

    /** The same target as it is seen through bridges. */
    TargetRange seenAt(AddressRange place, List<String> through) {
        return new TargetRange(block, form, place, held, List.copyOf(through));
    }

    public InterfaceRef ref() {
        return new InterfaceRef(block.name(), form.name());
    }

    /** Whether it is the window of a bridge, with nothing of its own behind it. */
    public boolean isWindow() {
        Bridge bridge = block.shape().bridge();
        return bridge != null && bridge.upstream().equals(form.name());
    }

    public boolean isPlaced() {
        return range != null;
    }

    /** Whether both lead to one memory: a block has one, however many ports it has. */
    public boolean isSameMemoryAs(TargetRange other) {
        return form.isMemory() && other.form.isMemory() && block == other.block;
    }

    /** Whether the device's configuration puts contents into the memory. */
    public boolean isFilledByBitstream() {
        return form.isMemory()
                && block.shape().memories().stream().anyMatch(SizedMemory::hasContents);
    }

    /** What a person calls it: the block, and the interface where the block has more than one. */
    public String label() {
        return block.shape().hasSeveralTargets() ? ref().toString() : block.name();
    }

    /** The registers behind it. */
    public List<Register> registers() {
        return block.shape().registersOf(form.name());
    }

    /** How software finds and drives what is behind it. */
    public SoftwareBinding software() {
        return form.type().software() == null ? block.type().software() : form.type().software();
    }
}
