package polymetron.bench.behaviour;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import polymetron.bench.block.DmaBehaviour;
import polymetron.bench.block.SampleBehaviour;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;

/** What is written down of blocks, by the name of their type. */
public final class Behaviours {
    private static final Set<String> OF_SAMPLES =
            Set.of("fir-filter", "decimating-filter", "threshold-trigger");

    private Behaviours() {}

    /** What is written down of a block, or what the bench has of one that works on samples. */
    public static Optional<Behaviour> of(
            ElaboratedPlatform platform, ElaboratedBlock block, Map<String, Long> parameters) {
        String name = block.type().identity().name();
        if (name.equals("dma")) {
            return Optional.of(new DmaBehaviour(platform, block, parameters));
        }
        return OF_SAMPLES.contains(name)
                ? Optional.of(new SampleBehaviour(platform, block, parameters))
                : of(name, parameters);
    }

    /**
     * @param parameters those of its module
     * @return empty for a block of which nothing is written down
     */
    static Optional<Behaviour> of(String block, Map<String, Long> parameters) {
        return Optional.ofNullable(
                switch (block) {
                    case "event-counter" -> new EventCounterBehaviour(parameters.get("GATE"));
                    case "pps-timestamp" ->
                            new PulseTimestampBehaviour(
                                    parameters.get("NOMINAL"), parameters.get("WINDOW"));
                    case "analog-monitor" ->
                            new AnalogMonitorBehaviour(parameters.get("CHANNELS").intValue());
                    case "signal-probe" ->
                            new SignalProbeBehaviour(
                                    parameters.get("WIDTH").intValue(),
                                    parameters.get("DEPTH").intValue(),
                                    parameters.get("BEFORE").intValue(),
                                    parameters.get("TRIGGER").intValue(),
                                    parameters.get("COMPARED").intValue());
                    case "ring-writer" ->
                            new RingWriterBehaviour(
                                    parameters.get("WIDTH").intValue(),
                                    parameters.get("BURST").intValue());
                    case "converter-reader" ->
                            new ConverterReaderBehaviour(
                                    parameters.get("CHANNELS").intValue(),
                                    parameters.get("SAMPLE").intValue(),
                                    parameters.get("DIVIDER").intValue(),
                                    parameters.get("MODE").intValue());
                    case "i2c-controller" -> new I2cBehaviour(parameters.get("FILTER").intValue());
                    case "uart" -> new UartBehaviour();
                    default -> null;
                });
    }
}
