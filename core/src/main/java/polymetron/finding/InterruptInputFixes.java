package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.SizedInterrupt;
import polymetron.interrupt.InterruptWays;
import polymetron.interrupt.Sinks;
import polymetron.library.ParameterType;

/** The fixes that give a controller as many inputs as an interrupt source needs. */
final class InterruptInputFixes {
    private InterruptInputFixes() {}

    /** More inputs for every controller of the source's sort that has none free, and the source on the new one. */
    static List<Fix> more(ElaboratedPlatform platform, Sinks sinks, InterruptLink link) {
        List<Fix> fixes = new ArrayList<>();
        String line = link.source().type().line();
        for (Sinks.Sink sink : sinks.forLine(line)) {
            int next = sink.port().first() + sink.port().count();
            if (sinks.freeInput(sink).isEmpty()
                    && InterruptWays.of(platform).leadsToHart(sink.block(), line)) {
                upTo(platform, sink, next)
                        .forEach(
                                wider ->
                                        fixes.add(
                                                new Fix(
                                                        "%s, and connect %s to the new one"
                                                                .formatted(
                                                                        wider.label(), link.ref()),
                                                        new Edit.Several(
                                                                wider.label(),
                                                                List.of(
                                                                        wider.edit(),
                                                                        connect(
                                                                                link, sink,
                                                                                next))))));
            }
        }
        return fixes;
    }

    private static Edit connect(InterruptLink link, Sinks.Sink sink, int input) {
        return new Edit.ConnectInterrupt(
                link.block().name(),
                link.source().name(),
                sink.block().name(),
                sink.port().name(),
                input);
    }

    /** As many inputs as it takes to have one of a number; none when that is more than the block can have. */
    static List<Fix> upTo(ElaboratedPlatform platform, Sinks.Sink sink, int input) {
        SizedInterrupt port = sink.port();
        String name =
                port.type().count() == null ? null : port.type().count().parameter().orElse(null);
        if (name == null) {
            return List.of();
        }
        ParameterType type = sink.block().type().parameter(name).orElse(null);
        long needed = input - port.first() + 1L;
        long most =
                type == null || type.maximum() == null
                        ? Long.MAX_VALUE
                        : sink.block().shape().number(type.maximum(), 0);
        return type == null || needed > most
                ? List.of()
                : List.of(
                        new Fix(
                                "Give %s %s inputs".formatted(sink.block().name(), needed),
                                new Edit.SetParameter(
                                        sink.block().name(), name, Long.toString(needed))));
    }
}
