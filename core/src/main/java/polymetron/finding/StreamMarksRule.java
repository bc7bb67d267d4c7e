package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.StreamLink;
import polymetron.elaborate.StreamTraits;

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
            StreamTraits needs = link.sink().traits();
            if (needs.packets() && !link.carries().packets()) {
                report.accept(
                        finding(
                                link.ref(),
                                "%s needs the end of each packet marked, %s marks none"
                                        .formatted(link.sinkRef(), link.ref()),
                                List.of()));
            }
            boolean passesOn =
                    link.sinkBlock().shape().streams().stream()
                            .anyMatch(form -> link.sink().name().equals(form.type().passes()));
            if (link.carries().byteLanes() && !needs.byteLanes() && !passesOn) {
                report.accept(
                        finding(
                                link.ref(),
                                "%s marks which bytes count, %s takes them all"
                                        .formatted(link.ref(), link.sinkRef()),
                                List.of()));
            }
        }
    }
}
