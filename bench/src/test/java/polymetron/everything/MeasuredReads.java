package polymetron.everything;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import polymetron.cost.AccessCost;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;

/** How many cycles each read of the processors takes in simulation, beside what the cost of its way says. */
final class MeasuredReads {
    private final ElaboratedPlatform platform;
    private final List<String> processors;

    MeasuredReads(ElaboratedPlatform platform) {
        this.platform = platform;
        this.processors =
                platform.blocks().stream()
                        .filter(block -> block.type().hardware().module().contains("rv32"))
                        .map(block -> block.name())
                        .toList();
    }

    /** Counts from the request to the answer, for a test bench. */
    String monitor() {
        StringBuilder all =
                new StringBuilder(
                        "integer reads;\ninitial reads = $fopen(\"reads.txt\", \"w\");\n");
        for (String processor : processors) {
            for (String side : List.of("instruction", "data")) {
                all.append(
                        """
                        // The first one may wait for the end of a reset behind a crossing.
                        reg PROCESSOR_SIDE_counts = 1'b0;
                        integer PROCESSOR_SIDE_cycles = 0;
                        always @(posedge board.PROCESSOR.clk) begin
                            if (board.PROCESSOR.SIDE_request === 1'b1 && board.PROCESSOR.SIDE_write !== 1'b1) begin
                                PROCESSOR_SIDE_cycles = PROCESSOR_SIDE_cycles + 1;
                                if (board.PROCESSOR.SIDE_done === 1'b1) begin
                                    if (PROCESSOR_SIDE_counts) $fdisplay(reads, "PROCESSOR SIDE %h %0d", board.PROCESSOR.SIDE_address, PROCESSOR_SIDE_cycles);
                                    PROCESSOR_SIDE_counts = 1'b1;
                                    PROCESSOR_SIDE_cycles = 0;
                                end
                            end
                        end
                        """
                                .replace("PROCESSOR", processor)
                                .replace("SIDE", side));
            }
        }
        return all.toString();
    }

    /** A flash is behind its last read: the word that follows comes sooner, and one that is written is refused at once. */
    static boolean isFlash(ElaboratedPlatform platform, String path) {
        String block = path.substring(path.lastIndexOf(' ') + 1).replaceFirst("\\..*", "");
        return platform.block(block)
                .filter(each -> each.type().identity().name().equals("flash-controller"))
                .isPresent();
    }

    /** Within one clock the measured number is the predicted one; through a crossing it is within the range. */
    void check(Path here, ElaboratedPlatform elaborated) throws IOException {
        Map<String, TreeSet<Long>> measured = new TreeMap<>();
        Map<String, AccessCost> predicted = new TreeMap<>();
        for (String line : Files.readAllLines(here.resolve("sim/reads.txt"))) {
            String[] words = line.split(" ");
            AddressSpace space = platform.space(new InterfaceRef(words[0], words[1])).orElseThrow();
            TargetRange target = space.at(Long.parseLong(words[2], 16)).orElse(null);
            if (target != null) {
                String path = words[0] + "." + words[1] + " to " + target.ref();
                measured.computeIfAbsent(path, each -> new TreeSet<>())
                        .add(Long.parseLong(words[3]));
                predicted.computeIfAbsent(path, each -> AccessCost.of(elaborated, space, target));
            }
        }
        assertThat(measured).isNotEmpty();
        List<String> wrong = new ArrayList<>();
        measured.forEach(
                (path, cycles) -> {
                    AccessCost cost = predicted.get(path);
                    // Another processor may be on the way.
                    boolean isLate = processors.size() == 1 && cycles.last() > cost.cycles();
                    boolean isEarly =
                            cycles.first() < cost.leastCycles() && !isFlash(elaborated, path);
                    if (isEarly || isLate) {
                        wrong.add(
                                "%s: %s to %s predicted, %s measured; %s"
                                        .formatted(
                                                path,
                                                cost.leastCycles(),
                                                cost.cycles(),
                                                cycles,
                                                cost.steps()));
                    }
                });
        assertThat(wrong).isEmpty();
    }
}
