package polymetron.boardchange;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.AnyPlatforms;
import polymetron.Shipped;
import polymetron.boardchange.BoardChange.Line;
import polymetron.boardchange.BoardChange.Outcome;
import polymetron.edit.Editor;
import polymetron.elaborate.DanglingReference;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Board;
import polymetron.platform.Block;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;

final class BoardChangeTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private static Platform demo(String name) {
        return PlatformDocument.read(
                name, new String(Shipped.file("demo/" + name + ".json"), StandardCharsets.UTF_8));
    }

    @ParameterizedTest
    @ValueSource(strings = {"ridge-station", "highland-station", "canal-lock", "first-steps"})
    void everyDemoGoesToEveryBoardAndBackAndSaysWhatThatDoes(String name) {
        Platform demo = demo(name);
        for (Board board : Shipped.LIBRARY.boards()) {
            Platform there = changed(demo, board);
            if (board.identity().equals(demo.board())) {
                assertThat(there).isEqualTo(demo);
            }
            changed(there, Shipped.LIBRARY.board(demo.board()).orElseThrow());
        }
    }

    @RepeatedTest(40)
    void whateverIsOnAPlatformIsListedBeforeItChanges(RepetitionInfo repetition) {
        Platform platform = new AnyPlatforms(repetition.getCurrentRepetition()).worked();
        for (Board board : Shipped.LIBRARY.boards()) {
            changed(platform, board);
        }
    }

    @Test
    void theStationKeepsItsLampsAndItsClockOnTheLargerBoard() {
        Board terrace =
                Shipped.LIBRARY.boards().stream()
                        .filter(board -> board.identity().name().equals("terrace"))
                        .findFirst()
                        .orElseThrow();
        BoardChange change =
                BoardChange.of(Shipped.elaborate(demo("ridge-station")), terrace.identity());
        assertThat(change.lines())
                .anySatisfy(
                        line -> {
                            assertThat(line.subject()).isEqualTo("console.serial");
                            assertThat(line.outcome()).isNotEqualTo(Outcome.LOST);
                        })
                .anySatisfy(line -> assertThat(line.subject()).isEqualTo("main"));
    }

    /** The platform on the other board; whatever differs has a line that does not say it stays. */
    private static Platform changed(Platform platform, Board board) {
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        BoardChange change = BoardChange.of(elaborated, board.identity());
        Platform after = EDITOR.apply(platform, change.asEdit());
        assertThat(after.board()).isEqualTo(board.identity());
        assertThat(after.buses()).isEqualTo(platform.buses());
        Set<String> told =
                change.lines().stream()
                        .filter(line -> line.outcome() != Outcome.STAYS)
                        .map(Line::subject)
                        .collect(Collectors.toSet());
        Set<String> blocks =
                told.stream()
                        .map(each -> each.replaceFirst("\\..*", ""))
                        .collect(Collectors.toSet());
        for (ClockDomain domain : platform.domains()) {
            if (!after.domains().contains(domain)) {
                assertThat(told).contains(domain.name());
            }
        }
        for (Block block : platform.blocks()) {
            Block then = after.block(block.name()).orElseThrow();
            if (!then.parameters().equals(block.parameters())) {
                assertThat(blocks).contains(block.name());
            }
            Set<String> outward = new HashSet<>(block.outward().keySet());
            outward.addAll(then.outward().keySet());
            for (String each : outward) {
                if (block.outward().get(each) == null
                        || !block.outward().get(each).equals(then.outward().get(each))) {
                    assertThat(told).contains(block.name() + "." + each);
                }
            }
            assertThat(then.attachments()).isEqualTo(block.attachments());
            assertThat(then.streams()).isEqualTo(block.streams());
            assertThat(then.interrupts()).isEqualTo(block.interrupts());
            assertThat(then.domains()).isEqualTo(block.domains());
        }
        assertNothingNewDangles(elaborated, Shipped.elaborate(after));
        return after;
    }

    private static void assertNothingNewDangles(
            ElaboratedPlatform before, ElaboratedPlatform after) {
        List<String> old = before.dangling().stream().map(DanglingReference::subject).toList();
        assertThat(after.dangling()).filteredOn(each -> !old.contains(each.subject())).isEmpty();
    }
}
