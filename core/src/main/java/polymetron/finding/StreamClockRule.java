package polymetron.finding;

import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.StreamLink;

/** A stream whose ends are in different clock domains. */
final class StreamClockRule implements Rule {
    @Override
    public String id() {
        return "stream-clock";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Stream across clocks";
    }

    @Override
    public String explanation() {
        return "Without a crossing the handshake is sampled while it changes, and words are lost or"
                + " doubled now and then.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (StreamLink link : platform.streams()) {
            if (link.sink() == null) {
                continue;
            }
            String from = link.block().domain(link.source().type().clock());
            String to = link.sinkBlock().domain(link.sink().type().clock());
            if (from != null && to != null && !from.equals(to)) {
                report.accept(
                        finding(
                                link.ref(),
                                "%s is in %s, %s in %s"
                                        .formatted(link.ref(), from, link.sinkRef(), to),
                                StreamFixes.adapting(platform, link)));
            }
        }
    }
}
