package polymetron.wiring;

import java.util.List;
import java.util.Optional;
import polymetron.edit.Edit;
import polymetron.stream.StreamEnd;
import polymetron.stream.StreamJoin;
import polymetron.stream.StreamMismatch;
import polymetron.stream.StreamNet;

/** Streams: what has one way only to go is tied, the rest is offered. */
final class StreamLines {
    /** As many sinks are offered for one source; whoever has more open ones leads them by hand. */
    private static final int MOST = 100;

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
            StreamNet net = new StreamNet(draft.now());
            for (StreamEnd source : net.openSources()) {
                String key = "stream:" + source.ref();
                boolean done = draft.isSaid(key);
                if (!done && onlyWay(key, net, source)) {
                    again = true;
                    break;
                }
            }
            again = again || offerRest(open);
        }
    }

    private static boolean canGo(StreamNet net, StreamEnd source, StreamEnd sink) {
        return !net.leadsBack(source, sink)
                && StreamMismatch.of(net, source, sink).isEmpty()
                && StreamJoin.obstacle(net, source, sink).isEmpty();
    }

    private boolean onlyWay(String key, StreamNet net, StreamEnd source) {
        List<StreamEnd> sinks =
                net.openSinks().stream().filter(sink -> canGo(net, source, sink)).limit(2).toList();
        if (sinks.size() != 1) {
            return false;
        }
        StreamEnd sink = sinks.getFirst();
        boolean contested =
                net.openSources().stream()
                        .filter(other -> !other.ref().equals(source.ref()))
                        .anyMatch(other -> canGo(net, other, sink));
        if (contested) {
            return false;
        }
        StreamJoin join = StreamJoin.of(net, source, sink);
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

    /** A sink to choose; without an edit, and with the reason behind its name, when the source cannot go there. */
    private static Proposal.Choice choice(StreamNet net, StreamEnd source, StreamEnd sink) {
        Optional<String> obstacle =
                net.feeder(sink.ref()).isPresent()
                        ? Optional.of("has a source by now")
                        : net.leadsBack(source, sink)
                                ? Optional.of("would make a circle")
                                : StreamMismatch.of(net, source, sink)
                                        .or(() -> StreamJoin.obstacle(net, source, sink));
        return obstacle.map(
                        reason ->
                                new Proposal.Choice(
                                        "%s: %s".formatted(sink.ref(), reason), List.of()))
                .orElseGet(
                        () ->
                                new Proposal.Choice(
                                        sink.ref().toString(),
                                        List.of(
                                                new Edit.Several(
                                                        null,
                                                        StreamJoin.of(net, source, sink)
                                                                .edits()))));
    }

    /**
     * @param sinks the sinks that were open at first, so that a choice keeps its number
     * @return whether a choice that was made tied a stream
     */
    private boolean offerRest(List<StreamEnd> sinks) {
        StreamNet net = new StreamNet(draft.now());
        for (StreamEnd source : net.openSources()) {
            String key = "stream:" + source.ref();
            if (draft.isSaid(key)) {
                continue;
            }
            List<Proposal.Choice> choices =
                    sinks.stream().limit(MOST).map(sink -> choice(net, source, sink)).toList();
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
