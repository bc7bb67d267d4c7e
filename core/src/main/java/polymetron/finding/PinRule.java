package polymetron.finding;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import polymetron.board.PinUse;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.SizedPort;

/** Pins chosen by hand are missing, unknown or used twice. */
final class PinRule implements Rule {
    @Override
    public String id() {
        return "outward-pins";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Pins of an outward port";
    }

    @Override
    public String explanation() {
        return "Each line needs one pin of the package, and a pin carries one line.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Map<String, String> users = new HashMap<>();
        FreePins pins = new FreePins(platform);
        for (PinUse use : PinUse.of(platform)) {
            String other = users.putIfAbsent(use.pin(), use.port());
            if (other != null) {
                report.accept(
                        finding(
                                use.subject(),
                                "pin %s is used by %s and by %s"
                                        .formatted(use.pin(), other, use.port()),
                                pins.of(use.subject())));
            }
            if (platform.device() != null && !platform.device().hasPin(use.pin())) {
                report.accept(
                        finding(
                                use.subject(),
                                "%s has no pin %s".formatted(platform.device().name(), use.pin()),
                                pins.of(use.subject())));
            }
        }
        for (OutwardLink link : platform.outward()) {
            if (link.binding() != null && link.binding().part() == null) {
                for (SizedPort port : link.form().ports()) {
                    int given = link.binding().pins().getOrDefault(port.name(), List.of()).size();
                    if (given != port.width()) {
                        report.accept(
                                finding(
                                        link.ref(),
                                        "%s needs %s and has %s"
                                                .formatted(
                                                        port.name(),
                                                        port.width() == 1
                                                                ? "1 pin"
                                                                : port.width() + " pins",
                                                        given == 0 ? "none" : given),
                                        pins.of(link.ref())));
                    }
                }
            }
        }
    }
}
