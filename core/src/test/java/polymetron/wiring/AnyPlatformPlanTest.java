package polymetron.wiring;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.finding.Checks;
import polymetron.finding.Finding;
import polymetron.library.BlockType;
import polymetron.library.Board;
import polymetron.platform.Block;
import polymetron.platform.Platform;

/** What holds of the wiring plan for any handful of blocks on any board. */
final class AnyPlatformPlanTest {
    private static final Set<String> UNCONNECTED =
            Set.of(
                    "input-without-clock",
                    "input-without-reset",
                    "target-unreached",
                    "interrupt-open",
                    "outward-open",
                    "stream-open");

    private final Editor editor = new Editor(Shipped.LIBRARY);

    private static <T> T any(Random random, Iterable<T> all) {
        List<T> list = new ArrayList<>();
        all.forEach(list::add);
        return list.get(random.nextInt(list.size()));
    }

    private static List<Edit.AddBlock> wishes(Random random) {
        List<Edit.AddBlock> wishes = new ArrayList<>();
        int count = 3 + random.nextInt(9);
        Set<String> hard = new HashSet<>();
        while (wishes.size() < count) {
            BlockType type = any(random, Shipped.LIBRARY.types());
            if (type.needs() == null || hard.add(type.needs())) {
                wishes.add(new Edit.AddBlock("block" + wishes.size(), type.identity(), Map.of()));
            }
        }
        return wishes;
    }

    private Platform wired(Board board, List<Edit.AddBlock> wishes) {
        Platform platform = Platform.empty("Any", board.identity());
        for (Edit.AddBlock wish : wishes) {
            platform = editor.apply(platform, wish);
        }
        return editor.apply(platform, plan(platform).asEdit("wire"));
    }

    private static WiringPlan plan(Platform platform) {
        return WiringPlan.propose(platform, Shipped.LIBRARY, WiringPlan.Decisions.NONE);
    }

    private static Map<String, Block> byName(Platform platform) {
        return platform.blocks().stream()
                .collect(Collectors.toMap(Block::name, Function.identity()));
    }

    @RepeatedTest(60)
    void isTheSameInAnyOrderChangesNothingTwiceAndTiesWhatItCan(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        Board board = any(random, Shipped.LIBRARY.boards());
        List<Edit.AddBlock> wishes = wishes(random);
        Platform platform = wired(board, wishes);

        Collections.shuffle(wishes, random);
        Platform other = wired(board, wishes);
        assertThat(byName(other)).isEqualTo(byName(platform));
        assertThat(other.domains()).isEqualTo(platform.domains());
        assertThat(other.buses()).isEqualTo(platform.buses());

        List<Proposal> again = plan(platform).proposals();
        assertThat(again).allSatisfy(line -> assertThat(line.choices()).isNotEmpty());
        assertThat(editor.apply(platform, plan(platform).asEdit("again"))).isEqualTo(platform);

        for (Finding finding : Checks.run(Shipped.elaborate(platform))) {
            boolean offered =
                    again.stream()
                            .anyMatch(
                                    line ->
                                            line.key().endsWith(":" + finding.subject())
                                                    || line.choices().stream()
                                                            .map(Proposal.Choice::label)
                                                            .anyMatch(finding.subject()::equals));
            if (UNCONNECTED.contains(finding.rule()) && !offered) {
                // Pins, more inputs and more blocks are for the user to decide.
                assertThat(finding.fixes())
                        .filteredOn(fix -> !fix.label().matches("(Add|Assign|Give) .*"))
                        .as(finding.what())
                        .isEmpty();
            }
        }
    }
}
