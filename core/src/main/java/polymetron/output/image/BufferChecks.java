package polymetron.output.image;

import java.util.ArrayList;
import java.util.List;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.elaborate.TargetRange;
import polymetron.software.MemoryBuffer;
import polymetron.software.SoftwareView;

/** Whether a program lies where hardware writes by itself. */
final class BufferChecks {
    private BufferChecks() {}

    static List<String> problems(SoftwareView view, ProgramFile program) {
        List<String> problems = new ArrayList<>();
        for (MemoryBuffer buffer : MemoryBuffer.of(view.platform())) {
            for (TargetRange memory : view.memories()) {
                AddressRange seen = buffer.seenIn(memory);
                if (seen != null
                        && program.segments().stream().anyMatch(each -> lies(each, seen))) {
                    problems.add(
                            "the program uses addresses that %s writes by itself, %s to %s; link it with the platform's linker script"
                                    .formatted(
                                            buffer.block().name(),
                                            Address.format(seen.base()),
                                            Address.format(seen.last())));
                }
            }
        }
        return problems;
    }

    private static boolean lies(ProgramFile.Segment segment, AddressRange buffer) {
        return AddressRange.of(segment.virtualAddress(), segment.memoryBytes()).overlaps(buffer)
                || segment.contents().length > 0
                        && AddressRange.of(segment.loadAddress(), segment.contents().length)
                                .overlaps(buffer);
    }
}
