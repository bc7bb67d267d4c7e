package polymetron.output.image;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import polymetron.elaborate.TargetRange;
import polymetron.software.SoftwareView;

/**
 * Where a program finds memory. The sides of a processor can see different memories at one address, or one of them
 * nothing: what is executed has to lie where instructions are fetched, everything else where it is loaded and stored.
 */
final class MemoryWindows {
    private final List<TargetRange> code;
    private final List<TargetRange> data;

    MemoryWindows(SoftwareView view) {
        data = view.targets().stream().filter(target -> target.form().isMemory()).toList();
        // A processor with one side for both fetches where it loads and stores.
        List<TargetRange> fetched = view.fetched();
        code = fetched.isEmpty() ? data : fetched;
    }

    /** The memory in which something is executed, or loaded and stored. */
    Optional<TargetRange> used(long address, boolean executed) {
        return at(executed ? code.stream() : data.stream(), address);
    }

    /** The memory that holds something before the program starts: who fills it does not go through the processor. */
    Optional<TargetRange> loaded(long address, boolean executed) {
        return at(
                executed
                        ? Stream.concat(code.stream(), data.stream())
                        : Stream.concat(data.stream(), code.stream()),
                address);
    }

    private static Optional<TargetRange> at(Stream<TargetRange> memories, long address) {
        return memories.filter(memory -> memory.range().contains(address)).findFirst();
    }
}
