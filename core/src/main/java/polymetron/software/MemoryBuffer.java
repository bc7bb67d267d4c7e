package polymetron.software;

import java.util.ArrayList;
import java.util.List;
import polymetron.address.AddressRange;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.Pass;
import polymetron.elaborate.TargetRange;
import polymetron.library.Capability;

/**
 * A buffer in memory that hardware writes by itself, where its parameters put it.
 *
 * @param block who writes it
 * @param range where the writer sees it
 * @param memory the memory that its first byte is in, as the writer sees it; null when there is none
 */
public record MemoryBuffer(
        ElaboratedBlock block, Capability.Buffer role, AddressRange range, TargetRange memory) {

    /** Every such buffer of a platform. */
    public static final Pass<List<MemoryBuffer>> PASS =
            Pass.named("buffers in memory", MemoryBuffer::find);

    public static List<MemoryBuffer> of(ElaboratedPlatform platform) {
        return platform.result(PASS);
    }

    private static List<MemoryBuffer> find(ElaboratedPlatform platform) {
        List<MemoryBuffer> found = new ArrayList<>();
        for (ElaboratedBlock block : platform.blocks()) {
            for (Capability.Buffer role : block.type().provides(Capability.Buffer.class)) {
                long bytes = block.shape().number(role.bytes(), 0);
                boolean isSettled =
                        role.when() == null || block.shape().number(role.when(), 1) != 0;
                AddressSpace space =
                        platform.space(new InterfaceRef(block.name(), role.writer())).orElse(null);
                if (!isSettled || bytes <= 0 || space == null) {
                    continue;
                }
                AddressRange range = AddressRange.of(block.shape().number(role.base(), 0), bytes);
                TargetRange memory =
                        space.at(range.base())
                                .filter(target -> target.form().isMemory())
                                .orElse(null);
                found.add(new MemoryBuffer(block, role, range, memory));
            }
        }
        return List.copyOf(found);
    }

    /** Whether it lies in one memory from beginning to end. */
    public boolean isInMemory() {
        return memory != null && memory.range().contains(range);
    }

    /** Address for an initiator that sees its memory as another target; null when it is in none. */
    public AddressRange seenIn(TargetRange other) {
        if (memory == null || !memory.isSameMemoryAs(other)) {
            return null;
        }
        long offset = range.base() - memory.range().base();
        long seen = other.range().base() + offset;
        return other.range().contains(seen)
                ? AddressRange.of(seen, range.sizeBytes()).part(other.range()).orElse(null)
                : null;
    }
}
