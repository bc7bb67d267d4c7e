package polymetron.bench.machine;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
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
import polymetron.library.Surrounding;

/** What is around the board, by the parts that it comes in at: levels, voltages, signals, satellites. */
final class Surroundings {
    /** Parts in a million by which the seconds of a receiver are longer than those of the board's oscillator. */
    private static final double RECEIVER_DRIFT = 3.2;

    private final ElaboratedPlatform platform;
    private final Function<String, Optional<BlockModel>> models;

    /** Satellite receivers by the name of the part. */
    private final Map<String, Receiver> receivers = new LinkedHashMap<>();

    private final List<SurroundingOfBoard> surroundings;

    /** Levels that parts were moved to. */
    private final Map<String, Long> moved = new HashMap<>();

    /** The time of what is being done. */
    private long time;

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
        this.surroundings =
                described(platform)
                        .flatMap(each -> SurroundingOfBoard.of(each, this, clockHz).stream())
                        .toList();
    }

    /** What the platform's board says to be around it. */
    private static Stream<Surrounding> described(ElaboratedPlatform platform) {
        return platform.board().surroundings().stream();
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

    /** The first model on a part; empty as well for no part. */
    Optional<BlockModel> at(String part) {
        return part == null ? Optional.empty() : on(part).findFirst();
    }

    void move(String part, long levels, long cycle) {
        time = cycle;
        move(part, levels);
    }

    /** Moves a part at the time that it is; nothing for no part. */
    void move(String part, long levels) {
        if (part == null) {
            return;
        }
        moved.put(part, levels);
        links().filter(link -> link.part().name().equals(part))
                .forEach(
                        link ->
                                model(link)
                                        .forEach(
                                                model -> {
                                                    model.advance(time);
                                                    BoardParts.move(link, model, levels);
                                                }));
    }

    /** What a part was moved to, the lowest bit for its first line. */
    long levels(String part) {
        return moved.getOrDefault(part, 0L);
    }

    void setVoltage(String part, int channel, int steps, long cycle) {
        time = cycle;
        setVoltage(part, channel, steps);
    }

    /** Sets a voltage at the time that it is; nothing where no block measures it. */
    void setVoltage(String part, int channel, int steps) {
        measured(part)
                .filter(monitor -> channel < monitor.channels())
                .ifPresent(
                        monitor -> {
                            monitor.advance(time);
                            monitor.setLevel(channel, steps);
                        });
    }

    /** What measures the voltages of a part. */
    Optional<AnalogMonitorModel> measured(String part) {
        return at(part).filter(AnalogMonitorModel.class::isInstance)
                .map(AnalogMonitorModel.class::cast);
    }

    /** A voltage in 4096ths of the full scale. */
    int level(String part, int channel) {
        return measured(part).map(monitor -> monitor.level(channel)).orElse(0);
    }

    List<SurroundingOfBoard> surroundings() {
        return surroundings;
    }

    Optional<Receiver> receiver(String part) {
        return Optional.ofNullable(receivers.get(part));
    }

    Optional<ConverterSignal> signal(String part) {
        return part == null
                ? Optional.empty()
                : on(part).flatMap(model -> BoardParts.signal(model).stream()).findFirst();
    }

    void reset() {
        receivers.values().forEach(Receiver::reset);
        surroundings.forEach(SurroundingOfBoard::reset);
    }

    /** The cycle at which something around the board happens next. */
    long next() {
        long next = BlockModel.NEVER;
        for (Receiver receiver : receivers.values()) {
            next = Math.min(next, receiver.next());
        }
        for (SurroundingOfBoard surrounding : surroundings) {
            next = Math.min(next, surrounding.next());
        }
        return next;
    }

    void advance(long cycle) {
        time = cycle;
        receivers.values().forEach(receiver -> receiver.advance(cycle));
        surroundings.forEach(surrounding -> surrounding.advance(cycle));
    }
}
