package polymetron.software;

import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Pass;
import polymetron.elaborate.TargetRange;
import polymetron.library.Capability;
import polymetron.serial.BaudRate;

/** UARTs with the registers of the 16550: rates, clocks, and which of them is the console. */
public final class Consoles {
    /** Kind of a board part that a person reads and types at. */
    public static final String BOARD_PART = "serial-console";

    /** Names of the blocks that drive a console of the board. */
    private static final Pass<Set<String>> ON_BOARD =
            Pass.named(
                    "consoles of the board",
                    platform ->
                            platform.outward().stream()
                                    .filter(link -> link.part() != null)
                                    .filter(link -> link.part().kind().equals(BOARD_PART))
                                    .map(link -> link.block().name())
                                    .collect(Collectors.toUnmodifiableSet()));

    private Consoles() {}

    /** What a target is as a UART; empty for anything else. */
    public static Optional<Capability.Console> at(TargetRange target) {
        return at(target.block(), target.form().name());
    }

    public static Optional<Capability.Console> at(ElaboratedBlock block, String registers) {
        return block.type().provides(Capability.Console.class).stream()
                .filter(console -> console.registers().equals(registers))
                .findFirst();
    }

    /** Clock in hertz; 0 when it has none. */
    public static long clockHz(
            ElaboratedPlatform platform, ElaboratedBlock block, Capability.Console console) {
        return Harts.hertz(platform, block, console.hertz());
    }

    /** The rate of a UART that has a clock. */
    public static Optional<BaudRate> rate(
            ElaboratedPlatform platform, ElaboratedBlock block, Capability.Console console) {
        long clockHz = clockHz(platform, block, console);
        return clockHz > 0
                ? Optional.of(new BaudRate(block.shape().number(console.baud(), 1), clockHz))
                : Optional.empty();
    }

    /** Whether a block drives the console of the board; of several UARTs that is the one to print to. */
    public static boolean isOnBoardConsole(ElaboratedPlatform platform, ElaboratedBlock block) {
        return platform.result(ON_BOARD).contains(block.name());
    }
}
