package polymetron.bench.behaviour;

import java.util.Map;
import java.util.Optional;

/** What is written down of blocks, by the name of their type. */
public final class Behaviours {
    private Behaviours() {}

    /**
     * @param parameters those of its module
     * @return empty for a block of which nothing is written down
     */
    public static Optional<Behaviour> of(String block, Map<String, Long> parameters) {
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
                    default -> null;
                });
    }
}
