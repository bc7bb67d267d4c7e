package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.pin.PinAssignment;
import polymetron.pin.PinLine;
import polymetron.whatif.WhatIf;

/** The fix that sets the pins of a port back to what is usual. */
final class PinFixes {
    private PinFixes() {}

    /** Pins that are free and suit the ports, in place of what an outward interface has. */
    static List<Fix> reassign(ElaboratedPlatform platform, Object subject) {
        OutwardLink link =
                platform.outward().stream()
                        .filter(each -> each.ref().toString().equals(subject.toString()))
                        .findFirst()
                        .orElse(null);
        if (link == null) {
            return List.of();
        }
        Edit cleared = new Edit.BindPins(link.block().name(), link.form().name(), Map.of());
        ElaboratedPlatform without = WhatIf.after(platform, cleared);
        List<Fix> fixes = new ArrayList<>();
        for (PinAssignment.Given given : PinAssignment.of(without).given()) {
            if (given.link().ref().equals(link.ref())) {
                fixes.add(
                        new Fix(
                                "Assign free pins of bank %s to %s"
                                        .formatted(given.bank().name(), link.ref()),
                                new Edit.BindPins(
                                        link.block().name(), link.form().name(), given.pins())));
            }
        }
        if (link.binding() != null) {
            fixes.add(
                    new Fix(
                            "Leave %s without pins".formatted(link.ref()),
                            new Edit.Unbind(link.block().name(), link.form().name())));
        }
        return fixes;
    }

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
