package polymetron.finding;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.StreamLink;

/** Two sources that feed one sink. */
final class StreamSharedSinkRule implements Rule {
    @Override
    public String id() {
        return "stream-shared-sink";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Stream sink with two sources";
    }

    @Override
    public String explanation() {
        return "A sink has one handshake: words of two sources would mix without order.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Map<InterfaceRef, InterfaceRef> feeders = new HashMap<>();
        for (StreamLink link : platform.streams()) {
            InterfaceRef first =
                    link.sink() == null ? null : feeders.putIfAbsent(link.sinkRef(), link.ref());
            if (first != null) {
                report.accept(
                        finding(
                                link.sinkRef(),
                                "%s and %s both feed %s"
                                        .formatted(first, link.ref(), link.sinkRef()),
                                List.of(cut(first), cut(link.ref()))));
            }
        }
    }

    private static Fix cut(InterfaceRef source) {
        return new Fix(
                "Leave %s open".formatted(source),
                new Edit.DisconnectStream(source.block(), source.name()));
    }
}
