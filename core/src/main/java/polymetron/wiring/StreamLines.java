package polymetron.wiring;

import java.util.ArrayList;
import java.util.List;
import polymetron.edit.Edit;
import polymetron.stream.StreamEnd;
import polymetron.stream.StreamJoin;
import polymetron.stream.StreamNet;

/** Streams: what has one way only to go is tied, the rest is offered. */
final class StreamLines {
    private final Draft draft;

    StreamLines(Draft draft) {
        this.draft = draft;
    }

    /**
     * Open streams: where a source has one sink only to go to, and that sink one source only, there is nothing to
     * choose. Each stream that is tied can leave another with one way only, so it goes round until nothing is
     * left like that.
     */
    void plan() {
        List<StreamEnd> open = new StreamNet(draft.now()).openSinks();
        boolean again = !open.isEmpty();
        while (again) {
            again = false;
            for (StreamEnd source : new StreamNet(draft.now()).openSources()) {
                String key = "stream:" + source.ref();
                boolean done = draft.isSaid(key);
                if (!done && onlyWay(key, source)) {
                    again = true;
                    break;
                }
            }
            again = again || offerRest(open);
        }
    }

    /** Sinks that a source could go to, of those that are open draft.now(). */
    private List<StreamEnd> sinksFor(StreamNet net, StreamEnd source) {
        return net.openSinks().stream()
                .filter(sink -> !net.leadsBack(source, sink))
                .filter(sink -> StreamJoin.obstacle(draft.now(), source, sink).isEmpty())
                .toList();
    }

    private boolean onlyWay(String key, StreamEnd source) {
        StreamNet net = new StreamNet(draft.now());
        List<StreamEnd> sinks = sinksFor(net, source);
        if (sinks.size() != 1) {
            return false;
        }
        StreamEnd sink = sinks.getFirst();
        boolean contested =
                net.openSources().stream()
                        .filter(other -> !other.ref().equals(source.ref()))
                        .anyMatch(
                                other ->
                                        sinksFor(net, other).stream()
                                                .anyMatch(each -> each.ref().equals(sink.ref())));
        if (contested) {
            return false;
        }
        StreamJoin join = StreamJoin.of(draft.now(), source, sink);
        draft.propose(
                key,
                Proposal.Kind.STREAM,
                words(source, sink, join),
                "the only open sink that it can go to, and the only open source for it",
                new Edit.Several(null, join.edits()));
        return true;
    }

    private static String words(StreamEnd source, StreamEnd sink, StreamJoin join) {
        return "%s → %s%s"
                .formatted(
                        source.ref(),
                        sink.ref(),
                        join.parts().isEmpty()
                                ? ""
                                : " through " + String.join(" and ", join.parts()));
    }

    /**
     * @param sinks the sinks that were open at first, so that a choice keeps its number
     * @return whether a choice that was made tied a stream
     */
    private boolean offerRest(List<StreamEnd> sinks) {
        for (StreamEnd source : new StreamNet(draft.now()).openSources()) {
            String key = "stream:" + source.ref();
            if (draft.isSaid(key)) {
                continue;
            }
            StreamNet net = new StreamNet(draft.now());
            List<Proposal.Choice> choices = new ArrayList<>();
            for (StreamEnd sink : sinks) {
                boolean open = net.feeder(sink.ref()).isEmpty();
                boolean possible =
                        open
                                && !net.leadsBack(source, sink)
                                && StreamJoin.obstacle(draft.now(), source, sink).isEmpty();
                choices.add(
                        new Proposal.Choice(
                                sink.ref().toString(),
                                possible
                                        ? List.of(
                                                new Edit.Several(
                                                        null,
                                                        StreamJoin.of(draft.now(), source, sink)
                                                                .edits()))
                                        : List.of()));
            }
            if (choices.stream().allMatch(choice -> choice.edits().isEmpty())) {
                continue;
            }
            int before = draft.lines().size();
            draft.offer(
                    key,
                    Proposal.Kind.STREAM,
                    "%s to one of several sinks".formatted(source.ref()),
                    "several streams are open; choose where it goes",
                    choices);
            if (!draft.lines().get(before).edits().isEmpty()
                    && !draft.decisions().off().contains(key)) {
                return true;
            }
        }
        return false;
    }
}
