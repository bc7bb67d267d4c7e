package polymetron.finding;

import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.software.SoftwareView;

/** Programs of several processors leave one of them no room in a memory that they share. */
final class ProgramRoomRule extends PlainRule {
    ProgramRoomRule() {
        super(
                "program-room",
                Grade.ERROR,
                "Program without room beside another",
                "A memory that several programs use is divided where they start: each has it from"
                        + " its own reset vector to the next one. What is left has to hold the"
                        + " program.");
    }

    /** Less holds no start-up code and stack. */
    private static final long LEAST = 1024;

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (SoftwareView view : SoftwareView.all(platform)) {
            if (view.parts().isEmpty() || view.program() == null) {
                continue;
            }
            TargetRange data = view.dataMemory().orElse(view.program());
            for (TargetRange memory : List.of(view.program(), data)) {
                AddressRange part = view.part(memory);
                long bytes = part == null ? 0 : part.sizeBytes();
                if (Long.compareUnsigned(bytes, LEAST) < 0) {
                    report.accept(
                            finding(
                                    view.name() + "." + view.harts().getFirst().role().reset(),
                                    "the program of %s has %s bytes of %s; other programs have the rest"
                                            .formatted(view.name(), bytes, memory.label()),
                                    apart(platform, view)));
                    break;
                }
            }
        }
    }

    /** A start in the middle of the largest part that another program has of the same memory. */
    private static List<Fix> apart(ElaboratedPlatform platform, SoftwareView view) {
        String parameter = view.harts().getFirst().role().reset().parameter().orElse(null);
        if (parameter == null) {
            return List.of();
        }
        return SoftwareView.all(platform).stream()
                .filter(other -> other != view && other.program() != null)
                .filter(other -> other.program().isSameMemoryAs(view.program()))
                .map(other -> other.part(other.program()))
                .filter(part -> part != null && part.sizeBytes() >= 4 * LEAST)
                .max(Comparator.comparingLong(AddressRange::sizeBytes))
                .map(part -> part.base() + part.sizeBytes() / 2 / 16 * 16)
                .map(
                        base ->
                                List.of(
                                        new Fix(
                                                "Start %s at %s"
                                                        .formatted(
                                                                view.name(), Address.format(base)),
                                                new Edit.SetParameter(
                                                        view.name(),
                                                        parameter,
                                                        Address.format(base)))))
                .orElse(List.of());
    }
}
