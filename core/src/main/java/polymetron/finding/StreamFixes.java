package polymetron.finding;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import polymetron.edit.Edit;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedStream;
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
            // Sinks of blocks of one shape share their form: what does not suit one suits none of
            // them.
            Set<SizedStream> refused = Collections.newSetFromMap(new IdentityHashMap<>());
            for (StreamEnd sink : sinks) {
                if (fixes.size() >= MOST) {
                    return fixes;
                }
                if (refused.contains(sink.form()) || net.leadsBack(source, sink)) {
                    continue;
                }
                boolean suits = StreamMismatch.of(net, source, sink).isEmpty();
                boolean endsHere =
                        net.sourcesOf(sink.block().name()).stream()
                                .allMatch(end -> net.link(end).isOpen());
                boolean leads = suits && join(fixes, net, source, sink, "Lead %s to %s");
                if (!leads && endsHere) {
                    refused.add(sink.form());
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

    /** Whether there is a way. */
    private static boolean join(
            List<Fix> fixes, StreamNet net, StreamEnd source, StreamEnd sink, String words) {
        try {
            StreamJoin join = StreamJoin.of(net, source, sink);
            String label =
                    words.formatted(source.ref(), sink.ref())
                            + (join.parts().isEmpty()
                                    ? ""
                                    : ", with " + String.join(" and ", join.parts()));
            fixes.add(new Fix(label, new Edit.Several(label, join.edits())));
            return true;
        } catch (RejectedEdit impossible) {
            // No adapter does it, so there is nothing to offer.
            return false;
        }
    }
}
