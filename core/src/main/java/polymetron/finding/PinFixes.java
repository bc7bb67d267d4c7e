package polymetron.finding;

import java.util.List;
import polymetron.edit.Edit;
import polymetron.pin.PinLine;

/** The fix that sets the pins of a port back to what is usual. */
final class PinFixes {
    private PinFixes() {}

    static List<Fix> asUsual(PinLine line) {
        return line.ref() == null
                ? List.of()
                : List.of(
                        new Fix(
                                "Set %s as usual".formatted(line.signal()),
                                new Edit.SetPins(
                                        line.ref().block(),
                                        line.ref().name(),
                                        line.signal(),
                                        null)));
    }
}
