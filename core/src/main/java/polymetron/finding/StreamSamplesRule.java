package polymetron.finding;

import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.StreamLink;
import polymetron.stream.StreamMismatch;

/** A sink that expects samples of another width than come. */
final class StreamSamplesRule implements Rule {
    @Override
    public String id() {
        return "stream-samples";
    }

    @Override
    public Grade grade() {
        return Grade.WARNING;
    }

    @Override
    public String title() {
        return "Stream of other samples than expected";
    }

    @Override
    public String explanation() {
        return "Samples of another width are shifted: values come out wrong by powers of two, or"
                + " with the wrong sign.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (StreamLink link : platform.streams()) {
            if (link.sink() == null) {
                continue;
            }
            StreamMismatch.samples(link)
                    .ifPresent(
                            what ->
                                    report.accept(
                                            finding(link.ref(), what, StreamFixes.opening(link))));
        }
    }
}
