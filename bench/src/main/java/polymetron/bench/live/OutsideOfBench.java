package polymetron.bench.live;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import polymetron.bench.machine.BenchException;
import polymetron.bench.machine.Machine;
import polymetron.bench.part.ConverterSignal;
import polymetron.bench.part.Receiver;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.OutwardLink;
import polymetron.library.Capability;

/** Voltages, signals and satellites around a machine: what they are at the beginning, and how they are changed. */
final class OutsideOfBench {
    private static final double STEPS = 1 << Capability.AnalogInputs.BITS;

    /** Of the full scale, at the beginning. */
    private static final double FIRST_VOLTAGE = 0.85;

    private final Machine machine;

    /** Steps of each channel by the name of the part. */
    private final Map<String, int[]> steps = new LinkedHashMap<>();

    OutsideOfBench(Machine machine) {
        this.machine = machine;
        for (OutwardLink link : links()) {
            for (Capability.AnalogInputs inputs : inputs(link.block())) {
                int[] first = new int[(int) link.block().shape().number(inputs.channels(), 1)];
                java.util.Arrays.fill(first, (int) (FIRST_VOLTAGE * STEPS));
                steps.put(link.part().name(), first);
            }
            machine.signal(link.part().name())
                    .ifPresent(signal -> signal.set(ConverterSignal.Shape.QUIET));
        }
        begin();
    }

    private List<OutwardLink> links() {
        return machine.platform().outward().stream().filter(link -> link.part() != null).toList();
    }

    private static List<Capability.AnalogInputs> inputs(ElaboratedBlock block) {
        return block.type().provides(Capability.AnalogInputs.class);
    }

    /** Puts everything as it is on a machine that was reset. */
    void begin() {
        steps.keySet().forEach(this::apply);
        for (OutwardLink link : links()) {
            machine.receiver(link.part().name())
                    .ifPresent(receiver -> receiver.set(true, machine.cycles()));
        }
        machine.settle();
    }

    private void apply(String part) {
        int[] channels = steps.get(part);
        for (int channel = 0; channel < channels.length; channel++) {
            machine.setVoltage(part, channel, channels[channel]);
        }
    }

    /**
     * @throws BenchException when no block measures there
     */
    void setVoltage(String part, int channel, double volts) {
        OutwardLink link =
                links().stream()
                        .filter(each -> each.part().name().equals(part))
                        .filter(each -> !inputs(each.block()).isEmpty())
                        .findFirst()
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "no block measures at %s".formatted(part)));
        int[] channels = steps.get(part);
        if (channel < 0 || channel >= channels.length) {
            throw new BenchException(
                    "%s has channels 0 to %s, not %s"
                            .formatted(part, channels.length - 1, channel));
        }
        double fullScale = fullScale(link.block());
        if (!(volts >= 0 && volts <= fullScale)) {
            throw new BenchException(
                    "%s measures 0 to %s V, not %s V".formatted(part, fullScale, volts));
        }
        channels[channel] = (int) Math.min(STEPS - 1, Math.round(volts / fullScale * STEPS));
        apply(part);
    }

    private static double fullScale(ElaboratedBlock block) {
        return inputs(block)
                .getFirst()
                .fullScale()
                .evaluate(block.shape().parameters())
                .asDecimal()
                .doubleValue();
    }

    /**
     * @throws BenchException when there is no converter on the part, or no such shape
     */
    void setSignal(String part, String shape) {
        ConverterSignal signal =
                machine.signal(part)
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "there is no converter on %s".formatted(part)));
        signal.set(
                Stream.of(ConverterSignal.Shape.values())
                        .filter(each -> each.toString().equals(shape))
                        .findFirst()
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "a converter measures one of %s, not %s"
                                                        .formatted(
                                                                String.join(", ", shapes()),
                                                                shape))));
    }

    private static List<String> shapes() {
        return Stream.of(ConverterSignal.Shape.values()).map(Object::toString).toList();
    }

    /**
     * @throws BenchException when the part is no receiver that a block looks at
     */
    void setReception(String part, boolean on) {
        Receiver receiver =
                machine.receiver(part)
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "no block is on a receiver called %s"
                                                        .formatted(part)));
        receiver.set(on, machine.cycles());
        machine.settle();
    }

    Outside state() {
        List<Outside.Voltage> voltages = new ArrayList<>();
        List<Outside.Signal> signals = new ArrayList<>();
        List<Outside.Reception> receptions = new ArrayList<>();
        for (OutwardLink link : links()) {
            String part = link.part().name();
            String block = link.block().name();
            if (steps.containsKey(part)) {
                double fullScale = fullScale(link.block());
                int[] channels = steps.get(part);
                for (int channel = 0; channel < channels.length; channel++) {
                    voltages.add(
                            new Outside.Voltage(
                                    part,
                                    block,
                                    channel,
                                    channels[channel] / STEPS * fullScale,
                                    fullScale));
                }
            }
            machine.signal(part)
                    .ifPresent(
                            signal ->
                                    signals.add(
                                            new Outside.Signal(
                                                    part,
                                                    block,
                                                    signal.shape().toString(),
                                                    shapes())));
            machine.receiver(part)
                    .ifPresent(
                            receiver ->
                                    receptions.add(
                                            new Outside.Reception(part, block, receiver.isOn())));
        }
        return new Outside(voltages, signals, receptions);
    }
}
