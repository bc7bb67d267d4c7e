package polymetron.bench.block;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import polymetron.bench.clock.ClockRatio;
import polymetron.cost.Bursts;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedInterface;
import polymetron.library.Capability;
import polymetron.library.Vlnv;
import polymetron.output.Fingerprint;
import polymetron.software.Consoles;
import polymetron.software.InterruptController;
import polymetron.software.MachineTimer;

/**
 * The bench models: of what a block is to the rest of a platform, or of a block type by its name. This is the one place
 * where a model is registered.
 */
public final class BlockModels {
    /** What a block with a behaviour of its own is made from. */
    private record Made(ElaboratedPlatform platform, ElaboratedBlock block, RegisterBank bank) {
        /** A parameter of the block type that the model is of. */
        int number(String parameter) {
            return (int) block.shape().number(parameter);
        }

        long large(String parameter) {
            return block.shape().number(parameter);
        }

        /** Most accesses of a burst of an initiator of the block. */
        int burst(String side) {
            return platform.space(new InterfaceRef(block.name(), side))
                    .filter(space -> space.bus() != null)
                    .map(space -> Bursts.longest(space.bus(), space.initiator()))
                    .orElse(1);
        }

        String text(String parameter) {
            return block.shape().parameters().get(parameter).toString();
        }
    }

    private static final Map<String, Function<Made, BlockModel>> MODELS =
            Map.ofEntries(
                    of("general-timer", made -> new GeneralTimerModel(made.bank())),
                    of("pwm", made -> new PwmModel(made.bank(), made.number("CHANNELS"))),
                    of("i2c-controller", made -> new I2cModel(made.bank(), made.number("FILTER"))),
                    of("watchdog", made -> new WatchdogModel(made.bank())),
                    of(
                            "spi-controller",
                            made ->
                                    new SpiModel(
                                            made.bank(), made.number("WORD"), made.number("FIFO"))),
                    of(
                            "platform-identity",
                            made ->
                                    new IdentityModel(
                                            made.bank(), Fingerprint.of(made.platform()))),
                    of(
                            "event-counter",
                            made -> new EventCounterModel(made.bank(), made.large("GATE"))),
                    of(
                            "decimating-filter",
                            made ->
                                    new DecimatingFilterModel(
                                            made.bank(),
                                            made.number("SAMPLE"),
                                            made.number("CHANNELS"),
                                            made.number("ORDER"),
                                            made.number("INSIDE"))),
                    of(
                            "fir-filter",
                            made -> new FirFilterModel(made.bank(), FirShape.of(made.block()))),
                    of(
                            "threshold-trigger",
                            made ->
                                    new ThresholdTriggerModel(
                                            made.bank(),
                                            made.number("SAMPLE"),
                                            made.number("CHANNELS"),
                                            made.number("SHORT"),
                                            made.number("LONG"))),
                    of(
                            "converter-reader",
                            made ->
                                    new ConverterReaderModel(
                                            made.bank(),
                                            made.number("CHANNELS"),
                                            made.number("SAMPLE"),
                                            made.number("DIVIDER"),
                                            made.number("MODE"))),
                    of(
                            "signal-probe",
                            made ->
                                    new SignalProbeModel(
                                            made.bank(),
                                            made.number("WIDTH"),
                                            made.number("DEPTH"),
                                            made.number("BEFORE"),
                                            made.text("TRIGGER"))),
                    of(
                            "dma",
                            made ->
                                    new DmaModel(
                                            made.bank(),
                                            made.text("CHANNELS"),
                                            made::burst,
                                            made.number("WIDTH") / 8,
                                            made.number("FIFO"),
                                            made.number("RING") != 0)),
                    of(
                            "flash-controller",
                            made ->
                                    new FlashControllerModel(
                                            made.bank(),
                                            made.number("DIVIDER"),
                                            made.number("LINES"),
                                            made.large("SIZE"),
                                            made.platform().frequencyHz(made.block()))),
                    of(
                            "ring-writer",
                            made ->
                                    new RingWriterModel(
                                            made.bank(),
                                            made.number("WIDTH") / 8,
                                            made.number("BURST"))),
                    of(
                            "pps-timestamp",
                            made ->
                                    new PpsTimestampModel(
                                            made.bank(),
                                            made.large("NOMINAL"),
                                            made.large("WINDOW"))),
                    of(
                            "analog-monitor",
                            made -> new AnalogMonitorModel(made.bank(), made.number("CHANNELS"))));

    private static Map.Entry<String, Function<Made, BlockModel>> of(
            String type, Function<Made, BlockModel> make) {
        return Map.entry(type, make);
    }

    private BlockModels() {}

    /**
     * A new model of what lies behind a target of a block; empty when it has no registers.
     *
     * @param processorHz clock of the processor in hertz, in which the bench counts time
     */
    public static Optional<BlockModel> create(
            ElaboratedPlatform platform,
            ElaboratedBlock block,
            SizedInterface form,
            long processorHz) {
        InterfaceRef ref = new InterfaceRef(block.name(), form.name());
        List<Register> registers = block.shape().registersOf(form.name());
        for (MachineTimer timer : MachineTimer.of(platform)) {
            if (timer.registers().equals(ref)) {
                RegisterBank bank = new RegisterBank(registers, timer.hertz());
                return clocked(
                        new MachineTimerModel(bank, (int) timer.divider(), timer.timed().size()),
                        timer.hertz(),
                        processorHz);
            }
        }
        long clockHz = platform.frequencyHz(block);
        for (InterruptController controller : InterruptController.of(platform)) {
            if (controller.registers().equals(ref)) {
                return clocked(
                        new InterruptControllerModel(
                                new RegisterBank(registers, clockHz),
                                controller.sources(),
                                Math.max(1, controller.contexts().size())),
                        clockHz,
                        processorHz);
            }
        }
        Capability.Console console = Consoles.at(block, form.name()).orElse(null);
        if (console != null) {
            long consoleHz = Consoles.clockHz(platform, block, console);
            return clocked(
                    new UartModel(new RegisterBank(registers, consoleHz)), consoleHz, processorHz);
        }
        for (Capability.Lines lines : block.type().provides(Capability.Lines.class)) {
            if (lines.registers().equals(form.name())) {
                long count = Math.clamp(block.shape().number(lines.count(), 1), 1, 32);
                RegisterBank bank = new RegisterBank(registers, clockHz);
                return clocked(new GpioModel(bank, lines, (1L << count) - 1), clockHz, processorHz);
            }
        }
        for (Capability.OutsideLogic outside :
                block.type().provides(Capability.OutsideLogic.class)) {
            if (outside.port().equals(form.name())) {
                return clocked(new OutsideModel(), clockHz, processorHz);
            }
        }
        var make = MODELS.get(block.type().identity().name());
        // A block of that name from another vendor may be anything.
        if (make != null && block.type().identity().vendor().equals(Vlnv.OURS)) {
            Made made = new Made(platform, block, new RegisterBank(registers, clockHz));
            return clocked(make.apply(made), clockHz, processorHz);
        }
        return registers.isEmpty()
                ? Optional.empty()
                : clocked(new RegisterFileModel(registers, clockHz), clockHz, processorHz);
    }

    private static Optional<BlockModel> clocked(BlockModel model, long ownHz, long processorHz) {
        model.clock(ClockRatio.of(ownHz, processorHz));
        return Optional.of(model);
    }
}
