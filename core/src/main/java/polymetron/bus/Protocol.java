package polymetron.bus;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A bus protocol with the rules that it brings itself.
 *
 * <p>Sources: Arm IHI 0022 (AXI4 and AXI4-Lite, data widths in B1.1 and B1.1.1), Arm
 * IHI 0033 (AHB-Lite has one manager), Arm IHI 0024 (APB data buses of up to 32 bits,
 * one requester), OpenCores Wishbone B4 (data widths up to 64 bits). Buses of less than 32 bits are left out: the
 * registers of the library have 32.
 */
public enum Protocol {
    AXI4("axi4", "AXI4", List.of(32, 64, 128, 256, 512, 1024), false, 4096, 256, 2),
    AXI4_LITE("axi4-lite", "AXI4-Lite", List.of(32, 64), false, 0, 1, 2),
    AHB_LITE("ahb-lite", "AHB-Lite", List.of(32, 64, 128, 256, 512, 1024), true, 1024, 1024, 2),
    APB("apb", "APB", List.of(32), true, 0, 1, 2),
    WISHBONE("wishbone-b4", "Wishbone B4", List.of(32, 64), false, 0, 1, 1);

    private final String word;
    private final String title;
    private final List<Integer> dataWidths;
    private final boolean oneInitiator;
    private final long burstBoundaryBytes;
    private final int longestBurst;
    private final int readCycles;

    Protocol(
            String word,
            String title,
            List<Integer> dataWidths,
            boolean oneInitiator,
            long burstBoundaryBytes,
            int longestBurst,
            int readCycles) {
        this.word = word;
        this.title = title;
        this.dataWidths = dataWidths;
        this.oneInitiator = oneInitiator;
        this.burstBoundaryBytes = burstBoundaryBytes;
        this.longestBurst = longestBurst;
        this.readCycles = readCycles;
    }

    public static Optional<Protocol> of(String word) {
        return Arrays.stream(values()).filter(each -> each.word.equals(word)).findFirst();
    }

    /** All protocols as a document writes them, for messages. */
    public static String words() {
        return Arrays.stream(values()).map(Protocol::toString).collect(Collectors.joining(", "));
    }

    /** Data widths in bits that a bus of this protocol can have. */
    public List<Integer> dataWidths() {
        return dataWidths;
    }

    /** Whether it allows one initiator only. */
    public boolean hasOneInitiator() {
        return oneInitiator;
    }

    /**
     * Addresses that no burst may cross lie this far apart: 4 KiB on AXI4 (Arm IHI 0022, A3.4.1), 1 KiB on AHB (Arm IHI
     * 0033, 3.5); 0 where there are no such bursts.
     */
    public long burstBoundaryBytes() {
        return burstBoundaryBytes;
    }

    /** Whether initiators of the library make bursts on it: on AHB-Lite each transfer has an address of its own. */
    public boolean carriesBursts() {
        return this == AXI4;
    }

    /** Most transfers of a burst; 1 where there are none. */
    public int longestBurst() {
        return longestBurst;
    }

    /**
     * Fewest clock cycles of a single read: an address and a data handshake on AXI (Arm IHI 0022, A3.2), address and data
     * phase on AHB (Arm IHI 0033, 3.1), setup and access phase on APB (Arm IHI 0024, 3.2), one cycle on Wishbone, whose
     * acknowledge may come in the cycle of the request (Wishbone B4, 3.1.3).
     */
    public int readCycles() {
        return readCycles;
    }

    /**
     * How many of {@link #readCycles} come after the one in which a target can do what is asked: on AXI an answer has a
     * handshake of its own; on AHB and APB the address or setup phase comes before, and data may come in the cycle in which the
     * target does it, as on Wishbone.
     */
    public int answerCycles() {
        return switch (this) {
            case AXI4, AXI4_LITE -> 1;
            case AHB_LITE, APB, WISHBONE -> 0;
        };
    }

    /** What a person calls it. */
    public String title() {
        return title;
    }

    /** As a document writes it. */
    @Override
    public String toString() {
        return word;
    }
}
