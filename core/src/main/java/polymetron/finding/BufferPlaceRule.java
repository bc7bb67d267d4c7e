package polymetron.finding;

import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.software.MemoryBuffer;

/** Hardware writes a buffer where there is no memory for it. */
final class BufferPlaceRule extends PlainRule {
    BufferPlaceRule() {
        super(
                "buffer-outside-memory",
                Grade.ERROR,
                "Buffer outside memory",
                "The block writes to these addresses by itself. Where no memory answers, its words"
                        + " are lost, and it stops with an error.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (MemoryBuffer buffer : MemoryBuffer.of(platform)) {
            boolean fits = buffer.isInMemory() && buffer.memory().form().isWritable();
            if (!fits) {
                report.accept(
                        finding(
                                buffer.block().name() + "." + buffer.role().base(),
                                "%s writes %s to %s, %s"
                                        .formatted(
                                                buffer.block().name(),
                                                Address.format(buffer.range().base()),
                                                Address.format(buffer.range().last()),
                                                buffer.memory() == null
                                                        ? "where it reaches no memory"
                                                        : buffer.isInMemory()
                                                                ? "in memory that cannot be written"
                                                                : "past the end of "
                                                                        + buffer.memory().label()),
                                BufferFixes.of(platform, buffer)));
            }
        }
    }
}
