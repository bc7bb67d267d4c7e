package polymetron.finding;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import polymetron.board.PinUse;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.library.Board;

/** A pin that was chosen by hand is where the board has something. */
final class BoardPinRule extends PlainRule {
    BoardPinRule() {
        super(
                "pin-on-board-part",
                Grade.WARNING,
                "Pin with something of the board on it",
                "The board has a part soldered to this pin. Two drivers against each other can be"
                        + " damaged.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Board board = platform.board();
        if (board == null) {
            return;
        }
        Map<String, String> there = new HashMap<>();
        board.clocks().forEach(clock -> there.put(clock.pin(), clock.name()));
        board.resets().forEach(reset -> there.put(reset.pin(), reset.name()));
        for (Board.Part part : board.parts()) {
            part.signals()
                    .forEach(signal -> signal.pins().forEach(pin -> there.put(pin, part.name())));
        }
        for (PinUse use : PinUse.of(platform)) {
            String part = there.get(use.pin());
            OutwardLink link =
                    platform.outward().stream()
                            .filter(each -> each.ref().equals(use.subject()))
                            .findFirst()
                            .orElse(null);
            if (part != null && link != null && link.part() == null) {
                String label = "Open the pins of %s again".formatted(link.ref());
                report.accept(
                        finding(
                                use.subject(),
                                "%s is on pin %s, where the board has %s"
                                        .formatted(use.port(), use.pin(), part),
                                List.of(
                                        new Fix(
                                                label,
                                                new Edit.Unbind(
                                                        link.block().name(),
                                                        link.form().name())))));
            }
        }
    }
}
