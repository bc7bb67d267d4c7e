package polymetron.server.interrupt;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import polymetron.address.Address;
import polymetron.clock.Crossing;
import polymetron.clock.Crossings;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.interrupt.InterruptMap;
import polymetron.interrupt.InterruptWays;

/** Makes the view of interrupts. */
final class InterruptsViews {
    /** Free inputs that are shown behind the last one in use. */
    private static final int SPARE = 4;

    private final ElaboratedPlatform platform;
    private final InterruptMap map;
    private final Map<String, Crossing> crossings = new HashMap<>();

    private InterruptsViews(ElaboratedPlatform platform) {
        this.platform = platform;
        this.map = InterruptMap.of(platform);
        for (Crossing crossing : Crossings.of(platform)) {
            if (crossing.sort() == Crossing.Sort.INTERRUPT) {
                crossings.put(crossing.subject(), crossing);
            }
        }
    }

    static InterruptsView of(long revision, ElaboratedPlatform platform) {
        InterruptsViews views = new InterruptsViews(platform);
        return new InterruptsView(
                revision,
                views.map.ports().stream().map(InterruptsViews::port).toList(),
                platform.interrupts().stream()
                        .sorted(Comparator.comparing(InterruptLink::ref))
                        .map(views::source)
                        .toList());
    }

    private static InterruptsView.InterruptPortView port(InterruptMap.Port port) {
        TreeSet<Integer> shown = new TreeSet<>(port.inputs().keySet());
        int first = port.port().first();
        int end = first + port.port().count();
        int highest = shown.isEmpty() ? first - 1 : shown.last();
        for (int input = first; input < end && input <= highest + SPARE; input++) {
            shown.add(input);
        }
        List<InterruptsView.InputView> inputs = new ArrayList<>();
        for (int input : shown) {
            inputs.add(
                    new InterruptsView.InputView(
                            input,
                            port.hardwareLine(input),
                            port.softwareNumber(input),
                            port.port().hasInput(input),
                            port.inputs().getOrDefault(input, List.of()).size() > 1,
                            text(port.priorityAddress(input)),
                            contexts(port, input),
                            input % 32));
        }
        int shownThere = (int) shown.stream().filter(port.port()::hasInput).count();
        return new InterruptsView.InterruptPortView(
                port.block().name(),
                port.port().name(),
                port.block().type().title(),
                port.port().type().line(),
                port.isNumbered(),
                inputs,
                port.port().count() - shownThere,
                port.unused());
    }

    private static List<InterruptsView.ContextView> contexts(InterruptMap.Port port, int input) {
        List<InterruptsView.ContextView> contexts = new ArrayList<>();
        if (port.controllerBase() != null) {
            for (int at = 0; at < port.contexts().size(); at++) {
                InterruptLink line = port.contexts().get(at);
                contexts.add(
                        new InterruptsView.ContextView(
                                at,
                                line.isConnected() ? line.wire().block() : "not connected",
                                port.enableAddress(input, at).toString(),
                                port.thresholdAddress(at).toString()));
            }
        }
        return contexts;
    }

    private static String text(Address address) {
        return address == null ? null : address.toString();
    }

    private InterruptsView.SourceView source(InterruptLink link) {
        Crossing crossing = crossings.get(link.ref().toString());
        return new InterruptsView.SourceView(
                link.block().name(),
                link.source().name(),
                link.source().type().line(),
                link.source().type().trigger() == null
                        ? "high"
                        : link.source().type().trigger().toString(),
                link.isConnected() ? link.wire().block() : null,
                link.isConnected() ? link.wire().sink() : null,
                link.isConnected() ? link.wire().input() : null,
                link.isConnected() ? link.wire().priority() : null,
                path(link),
                crossing == null
                        ? ""
                        : "%s → %s: %s"
                                .formatted(
                                        crossing.from(),
                                        crossing.to(),
                                        crossing.isSafe()
                                                ? crossing.by()
                                                : "not safe, an edge can be lost"));
    }

    /** From the source to the hart, through every controller on the way. */
    private String path(InterruptLink link) {
        StringBuilder path = new StringBuilder(link.ref().toString());
        for (InterruptLink at : InterruptWays.of(platform).from(link)) {
            path.append(" → ")
                    .append(at.wire().block())
                    .append(".")
                    .append(at.wire().sink())
                    .append(at.sink().count() > 1 ? " " + at.wire().input() : "");
        }
        return path.toString();
    }
}
