package polymetron.finding;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Device;
import polymetron.pin.PinLine;
import polymetron.pin.PinTable;

/** A port has a differential standard, and its pins are no pairs. */
final class PinPairRule extends PlainRule {
    PinPairRule() {
        super(
                "pin-pair",
                Grade.ERROR,
                "Differential lines on pins that do not pair",
                "Both lines of a differential signal need the two pins of one pair, the positive"
                        + " one first; other pins have no such receiver or driver.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        if (platform.device() == null) {
            return;
        }
        Map<String, List<PinLine>> ports = new LinkedHashMap<>();
        FreePins pins = new FreePins(platform);
        for (PinLine line : PinTable.of(platform).lines()) {
            boolean differential =
                    line.standard() != null
                            && platform.device()
                                    .standard(line.standard())
                                    .map(Device.Standard::differential)
                                    .orElse(false);
            if (line.ref() != null && differential) {
                ports.computeIfAbsent(line.ref() + " " + line.signal(), key -> new ArrayList<>())
                        .add(line);
            }
        }
        for (List<PinLine> lines : ports.values()) {
            lines.sort(java.util.Comparator.comparingInt(PinLine::line));
            for (int at = 0; at < lines.size(); at += 2) {
                PinLine one = lines.get(at);
                String other = at + 1 < lines.size() ? lines.get(at + 1).pin() : null;
                boolean pair =
                        other != null && one.bank() != null && one.bank().isPair(one.pin(), other);
                if (!pair) {
                    report.accept(
                            finding(
                                    one.ref(),
                                    "%s is %s, and %s is no pair of pins"
                                            .formatted(
                                                    one.port(),
                                                    one.standard(),
                                                    other == null
                                                            ? one.pin() + " alone"
                                                            : "%s with %s"
                                                                    .formatted(one.pin(), other)),
                                    fixes(pins, one)));
                    break;
                }
            }
        }
    }

    private static List<Fix> fixes(FreePins pins, PinLine line) {
        List<Fix> fixes = new ArrayList<>(pins.of(line.ref()));
        fixes.addAll(PinFixes.asUsual(line));
        return fixes;
    }
}
