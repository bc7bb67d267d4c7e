package polymetron.stream;

import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.StreamLink;
import polymetron.elaborate.StreamTraits;

/** What keeps a sink from making sense of the words that a source gives it, though they arrive. */
public final class StreamMismatch {
    private StreamMismatch() {}

    /** The first of all reasons for a source that is to be led to a sink. */
    public static Optional<String> of(StreamNet net, StreamEnd source, StreamEnd sink) {
        return of(net, source, net.link(source).carries(), sink, new HashSet<>());
    }

    /** A sink that passes its words on gives them to every sink behind it. */
    private static Optional<String> of(
            StreamNet net,
            StreamEnd source,
            StreamTraits carries,
            StreamEnd sink,
            Set<InterfaceRef> passed) {
        Optional<String> here =
                packets(source.ref(), carries, sink)
                        .or(() -> bytes(source.ref(), carries, sink))
                        .or(() -> samples(source.ref(), carries, sink));
        if (here.isPresent() || !passed.add(sink.ref())) {
            return here;
        }
        // A sink may come from a picture of the platform that is older than the net.
        for (StreamEnd next : net.sourcesOf(sink.block().name())) {
            if (!sink.form().name().equals(next.form().type().passes())) {
                continue;
            }
            StreamLink link = net.link(next);
            if (link.sink() != null) {
                Optional<String> behind = of(net, next, carries, sink(link), passed);
                if (behind.isPresent()) {
                    return behind;
                }
            }
        }
        return Optional.empty();
    }

    /** The sink waits for ends of packets that are never marked. */
    public static Optional<String> packets(StreamLink link) {
        return packets(link.ref(), link.carries(), sink(link));
    }

    /** The sink takes bytes that do not count for data. */
    public static Optional<String> bytes(StreamLink link) {
        return bytes(link.ref(), link.carries(), sink(link));
    }

    /** The sink expects samples of another width. */
    public static Optional<String> samples(StreamLink link) {
        return samples(link.ref(), link.carries(), sink(link));
    }

    private static StreamEnd sink(StreamLink link) {
        return new StreamEnd(link.sinkBlock(), link.sink());
    }

    private static Optional<String> packets(
            InterfaceRef source, StreamTraits carries, StreamEnd sink) {
        return sink.form().traits().packets() && !carries.packets()
                ? Optional.of(
                        "%s needs the end of each packet marked, %s marks none"
                                .formatted(sink.ref(), source))
                : Optional.empty();
    }

    private static Optional<String> bytes(
            InterfaceRef source, StreamTraits carries, StreamEnd sink) {
        boolean passesOn =
                sink.block().shape().streams().stream()
                        .anyMatch(form -> sink.form().name().equals(form.type().passes()));
        return carries.byteLanes() && !sink.form().traits().byteLanes() && !passesOn
                ? Optional.of(
                        "%s marks which bytes count, %s takes them all"
                                .formatted(source, sink.ref()))
                : Optional.empty();
    }

    private static Optional<String> samples(
            InterfaceRef source, StreamTraits carries, StreamEnd sink) {
        int made = carries.sampleWidth();
        int expected = sink.form().traits().sampleWidth();
        return made > 0 && expected > 0 && made != expected
                ? Optional.of(
                        "%s carries %s-bit samples, %s expects %s bits"
                                .formatted(source, made, sink.ref(), expected))
                : Optional.empty();
    }
}
