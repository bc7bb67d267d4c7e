package polymetron.library;

import java.util.List;

/** An FPGA: what it holds and which pins its package has. */
public record Device(
        String format,
        String name,
        String family,
        String packageName,
        long lookupTables,
        long flipFlops,
        long memoryBits,
        long multipliers,
        List<Bank> banks) {
    public static final String FORMAT = "polymetron-device/1";

    /** Pins that share one supply voltage. */
    public record Bank(String name, String voltage, List<String> pins) {
        public Bank {
            pins = Lists.orEmpty(pins);
        }
    }

    public Device {
        banks = Lists.orEmpty(banks);
    }

    public boolean hasPin(String pin) {
        return banks.stream().anyMatch(bank -> bank.pins().contains(pin));
    }
}
