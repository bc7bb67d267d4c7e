package polymetron.server.library;

import jakarta.annotation.Nullable;
import java.util.List;
import java.util.SortedMap;
import polymetron.library.BlockType;
import polymetron.library.Evidence;
import polymetron.library.Library;

/**
 * How well the hardware of a block type is tested.
 *
 * @param hash of the hardware files
 * @param current whether faults and size were measured with these files
 * @param faults faults that were planted, one at a time; null where none were
 * @param proofs statements about modules that the block uses, proved for every input
 * @param size what synthesis makes of the block; null where it was not measured
 */
public record EvidenceView(
        String hash,
        boolean current,
        @Nullable PlantedFaults faults,
        List<ProofRow> proofs,
        @Nullable MeasuredSizeRow size) {

    /**
     * Planted faults and what tests found of them.
     *
     * @param harmless faults that are proved to make no difference
     * @param missed places of the others
     */
    public record PlantedFaults(
            int planted, int found, int harmless, List<String> missed, List<String> tests) {}

    /** A module and the clock cycles from the reset up to which its statements are proved. */
    public record ProofRow(String module, int cycles) {}

    /** Measured and estimated size with the same parameters. */
    public record MeasuredSizeRow(
            long lookupTables,
            long flipFlops,
            long estimatedLookupTables,
            long estimatedFlipFlops,
            List<String> parameters) {}

    @Nullable
    static EvidenceView of(BlockType type, Library library) {
        SortedMap<String, String> files = library.hardware().ofBehaviour(type);
        if (files.isEmpty()) {
            return null;
        }
        Evidence.Kept kept = library.hardware().evidence();
        Evidence evidence = kept.blockTypes().get(type.identity().toString());
        String hash = Evidence.hash(files);
        return new EvidenceView(
                hash,
                evidence != null && evidence.hardware().equals(hash),
                evidence == null || evidence.mutants() == 0
                        ? null
                        : new PlantedFaults(
                                evidence.mutants(),
                                evidence.noticed(),
                                evidence.equivalent(),
                                evidence.survivors(),
                                evidence.tests()),
                kept.proofsOf(files).entrySet().stream()
                        .map(each -> new ProofRow(each.getKey(), each.getValue()))
                        .toList(),
                evidence == null || evidence.size() == null ? null : size(evidence.size()));
    }

    private static MeasuredSizeRow size(Evidence.Size size) {
        return new MeasuredSizeRow(
                size.lookupTables(),
                size.flipFlops(),
                size.estimatedLookupTables(),
                size.estimatedFlipFlops(),
                size.parameters());
    }
}
