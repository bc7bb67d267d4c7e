package polymetron.serial;

import java.util.Optional;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;

/** Blocks with the register model of the 16550. */
public final class Uart {
    /** Parameter that holds the wanted rate in baud. */
    public static final String BAUD = "BAUD";

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
}
