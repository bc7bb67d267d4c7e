package polymetron.bench.mutant;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import polymetron.Shipped;
import polymetron.library.BlockType;
import polymetron.library.Evidence;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** Keeps what tests found out about a block type, for the library's pages, when asked to with -Dpolymetron.evidence=write. */
public final class EvidenceFile {
    private static final Path FILE =
            Path.of("../library/src/main/resources/polymetron/library/evidence.json");

    private static final JsonMapper JSON =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private EvidenceFile() {}

    /** What is kept is changed and written again; nothing happens without the property. */
    private static void change(UnaryOperator<Evidence.Kept> change) throws IOException {
        if ("write".equals(System.getProperty("polymetron.evidence"))) {
            Evidence.Kept kept = JSON.readValue(Files.readString(FILE), Evidence.Kept.class);
            Files.writeString(FILE, JSON.writeValueAsString(change.apply(kept)) + "\n");
        }
    }

    public static void writeProofs(SortedMap<String, Integer> proofs) throws IOException {
        change(kept -> new Evidence.Kept(kept.blockTypes(), proofs));
    }

    public static void write(
            BlockType type, Judgement judgement, List<String> tests, Evidence.Size size)
            throws IOException {
        Evidence evidence =
                new Evidence(
                        Evidence.hash(Shipped.LIBRARY.hardware().ofBehaviour(type)),
                        judgement.tried(),
                        judgement.noticed(),
                        judgement.equivalent(),
                        judgement.survivors(),
                        tests,
                        size);
        change(
                kept -> {
                    SortedMap<String, Evidence> all = new TreeMap<>(kept.blockTypes());
                    all.put(type.identity().toString(), evidence);
                    return new Evidence.Kept(all, kept.proofs());
                });
    }
}
