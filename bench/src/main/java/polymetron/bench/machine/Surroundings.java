package polymetron.bench.machine;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import polymetron.bench.block.AnalogMonitorModel;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.PpsTimestampModel;
import polymetron.bench.block.UartModel;
import polymetron.bench.part.ConverterSignal;
import polymetron.bench.part.Receiver;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;

/** What is around the board, by the parts that it comes in at: levels, voltages, signals, satellites. */
final class Surroundings {
    /** Parts in a million by which the seconds of a receiver are longer than those of the board's oscillator. */
    private static final double RECEIVER_DRIFT = 3.2;

    private final ElaboratedPlatform platform;
    private final Function<String, Optional<BlockModel>> models;

    /** Satellite receivers by the name of the part. */
    private final Map<String, Receiver> receivers = new LinkedHashMap<>();

    /**
     * @param models models by the names of blocks
     * @param clockHz clock in which the bench counts time
     */
    Surroundings(
            ElaboratedPlatform platform,
            Function<String, Optional<BlockModel>> models,
            long clockHz) {
        this.platform = platform;
        this.models = models;
        UartModel line =
                links().filter(link -> link.part().kind().equals("serial-device"))
                        .flatMap(this::model)
                        .filter(UartModel.class::isInstance)
                        .map(UartModel.class::cast)
                        .findFirst()
                        .orElse(null);
        links().forEach(
                        link ->
                                model(link)
                                        .filter(PpsTimestampModel.class::isInstance)
                                        .map(PpsTimestampModel.class::cast)
                                        .forEach(pps -> receiver(link, pps, line, clockHz)));
    }

    private void receiver(OutwardLink link, PpsTimestampModel pps, UartModel line, long clockHz) {
        receivers.put(
                link.part().name(),
                new Receiver(
                        clockHz,
                        RECEIVER_DRIFT,
                        pps::setPulse,
                        text -> {
                            if (line != null) {
                                line.arrive(text);
                            }
                        }));
    }

    private Stream<OutwardLink> links() {
        return platform.outward().stream().filter(link -> link.part() != null);
    }

    private Stream<BlockModel> model(OutwardLink link) {
        return models.apply(link.block().name()).stream();
    }

    /** Models of the blocks that are on a part. */
    private Stream<BlockModel> on(String part) {
        return links().filter(link -> link.part().name().equals(part)).flatMap(this::model);
    }

    void move(String part, long levels, long cycle) {
        on(part).forEach(
                        model -> {
                            model.advance(cycle);
                            BoardParts.move(model, levels);
                        });
    }

    void setVoltage(String part, int channel, int steps, long cycle) {
        on(part).filter(AnalogMonitorModel.class::isInstance)
                .map(AnalogMonitorModel.class::cast)
                .forEach(
                        monitor -> {
                            monitor.advance(cycle);
                            monitor.setLevel(channel, steps);
                        });
    }

    Optional<Receiver> receiver(String part) {
        return Optional.ofNullable(receivers.get(part));
    }

    Optional<ConverterSignal> signal(String part) {
        return on(part).flatMap(model -> BoardParts.signal(model).stream()).findFirst();
    }

    void reset() {
        receivers.values().forEach(Receiver::reset);
    }

    /** The cycle at which something around the board happens next. */
    long next() {
        long next = BlockModel.NEVER;
        for (Receiver receiver : receivers.values()) {
            next = Math.min(next, receiver.next());
        }
        return next;
    }

    void advance(long cycle) {
        receivers.values().forEach(receiver -> receiver.advance(cycle));
    }
}
