package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.interrupt.InterruptWays;
import polymetron.interrupt.Sinks;

/** The fixes that lead an interrupt source to a free input. */
final class ConnectFixes {
    /** More buttons than this are no help. */
    private static final int MOST = 3;

    private ConnectFixes() {}

    static List<Fix> of(ElaboratedPlatform platform, Sinks sinks, InterruptLink link) {
        List<Fix> fixes = new ArrayList<>();
        InterruptWays ways = InterruptWays.of(platform);
        String line = link.source().type().line();
        for (Sinks.Sink sink : sinks.forLine(line)) {
            if (!ways.leadsToHart(sink.block(), line)
                    || !sink.port().type().accepts(link.source().type().signal())) {
                continue;
            }
            if (fixes.size() >= MOST) {
                break;
            }
            OptionalInt input = sinks.freeInput(sink);
            if (input.isPresent()) {
                fixes.add(
                        new Fix(
                                "Connect %s to %s, input %s"
                                        .formatted(link.ref(), sink.ref(), input.getAsInt()),
                                new Edit.ConnectInterrupt(
                                        link.block().name(),
                                        link.source().name(),
                                        sink.block().name(),
                                        sink.port().name(),
                                        input.getAsInt())));
            }
        }
        return fixes;
    }
}
