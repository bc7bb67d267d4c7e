package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.StreamLink;

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
            int made = link.carries().sampleWidth();
            int expected = link.sink().traits().sampleWidth();
            if (made > 0 && expected > 0 && made != expected) {
                report.accept(
                        finding(
                                link.ref(),
                                "%s carries %s-bit samples, %s expects %s bits"
                                        .formatted(link.ref(), made, link.sinkRef(), expected),
                                List.of()));
            }
        }
    }
}
