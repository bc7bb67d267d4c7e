package polymetron.library;

import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import polymetron.json.DocumentFormat;

/**
 * An FPGA: what it holds and which pins its package has.
 *
 * @param logic what its lookup tables and multipliers are
 * @param memoryBlocks blocks of memory by sort
 * @param distributed lookup tables that can be small memories; null when none can
 * @param clockNetworks clocks that can reach all of it
 * @param plls what its PLLs can do; null when it has none
 * @param standards I/O standards that its pins can have
 * @param hard hard blocks that it has besides, and how many of each
 */
public record Device(
        String format,
        String name,
        String family,
        String packageName,
        long lookupTables,
        long flipFlops,
        Logic logic,
        long memoryBits,
        long multipliers,
        List<MemoryBlock> memoryBlocks,
        Distributed distributed,
        int clockNetworks,
        Plls plls,
        List<Standard> standards,
        Map<String, Integer> hard,
        List<Bank> banks) {
    public static final String FORMAT = "polymetron-device/1";

    private static final DocumentFormat<Device> DOCUMENT =
            new DocumentFormat<>(FORMAT, null, Device.class);

    /**
     * What logic is made of.
     *
     * @param inputs inputs of a lookup table
     * @param carryChains whether adders have a way of their own from bit to bit
     * @param multiplierBits widths of the two signed factors of a multiplier
     */
    public record Logic(int inputs, boolean carryChains, List<Integer> multiplierBits) {
        public Logic {
            multiplierBits = Lists.orEmpty(multiplierBits);
        }

        /** What it is, in words. */
        public String words() {
            return "lookup tables of %s inputs %s carry chains, multipliers of %s bits"
                    .formatted(
                            inputs,
                            carryChains ? "with" : "without",
                            String.join(
                                    " × ", multiplierBits.stream().map(String::valueOf).toList()));
        }
    }

    /**
     * A sort of memory block.
     *
     * @param count how many the device has
     * @param ports ports of each: 2 can be read and written at once
     * @param halves whether one block can be two independent ones of half the depth
     * @param shapes depth and width that a block can have
     */
    public record MemoryBlock(
            String name, int count, int ports, boolean halves, List<Shape> shapes) {
        public MemoryBlock {
            shapes = Lists.orEmpty(shapes);
        }

        /** Bits of one block. */
        public long bits() {
            return shapes.stream().mapToLong(Shape::bits).max().orElse(0);
        }
    }

    /**
     * Lookup tables that can be memories of few words.
     *
     * @param depth words of one bit that a lookup table holds
     * @param lookupTables how many can be used so
     */
    public record Distributed(int depth, long lookupTables) {}

    /** Words and bits a word of a memory block. */
    public record Shape(int depth, int width) {
        public long bits() {
            return (long) depth * width;
        }
    }

    /**
     * What each PLL can do.
     *
     * @param multiplierSteps steps of the multiplier between two whole numbers; 1 for whole numbers only
     */
    public record Plls(
            int count,
            int outputs,
            long inputMinimumHz,
            long inputMaximumHz,
            long detectorMinimumHz,
            long detectorMaximumHz,
            long vcoMinimumHz,
            long vcoMaximumHz,
            int inputDividerMaximum,
            int multiplierMinimum,
            int multiplierMaximum,
            int multiplierSteps,
            int outputDividerMaximum) {}

    /**
     * An I/O standard and the supply voltage that its bank needs.
     *
     * @param drives currents in mA that an output can have, the usual one first; empty where there is no choice
     */
    public record Standard(
            String name, String voltage, boolean differential, List<Integer> drives) {
        public Standard {
            drives = Lists.orEmpty(drives);
        }
    }

    /**
     * Pins that share one supply voltage.
     *
     * @param paired whether the pins are pairs in the order of the list, the positive one first
     * @param clockPins clock-capable pins
     * @param configurationPins pins that are taken while the device is configured
     */
    public record Bank(
            String name,
            String voltage,
            boolean paired,
            List<String> pins,
            List<String> clockPins,
            List<String> configurationPins) {
        public Bank {
            pins = Lists.orEmpty(pins);
            clockPins = Lists.orEmpty(clockPins);
            configurationPins = Lists.orEmpty(configurationPins);
        }

        Bank at(String supply) {
            return new Bank(name, supply, paired, pins, clockPins, configurationPins);
        }

        /** The pin that makes a pair with another; empty where pins do not pair. */
        public Optional<String> partner(String pin) {
            int at = pins.indexOf(pin);
            int other = at % 2 == 0 ? at + 1 : at - 1;
            return paired && at >= 0 && other < pins.size()
                    ? Optional.of(pins.get(other))
                    : Optional.empty();
        }

        /** Whether two pins are the positive and the negative one of a pair. */
        public boolean isPair(String positive, String negative) {
            int at = pins.indexOf(positive);
            return paired
                    && at >= 0
                    && at % 2 == 0
                    && at + 1 < pins.size()
                    && pins.get(at + 1).equals(negative);
        }
    }

    public Device {
        memoryBlocks = Lists.orEmpty(memoryBlocks);
        standards = Lists.orEmpty(standards);
        hard = hard == null ? Map.of() : Collections.unmodifiableMap(new TreeMap<>(hard));
        banks = Lists.orEmpty(banks);
    }

    /** The device as a board supplies it; banks that are not named have their usual voltage. */
    Device supplied(Map<String, String> voltages) {
        return voltages.isEmpty()
                ? this
                : withBanks(
                        banks.stream()
                                .map(
                                        bank ->
                                                bank.at(
                                                        voltages.getOrDefault(
                                                                bank.name(), bank.voltage())))
                                .toList());
    }

    private Device withBanks(List<Bank> other) {
        return new Device(
                format,
                name,
                family,
                packageName,
                lookupTables,
                flipFlops,
                logic,
                memoryBits,
                multipliers,
                memoryBlocks,
                distributed,
                clockNetworks,
                plls,
                standards,
                hard,
                other);
    }

    /** Voltages that its I/O standards need, in the order of the standards. */
    public List<String> voltages() {
        return standards.stream().map(Standard::voltage).distinct().toList();
    }

    public boolean hasPin(String pin) {
        return bankOf(pin).isPresent();
    }

    /** The bank that a pin is in. */
    public Optional<Bank> bankOf(String pin) {
        return banks.stream().filter(bank -> bank.pins().contains(pin)).findFirst();
    }

    public Optional<Standard> standard(String standard) {
        return standards.stream().filter(each -> each.name().equals(standard)).findFirst();
    }

    /** Pins that are free once the device is configured. */
    public long pins() {
        return banks.stream()
                .mapToLong(bank -> bank.pins().size() - bank.configurationPins().size())
                .sum();
    }

    /** How many hard blocks of a sort it has. */
    public int hardBlocks(String sort) {
        return hard.getOrDefault(sort, 0);
    }

    /**
     * One that comes with the product: its form, and no more, is checked.
     *
     * @param name what the document is called in messages, such as its file name
     * @throws polymetron.json.DocumentException when it is of another form; the message names line and key
     */
    static Device read(String name, String text) {
        return DOCUMENT.read(name, text);
    }
}
