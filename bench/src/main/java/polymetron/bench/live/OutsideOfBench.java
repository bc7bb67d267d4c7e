package polymetron.bench.live;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import polymetron.bench.machine.BenchException;
import polymetron.bench.machine.Machine;
import polymetron.bench.machine.SurroundingOfBoard;
import polymetron.bench.part.ConverterSignal;
import polymetron.bench.part.Receiver;
import polymetron.bench.part.SampleTable;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.OutwardLink;
import polymetron.library.Capability;
import polymetron.library.Surrounding;

/** Voltages, signals and satellites around a machine: what they are at the beginning, and how they are changed. */
final class OutsideOfBench {
    private static final double STEPS = 1 << Capability.AnalogInputs.BITS;

    /** Of the full scale, at the beginning. */
    private static final double FIRST_VOLTAGE = 0.85;

    private final Machine machine;

    /** Voltages at a part that a block measures: the steps of each channel. */
    private record Inputs(String block, double fullScale, int[] steps) {}

    /** By the name of the part. */
    private final Map<String, Inputs> inputs = new LinkedHashMap<>();

    OutsideOfBench(Machine machine) {
        this.machine = machine;
        for (OutwardLink link : links()) {
            ElaboratedBlock block = link.block();
            for (Capability.AnalogInputs role :
                    block.type().provides(Capability.AnalogInputs.class)) {
                int[] first = new int[(int) block.shape().number(role.channels(), 1)];
                java.util.Arrays.fill(first, (int) (FIRST_VOLTAGE * STEPS));
                double fullScale =
                        role.fullScale()
                                .evaluate(block.shape().parameters())
                                .asDecimal()
                                .doubleValue();
                inputs.put(link.part().name(), new Inputs(block.name(), fullScale, first));
            }
            machine.signal(link.part().name())
                    .ifPresent(signal -> signal.set(ConverterSignal.Shape.QUIET));
            machine.receiver(link.part().name())
                    .ifPresent(receiver -> receiver.set(true, machine.cycles()));
        }
        begin();
        machine.surroundings().stream()
                .filter(each -> !each.described().kind().equals(Surrounding.BATTERY))
                .forEach(each -> machine.setActing(each, true));
    }

    private List<OutwardLink> links() {
        return machine.platform().outward().stream().filter(link -> link.part() != null).toList();
    }

    /** Puts the voltages on a machine that was reset; signals and receivers stay as they are by themselves. */
    void begin() {
        inputs.keySet().forEach(this::apply);
        machine.settle();
    }

    private void apply(String part) {
        int[] channels = inputs.get(part).steps();
        for (int channel = 0; channel < channels.length; channel++) {
            machine.setVoltage(part, channel, channels[channel]);
        }
    }

    /**
     * @throws BenchException when something around the board moves the part
     */
    void requireFree(String part) {
        machine.holder(part)
                .ifPresent(
                        holder -> {
                            throw new BenchException(
                                    "%s follows the %s; stop that to move it by hand"
                                            .formatted(part, holder.described().title()));
                        });
    }

    /**
     * @throws BenchException when there is nothing of the kind
     */
    void setActing(String kind, boolean on) {
        SurroundingOfBoard surrounding =
                machine.surroundings().stream()
                        .filter(each -> each.described().kind().equals(kind))
                        .findFirst()
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "there is no %s around this platform"
                                                        .formatted(kind)));
        machine.setActing(surrounding, on);
    }

    /**
     * @throws BenchException when no block measures there, or something around the board moves the part
     */
    void setVoltage(String part, int channel, double volts) {
        Inputs measured = inputs.get(part);
        if (measured == null) {
            throw new BenchException("no block measures at %s".formatted(part));
        }
        requireFree(part);
        int[] channels = measured.steps();
        if (channel < 0 || channel >= channels.length) {
            throw new BenchException(
                    "%s has channels 0 to %s, not %s"
                            .formatted(part, channels.length - 1, channel));
        }
        double fullScale = measured.fullScale();
        if (!(volts >= 0 && volts <= fullScale)) {
            throw new BenchException(
                    "%s measures 0 to %s V, not %s V".formatted(part, fullScale, volts));
        }
        channels[channel] = (int) Math.min(STEPS - 1, Math.round(volts / fullScale * STEPS));
        apply(part);
    }

    /**
     * @throws BenchException when there is no converter on the part, or no such shape
     */
    void setSignal(String part, String shape) {
        ConverterSignal signal = signal(part);
        signal.set(
                shapes(signal)
                        .filter(each -> each.toString().equals(shape))
                        .findFirst()
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "a converter measures one of %s, not %s"
                                                        .formatted(
                                                                String.join(", ", words(signal)),
                                                                shape))));
    }

    private ConverterSignal signal(String part) {
        return machine.signal(part)
                .orElseThrow(
                        () -> new BenchException("there is no converter on %s".formatted(part)));
    }

    /**
     * @throws BenchException when there is no converter on the part, or the table is none of its samples
     */
    void setSamples(String part, String table) {
        ConverterSignal signal = signal(part);
        try {
            signal.set(SampleTable.read(table, signal.channels(), signal.bits()));
        } catch (IllegalArgumentException wrong) {
            throw new BenchException(wrong.getMessage());
        }
    }

    private static Stream<ConverterSignal.Shape> shapes(ConverterSignal signal) {
        return Stream.of(ConverterSignal.Shape.values())
                .filter(each -> each != ConverterSignal.Shape.TABLE || signal.hasTable())
                .filter(
                        each ->
                                each != ConverterSignal.Shape.FOLLOWS
                                        || signal.shape() == ConverterSignal.Shape.FOLLOWS);
    }

    private static List<String> words(ConverterSignal signal) {
        return shapes(signal).map(Object::toString).toList();
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
        inputs.forEach(
                (part, measured) -> {
                    for (int channel = 0; channel < measured.steps().length; channel++) {
                        double volts =
                                machine.voltage(part, channel) / STEPS * measured.fullScale();
                        voltages.add(
                                new Outside.Voltage(
                                        part,
                                        measured.block(),
                                        channel,
                                        volts,
                                        measured.fullScale()));
                    }
                });
        List<Outside.Signal> signals = new ArrayList<>();
        List<Outside.Reception> receptions = new ArrayList<>();
        for (OutwardLink link : links()) {
            String part = link.part().name();
            String block = link.block().name();
            machine.signal(part)
                    .ifPresent(
                            signal ->
                                    signals.add(
                                            new Outside.Signal(
                                                    part,
                                                    block,
                                                    signal.shape().toString(),
                                                    words(signal),
                                                    signal.channels(),
                                                    signal.bits())));
            machine.receiver(part)
                    .ifPresent(
                            receiver ->
                                    receptions.add(
                                            new Outside.Reception(part, block, receiver.isOn())));
        }
        List<Outside.Around> around =
                machine.surroundings().stream()
                        .map(
                                each ->
                                        new Outside.Around(
                                                each.described().kind(),
                                                each.described().title(),
                                                each.described().summary(),
                                                each.acts(),
                                                List.copyOf(each.described().parts().values()),
                                                each.readings()))
                        .toList();
        return new Outside(voltages, signals, receptions, around);
    }
}
