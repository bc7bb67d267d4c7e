package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.board.Parts;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;

/** Ports that leave the chip go nowhere. */
final class OpenOutwardRule implements Rule {
    @Override
    public String id() {
        return "outward-open";
    }

    @Override
    public Grade grade() {
        return Grade.WARNING;
    }

    @Override
    public String title() {
        return "Outward port without board part or pin";
    }

    @Override
    public String explanation() {
        return "The ports would get arbitrary pins, or be optimised away.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Parts parts = null;
        FreePins pins = new FreePins(platform);
        for (OutwardLink link : platform.outward()) {
            if (link.binding() == null) {
                parts = parts == null ? new Parts(platform) : parts;
                List<Fix> fixes =
                        parts.fitting(link).stream()
                                .map(
                                        part ->
                                                new Fix(
                                                        "Connect to %s".formatted(part.name()),
                                                        new Edit.BindPart(
                                                                link.block().name(),
                                                                link.form().name(),
                                                                part.name())))
                                .toList();
                if (fixes.isEmpty()) {
                    fixes = pins.of(link.ref());
                }
                report.accept(
                        finding(
                                link.ref(),
                                "no board part or pin is connected to %s of %s"
                                        .formatted(link.form().type().title(), link.block().name()),
                                fixes));
            }
        }
    }
}
