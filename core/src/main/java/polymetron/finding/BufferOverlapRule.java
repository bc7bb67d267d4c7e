package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.software.MemoryBuffer;
import polymetron.software.ProgramRegions;
import polymetron.software.SoftwareView;

/** Hardware writes over a program, or over the buffer of another block. */
final class BufferOverlapRule extends PlainRule {
    BufferOverlapRule() {
        super(
                "buffer-over-program",
                Grade.ERROR,
                "Buffer over a program or another buffer",
                "The block writes to these addresses by itself, whatever is there: instructions,"
                        + " variables, or what another block has written.");
    }

    /** Less than that is left to no program: its stack alone takes it. */
    private static final long LEAST = 1024;

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        List<MemoryBuffer> buffers = MemoryBuffer.of(platform);
        for (int at = 0; at < buffers.size(); at++) {
            MemoryBuffer buffer = buffers.get(at);
            for (SoftwareView view : SoftwareView.all(platform)) {
                String over = over(view, buffer);
                if (over != null) {
                    report(platform, buffer, over, report);
                }
            }
            for (MemoryBuffer other : buffers.subList(0, at)) {
                AddressRange seen = buffer.memory() == null ? null : other.seenIn(buffer.memory());
                if (seen != null && seen.overlaps(buffer.range())) {
                    report(platform, buffer, "the buffer of " + other.block().name(), report);
                }
            }
        }
    }

    private void report(
            ElaboratedPlatform platform,
            MemoryBuffer buffer,
            String over,
            Consumer<Finding> report) {
        report.accept(
                finding(
                        buffer.block().name() + "." + buffer.role().base(),
                        "%s writes %s to %s, over %s"
                                .formatted(
                                        buffer.block().name(),
                                        Address.format(buffer.range().base()),
                                        Address.format(buffer.range().last()),
                                        over),
                        BufferFixes.of(platform, buffer)));
    }

    /** What of a program a buffer takes; null when it leaves it enough. */
    private static String over(SoftwareView view, MemoryBuffer buffer) {
        TargetRange program = view.program();
        if (program == null) {
            return null;
        }
        AddressRange code = buffer.seenIn(program);
        if (code != null && code.contains(view.harts().getFirst().resetVector())) {
            return "the start of the program of " + view.name();
        }
        TargetRange data = view.dataMemory().orElse(null);
        boolean isInData = data != null && buffer.seenIn(data) != null;
        if (code == null && !isInData) {
            return null;
        }
        try {
            ProgramRegions regions = ProgramRegions.of(view);
            boolean enough =
                    Long.compareUnsigned(regions.data().range().sizeBytes(), LEAST) >= 0
                            && Long.compareUnsigned(regions.code().range().sizeBytes(), LEAST) >= 0;
            return enough ? null : "nearly all the memory of the program of " + view.name();
        } catch (ProgramRegions.NoRegions none) {
            return view.dataMemory().isEmpty()
                    ? null
                    : "the memory of the program of " + view.name();
        }
    }
}
