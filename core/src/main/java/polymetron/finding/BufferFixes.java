package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.edit.Edit;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.software.MemoryBuffer;
import polymetron.software.SoftwareView;

/** Places for a buffer that hardware writes: the end of each memory that has room for it there. */
final class BufferFixes {
    private BufferFixes() {}

    static List<Fix> of(ElaboratedPlatform platform, MemoryBuffer buffer) {
        List<Fix> fixes = new ArrayList<>();
        String parameter = buffer.role().base().parameter().orElse(null);
        AddressSpace space =
                platform.space(new InterfaceRef(buffer.block().name(), buffer.role().writer()))
                        .orElse(null);
        if (parameter == null || space == null) {
            return fixes;
        }
        long size = buffer.range().sizeBytes();
        for (TargetRange memory : space.ranges()) {
            boolean holds =
                    memory.form().isMemory()
                            && memory.form().isWritable()
                            && Long.compareUnsigned(memory.range().sizeBytes(), 2 * size) >= 0;
            if (!holds) {
                continue;
            }
            // Buffers are powers of two in practice: the last place that is a multiple of their
            // size.
            long aligned = Long.highestOneBit(Math.max(64, size));
            long base = (memory.range().last() - size + 1) / aligned * aligned;
            MemoryBuffer moved =
                    new MemoryBuffer(
                            buffer.block(), buffer.role(), AddressRange.of(base, size), memory);
            if (memory.range().contains(moved.range()) && isFree(platform, buffer, moved)) {
                fixes.add(
                        new Fix(
                                "Put the buffer at %s, in %s"
                                        .formatted(Address.format(base), memory.label()),
                                new Edit.SetParameter(
                                        buffer.block().name(), parameter, Address.format(base))));
            }
        }
        return fixes;
    }

    private static boolean isFree(
            ElaboratedPlatform platform, MemoryBuffer old, MemoryBuffer moved) {
        for (SoftwareView view : SoftwareView.all(platform)) {
            AddressRange code = view.program() == null ? null : moved.seenIn(view.program());
            if (code != null && code.contains(view.harts().getFirst().resetVector())) {
                return false;
            }
        }
        for (MemoryBuffer other : MemoryBuffer.of(platform)) {
            AddressRange seen = other.seenIn(moved.memory());
            if (other != old && seen != null && seen.overlaps(moved.range())) {
                return false;
            }
        }
        return true;
    }
}
