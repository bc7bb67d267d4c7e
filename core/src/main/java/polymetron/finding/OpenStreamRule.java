package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.stream.StreamEnd;
import polymetron.stream.StreamNet;

/** A stream source without a sink, or a sink without a source. */
final class OpenStreamRule implements Rule {
    @Override
    public String id() {
        return "stream-open";
    }

    @Override
    public Grade grade() {
        return Grade.WARNING;
    }

    @Override
    public String title() {
        return "Stream that leads nowhere";
    }

    @Override
    public String explanation() {
        return "A source without a sink stops, and everything before it; a sink without a source"
                + " waits and never goes on.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        if (platform.streams().isEmpty()
                && platform.blocks().stream()
                        .allMatch(block -> block.shape().streams().isEmpty())) {
            return;
        }
        StreamNet net = new StreamNet(platform);
        List<StreamEnd> sources = net.openSources();
        List<StreamEnd> sinks = net.openSinks();
        for (StreamEnd source : sources) {
            report.accept(
                    finding(
                            source.ref(),
                            "stream source %s goes nowhere".formatted(source.ref()),
                            StreamFixes.joining(net, List.of(source), sinks)));
        }
        for (StreamEnd sink : sinks) {
            report.accept(
                    finding(
                            sink.ref(),
                            "stream sink %s has no source".formatted(sink.ref()),
                            StreamFixes.joining(net, sources, List.of(sink))));
        }
    }
}
