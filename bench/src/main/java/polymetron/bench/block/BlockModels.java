package polymetron.bench.block;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedInterface;
import polymetron.handoff.Fingerprint;
import polymetron.library.Capability;
import polymetron.software.Consoles;
import polymetron.software.InterruptController;
import polymetron.software.MachineTimer;

/**
 * The bench models: of what a block is to the rest of a platform, or of a block type by its name. This is the one place
 * where a model is registered.
 */
public final class BlockModels {
    private static final Map<String, BiFunction<ElaboratedPlatform, ElaboratedBlock, BlockModel>>
            MODELS =
                    Map.of(
                            "gpio",
                            (platform, block) ->
                                    new GpioModel(
                                            (int) block.shape().number("WIDTH"),
                                            block.shape().parameters().get("DIRECTION").toString(),
                                            block.shape().number("EDGE_INTERRUPT") != 0,
                                            (int) block.shape().number("OUTPUT_RESET")),
                            "general-timer",
                            (platform, block) ->
                                    new GeneralTimerModel(
                                            (int) block.shape().number("WIDTH"),
                                            (int) block.shape().number("PRESCALE")),
                            "platform-identity",
                            (platform, block) -> new IdentityModel(Fingerprint.of(platform)));

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
        for (MachineTimer timer : MachineTimer.of(platform)) {
            if (timer.registers().equals(ref)) {
                return clocked(
                        new MachineTimerModel((int) timer.divider(), timer.timed().size()),
                        timer.hertz(),
                        processorHz);
            }
        }
        for (InterruptController controller : InterruptController.of(platform)) {
            if (controller.registers().equals(ref)) {
                return Optional.of(
                        new InterruptControllerModel(
                                controller.sources(),
                                controller.priorityBits(),
                                Math.max(1, controller.contexts().size())));
            }
        }
        Capability.Console console = Consoles.at(block, form.name()).orElse(null);
        if (console != null) {
            int divisor =
                    Consoles.rate(platform, block, console)
                            .map(rate -> (int) rate.divisor())
                            .orElse(1);
            return clocked(
                    new UartModel(divisor),
                    Consoles.clockHz(platform, block, console),
                    processorHz);
        }
        long clockHz = platform.frequencyHz(block);
        var make = MODELS.get(block.type().identity().name());
        if (make != null) {
            return clocked(make.apply(platform, block), clockHz, processorHz);
        }
        List<Register> registers = block.shape().registersOf(form.name());
        return registers.isEmpty()
                ? Optional.empty()
                : Optional.of(new RegisterFileModel(registers, clockHz));
    }

    private static Optional<BlockModel> clocked(BlockModel model, long ownHz, long processorHz) {
        model.clock(ClockRatio.of(ownHz, processorHz));
        return Optional.of(model);
    }
}
