package polymetron.serial;

import java.util.Optional;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;

/** Blocks with the register model of the 16550. */
public final class Uart {
    /** Parameter that holds the wanted rate in baud. */
    public static final String BAUD = "BAUD";

    /** Name of the parameter with the clock of a UART inside a block. */
    public static final String OWN_CLOCK = "CONSOLE_HZ";

    /** Kind of a board part that a person reads and types at. */
    public static final String CONSOLE_PART = "serial-console";

    private static final String MODEL = "16550";

    private Uart() {}

    public static boolean isUart(ElaboratedBlock block) {
        return MODEL.equals(block.type().software().standard());
    }

    /** The rate of a UART that has a clock; empty for anything else. */
    public static Optional<BaudRate> baudRate(ElaboratedPlatform platform, ElaboratedBlock block) {
        long clockHz = platform.frequencyHz(block);
        return isUart(block) && clockHz > 0
                ? Optional.of(new BaudRate(block.shape().number(BAUD), clockHz))
                : Optional.empty();
    }

    /** Whether a target is a UART: the block itself, or one inside it. */
    public static boolean isUart(TargetRange target) {
        return MODEL.equals(target.software().standard());
    }

    /** Whether a block drives the console of the board; of several UARTs that is the one to print to. */
    public static boolean drivesConsole(ElaboratedPlatform platform, ElaboratedBlock block) {
        return platform.outward().stream()
                .anyMatch(
                        link ->
                                link.block() == block
                                        && link.part() != null
                                        && link.part().kind().equals(CONSOLE_PART));
    }

    /** Clock in hertz of a UART; one inside a block has a fixed clock of its own. */
    public static long clockHz(ElaboratedPlatform platform, TargetRange uart) {
        return uart.form().isForBus()
                ? platform.frequencyHz(uart.block())
                : uart.block().shape().number(OWN_CLOCK);
    }
}
