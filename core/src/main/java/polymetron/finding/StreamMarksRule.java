package polymetron.finding;

import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.StreamLink;
import polymetron.stream.StreamMismatch;

/** A sink that needs marks which its source does not give, or takes bytes that do not count. */
final class StreamMarksRule implements Rule {
    @Override
    public String id() {
        return "stream-marks";
    }

    @Override
    public Grade grade() {
        return Grade.WARNING;
    }

    @Override
    public String title() {
        return "Stream without the marks that its sink needs";
    }

    @Override
    public String explanation() {
        return "A sink that waits for the end of a packet never sees one; bytes that do not count"
                + " are taken for data.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (StreamLink link : platform.streams()) {
            if (link.sink() == null) {
                continue;
            }
            StreamMismatch.packets(link)
                    .or(() -> StreamMismatch.bytes(link))
                    .ifPresent(
                            what ->
                                    report.accept(
                                            finding(link.ref(), what, StreamFixes.opening(link))));
        }
    }
}
