package polymetron.finding;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.pin.PinAssignment;
import polymetron.whatif.WhatIf;

/**
 * The fixes that give outward interfaces free pins that suit them, for all findings of one check. Each interface is looked
 * at once, and only a few that have pins already: for those the platform has to be worked out without them.
 */
final class FreePins {
    private final ElaboratedPlatform platform;
    private final Map<String, List<Fix>> known = new HashMap<>();
    private PinAssignment open;
    private final Looks looks = new Looks();

    FreePins(ElaboratedPlatform platform) {
        this.platform = platform;
    }

    /**
     * @param subject outward interface, as block.name
     */
    List<Fix> of(Object subject) {
        return known.computeIfAbsent(subject.toString(), this::find);
    }

    private List<Fix> find(String subject) {
        OutwardLink link =
                platform.outward().stream()
                        .filter(each -> each.ref().toString().equals(subject))
                        .findFirst()
                        .orElse(null);
        if (link == null) {
            return List.of();
        }
        List<Fix> fixes = new ArrayList<>();
        PinAssignment assignment = assignment(link);
        if (assignment != null) {
            assignment.given().stream()
                    .filter(given -> given.link().ref().equals(link.ref()))
                    .map(FreePins::assign)
                    .forEach(fixes::add);
        }
        if (link.binding() != null) {
            fixes.add(
                    new Fix(
                            "Leave %s without pins".formatted(link.ref()),
                            new Edit.Unbind(link.block().name(), link.form().name())));
        }
        return fixes;
    }

    /** Null when enough has been looked at. */
    private PinAssignment assignment(OutwardLink link) {
        if (link.binding() == null) {
            open = open == null ? PinAssignment.of(platform) : open;
            return open;
        }
        if (!looks.take()) {
            return null;
        }
        Edit cleared = new Edit.BindPins(link.block().name(), link.form().name(), Map.of());
        return PinAssignment.of(WhatIf.after(platform, cleared));
    }

    private static Fix assign(PinAssignment.Given given) {
        OutwardLink link = given.link();
        return new Fix(
                "Assign free pins of bank %s to %s".formatted(given.bank().name(), link.ref()),
                new Edit.BindPins(link.block().name(), link.form().name(), given.pins()));
    }
}
