package polymetron.finding;

import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.StreamLink;

/** A stream whose ends have words of different width. */
final class StreamWidthRule implements Rule {
    @Override
    public String id() {
        return "stream-width";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Stream ends of different width";
    }

    @Override
    public String explanation() {
        return "Words of one width do not fit into words of another: bits would be lost or"
                + " invented.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (StreamLink link : platform.streams()) {
            if (link.sink() != null && link.source().dataWidth() != link.sink().dataWidth()) {
                report.accept(
                        finding(
                                link.ref(),
                                "%s has %s-bit words, %s takes %s-bit words"
                                        .formatted(
                                                link.ref(),
                                                link.source().dataWidth(),
                                                link.sinkRef(),
                                                link.sink().dataWidth()),
                                StreamFixes.adapting(platform, link)));
            }
        }
    }
}
