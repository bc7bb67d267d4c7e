package polymetron.bench.block;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Register;
import polymetron.handoff.Fingerprint;
import polymetron.serial.Uart;

/** The bench models, by the name of the block type. This is the one place where a model is registered. */
public final class BlockModels {
    private static final Map<String, BiFunction<ElaboratedPlatform, ElaboratedBlock, BlockModel>>
            MODELS =
                    Map.of(
                            "uart",
                            (platform, block) ->
                                    new UartModel(
                                            Uart.baudRate(platform, block)
                                                    .map(rate -> (int) rate.divisor())
                                                    .orElse(1)),
                            "hard-complex",
                            (platform, block) -> new UartModel(ownDivisor(block)),
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
                            (platform, block) -> new IdentityModel(Fingerprint.of(platform)),
                            "machine-timer",
                            (platform, block) ->
                                    new MachineTimerModel((int) block.shape().number("DIVIDER")),
                            "interrupt-controller",
                            (platform, block) ->
                                    new InterruptControllerModel(
                                            (int) block.shape().number("SOURCES"),
                                            (int) block.shape().number("PRIORITY_BITS")));

    private BlockModels() {}

    /** Divisor of the console inside a processor complex (PC16550D data sheet, table III). */
    private static int ownDivisor(ElaboratedBlock block) {
        long rate = 16 * block.shape().number(Uart.BAUD);
        return (int) Math.max(1, (block.shape().number(Uart.OWN_CLOCK) + rate / 2) / rate);
    }

    /** A new model of a block; empty when it has no registers. */
    public static Optional<BlockModel> create(ElaboratedPlatform platform, ElaboratedBlock block) {
        var make = MODELS.get(block.type().identity().name());
        if (make != null) {
            return Optional.of(make.apply(platform, block));
        }
        List<Register> registers = block.shape().registers();
        return registers.isEmpty()
                ? Optional.empty()
                : Optional.of(new RegisterFileModel(registers));
    }
}
