package polymetron.wiring;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.OptionalInt;
import polymetron.edit.Edit;
import polymetron.elaborate.InterruptLink;
import polymetron.interrupt.InterruptWays;
import polymetron.interrupt.Sinks;

/** Interrupt sources to the lowest free input of the port that takes their line. */
final class InterruptLines {
    private final Draft draft;

    InterruptLines(Draft draft) {
        this.draft = draft;
    }

    void plan() {
        List<InterruptLink> unconnected =
                draft.now().interrupts().stream()
                        .filter(link -> link.wire() == null)
                        // Controllers first: what goes into one that leads nowhere is lost.
                        .sorted(
                                Comparator.comparing(InterruptLines::isDevice)
                                        .thenComparing(InterruptLink::ref))
                        .toList();
        for (InterruptLink link : unconnected) {
            Sinks sinks = new Sinks(draft.now());
            InterruptWays ways = InterruptWays.of(draft.now());
            String line = link.source().type().line();
            List<Proposal.Choice> choices = new ArrayList<>();
            List<String> words = new ArrayList<>();
            for (Sinks.Sink sink : sinks.forLine(line)) {
                OptionalInt input = sinks.freeInput(sink);
                if (input.isPresent()
                        && ways.leadsToHart(sink.block(), line)
                        && sink.port().type().accepts(link.source().type().signal())) {
                    words.add(
                            "%s → %s, input %s"
                                    .formatted(link.ref(), sink.ref(), input.getAsInt()));
                    choices.add(
                            new Proposal.Choice(
                                    sink.ref().toString(),
                                    List.of(
                                            new Edit.ConnectInterrupt(
                                                    link.block().name(),
                                                    link.source().name(),
                                                    sink.block().name(),
                                                    sink.port().name(),
                                                    input.getAsInt()))));
                }
            }
            String key = "interrupt:" + link.ref();
            if (choices.size() == 1) {
                draft.propose(
                        key,
                        Proposal.Kind.INTERRUPT,
                        words.getFirst(),
                        "the lowest free input of the only port for %s interrupts".formatted(line),
                        choices.getFirst().edits().getFirst());
            } else if (choices.size() > 1) {
                draft.offer(
                        key,
                        Proposal.Kind.INTERRUPT,
                        "%s to one of %s inputs".formatted(link.ref(), choices.size()),
                        "several ports take %s interrupts; choose one".formatted(line),
                        choices);
            }
        }
    }

    private static boolean isDevice(InterruptLink link) {
        return link.source().type().line().equals(InterruptWays.TO_CONTROLLER);
    }
}
