package polymetron.software;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.library.Capability;

/**
 * Where a processor finds its program, and how it reads the same memory as data. The two need not agree: the sides of
 * a processor can be on buses of their own, and a memory can have a port on each.
 *
 * @param program the memory at the reset vector as it is fetched from; null when there is none
 * @param reading how it is read as data; null without a program
 * @param asData what loads and stores find: the same memory, there or elsewhere, or what covers it; null for nothing
 */
public record ProgramPlace(
        ElaboratedBlock processor, TargetRange program, Reading reading, TargetRange asData) {
    /** Empty for a processor that loads and stores nowhere. */
    public static Optional<ProgramPlace> of(
            ElaboratedPlatform platform, ElaboratedBlock processor) {
        return dataSide(platform, processor)
                .map(
                        data ->
                                of(
                                        Harts.of(platform).of(processor).getFirst(),
                                        fetched(platform, processor),
                                        data.ranges()));
    }

    /** The side of a processor that loads and stores. */
    public static Optional<AddressSpace> dataSide(
            ElaboratedPlatform platform, ElaboratedBlock processor) {
        return side(platform, processor, Capability.Hart::data);
    }

    private static Optional<AddressSpace> side(
            ElaboratedPlatform platform,
            ElaboratedBlock processor,
            Function<Capability.Hart, String> name) {
        return processor.type().provides(Capability.Hart.class).stream()
                .map(role -> new InterfaceRef(processor.name(), name.apply(role)))
                .flatMap(ref -> platform.space(ref).stream())
                .findFirst();
    }

    /** What a processor can fetch from. */
    public static List<TargetRange> fetched(
            ElaboratedPlatform platform, ElaboratedBlock processor) {
        return side(platform, processor, Capability.Hart::fetch)
                .map(AddressSpace::ranges)
                .orElse(List.of())
                .stream()
                .filter(target -> target.form().isMemory() && target.form().type().executable())
                .toList();
    }

    private static ProgramPlace of(Hart hart, List<TargetRange> fetched, List<TargetRange> read) {
        ElaboratedBlock processor = hart.block();
        long start = hart.resetVector();
        TargetRange program = null;
        for (TargetRange memory : fetched) {
            if (memory.range().contains(start)) {
                program = memory;
                break;
            }
        }
        if (program == null) {
            return new ProgramPlace(processor, null, null, null);
        }
        TargetRange elsewhere = null;
        for (TargetRange memory : read) {
            if (memory.isSameMemoryAs(program)) {
                if (memory.range().base() == program.range().base()) {
                    return new ProgramPlace(processor, program, Reading.SAME_ADDRESS, memory);
                }
                elsewhere = memory;
            }
        }
        if (elsewhere != null) {
            return new ProgramPlace(processor, program, Reading.ELSEWHERE, elsewhere);
        }
        for (TargetRange other : read) {
            if (other.range().overlaps(program.range())) {
                return new ProgramPlace(processor, program, Reading.COVERED, other);
            }
        }
        return new ProgramPlace(processor, program, Reading.HIDDEN, null);
    }

    /** Whether a program that starts here can be linked. */
    public boolean allowsProgram() {
        return program != null && reading.allowsProgram();
    }
}
