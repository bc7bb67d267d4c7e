package polymetron.wiring;

import java.util.List;
import java.util.Map;
import java.util.Set;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.library.Library;
import polymetron.platform.Platform;

/**
 * Proposes how to connect every unconnected end of a platform: clocks, resets, buses, addresses, interrupts and board
 * parts, in that order, each on top of the lines before it. Unconnected ends of one sort are taken by block name, so the
 * order in which blocks were added does not matter. What the user decided is never touched.
 *
 * @param proposals the lines, in the order in which they are applied
 */
public record WiringPlan(List<Proposal> proposals) {

    /**
     * What the user decided about the plan.
     *
     * @param off keys of the lines that are switched off
     * @param chosen choices made where several ways were equal, index by key
     * @param near where new ranges are wished; null for the usual place
     * @param bus bus that unconnected targets are to go on; null for the one that fits
     */
    public record Decisions(
            Set<String> off, Map<String, Integer> chosen, Address near, String bus) {
        public static final Decisions NONE = new Decisions(Set.of(), Map.of(), null, null);
    }

    public static WiringPlan propose(Platform platform, Library library, Decisions decisions) {
        Draft draft = new Draft(platform, library, decisions);
        ClockLines clocks = new ClockLines(draft);
        BusLines buses = new BusLines(draft);
        AttachmentLines attachments = new AttachmentLines(draft);
        new HartLines(draft).plan();
        clocks.madeClocks(true);
        clocks.firstDomain();
        clocks.clocksAndResets();
        new PllLines(draft).plan();
        clocks.madeClocks(false);
        clocks.clocksAndResets();
        new StreamLines(draft).plan();
        buses.firstBus();
        attachments.attachLoose(true);
        new PrivateMemoryLines(draft, attachments).plan();
        buses.behindBridges();
        attachments.attachLoose(false);
        attachments.placeUnplaced();
        new StartLines(draft).plan();
        new InterruptLines(draft).plan();
        new PartLines(draft).plan();
        return new WiringPlan(List.copyOf(draft.lines()));
    }

    /** The whole plan as one edit; lines without edits are left out. */
    public Edit asEdit(String title) {
        return new Edit.Several(
                title, proposals.stream().flatMap(line -> line.edits().stream()).toList());
    }
}
