package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import polymetron.edit.Edit;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.StreamLink;
import polymetron.stream.StreamEnd;
import polymetron.stream.StreamJoin;
import polymetron.stream.StreamMismatch;
import polymetron.stream.StreamNet;

/** The fixes that lead stream sources to sinks. */
final class StreamFixes {
    private static final int MOST = 6;

    private StreamFixes() {}

    /** Every way to lead one of the sources to one of the sinks without a circle, at most six. */
    static List<Fix> joining(StreamNet net, List<StreamEnd> sources, List<StreamEnd> sinks) {
        List<Fix> fixes = new ArrayList<>();
        for (StreamEnd source : sources) {
            for (StreamEnd sink : sinks) {
                if (fixes.size() >= MOST) {
                    return fixes;
                }
                if (!net.leadsBack(source, sink)
                        && StreamMismatch.of(net, source, sink).isEmpty()) {
                    join(fixes, net, source, sink, "Lead %s to %s");
                }
            }
        }
        return fixes;
    }

    /** The fix that leaves the source open. */
    static List<Fix> opening(StreamLink link) {
        return List.of(
                new Fix(
                        "Disconnect %s".formatted(link.ref()),
                        new Edit.DisconnectStream(link.block().name(), link.source().name())));
    }

    /** The fix that puts what is missing between the ends of a stream. */
    static List<Fix> adapting(ElaboratedPlatform platform, StreamLink link) {
        List<Fix> fixes = new ArrayList<>();
        join(
                fixes,
                new StreamNet(platform),
                new StreamEnd(link.block(), link.source()),
                new StreamEnd(link.sinkBlock(), link.sink()),
                "Put adapters between %s and %s");
        return fixes;
    }

    private static void join(
            List<Fix> fixes, StreamNet net, StreamEnd source, StreamEnd sink, String words) {
        try {
            StreamJoin join = StreamJoin.of(net, source, sink);
            String label =
                    words.formatted(source.ref(), sink.ref())
                            + (join.parts().isEmpty()
                                    ? ""
                                    : ", with " + String.join(" and ", join.parts()));
            fixes.add(new Fix(label, new Edit.Several(label, join.edits())));
        } catch (RejectedEdit impossible) {
            // No adapter does it, so there is nothing to offer.
        }
    }
}
