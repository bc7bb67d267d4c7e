package polymetron.server.library;

import jakarta.annotation.Nullable;
import java.util.ArrayList;
import java.util.List;
import polymetron.library.Board;
import polymetron.library.Device;
import polymetron.library.Library;
import polymetron.quantity.Frequency;

/**
 * Everything about a board.
 *
 * @param device null when the library does not have it
 */
public record BoardSheetView(
        String identity,
        String title,
        String summary,
        @Nullable DeviceView device,
        List<PinRow> clocksAndResets,
        List<PartSheet> parts) {

    /** A device and what there is of it. */
    public record DeviceView(
            String name,
            String family,
            String packageName,
            List<AmountRow> amounts,
            List<String> facts,
            List<BankRow> banks) {}

    /** How much of something a device has. */
    public record AmountRow(String name, long amount) {}

    /** A bank of pins with one voltage; so many of its pins are used by the board. */
    public record BankRow(String name, String voltage, int pins, int used) {}

    /** Something on one pin. */
    public record PinRow(String name, String title, String what, String pin, String standard) {}

    /** A part of the board. */
    public record PartSheet(
            String name,
            String kind,
            String title,
            String summary,
            List<SignalRow> signals,
            List<DriverRow> drivers) {}

    /** A signal of a part. */
    public record SignalRow(
            String name, String direction, boolean activeLow, List<String> pins, String standard) {}

    /** A block type that can drive a part, with the parameters that it gets. */
    public record DriverRow(String identity, String title, List<String> parameters) {}

    static BoardSheetView of(Board board, Library library) {
        Device device = library.deviceOf(board).orElse(null);
        List<PinRow> single = new ArrayList<>();
        board.clocks()
                .forEach(
                        clock ->
                                single.add(
                                        new PinRow(
                                                clock.name(),
                                                clock.title(),
                                                Frequency.format(clock.frequencyHz()),
                                                clock.pin(),
                                                clock.standard())));
        board.resets()
                .forEach(
                        reset ->
                                single.add(
                                        new PinRow(
                                                reset.name(),
                                                reset.title(),
                                                reset.activeLow() ? "active low" : "active high",
                                                reset.pin(),
                                                reset.standard())));
        List<String> used = new ArrayList<>(single.stream().map(PinRow::pin).toList());
        board.parts().forEach(part -> part.signals().forEach(signal -> used.addAll(signal.pins())));
        return new BoardSheetView(
                board.identity().toString(),
                board.title(),
                board.summary(),
                device == null ? null : device(device, used),
                single,
                board.parts().stream().map(part -> part(part, library)).toList());
    }

    private static DeviceView device(Device device, List<String> used) {
        return new DeviceView(
                device.name(),
                device.family(),
                device.packageName(),
                List.of(
                        new AmountRow("lookup tables", device.lookupTables()),
                        new AmountRow("flip-flops", device.flipFlops()),
                        new AmountRow("memory bits", device.memoryBits()),
                        new AmountRow("multipliers", device.multipliers())),
                facts(device),
                device.banks().stream()
                        .map(
                                bank ->
                                        new BankRow(
                                                bank.name(),
                                                bank.voltage(),
                                                bank.pins().size(),
                                                (int)
                                                        bank.pins().stream()
                                                                .filter(used::contains)
                                                                .count()))
                        .toList());
    }

    /** What else there is to know of a device, in words. */
    private static List<String> facts(Device device) {
        List<String> facts = new ArrayList<>(List.of(device.logic().words()));
        for (Device.MemoryBlock block : device.memoryBlocks()) {
            facts.add(
                    "%s memory blocks of %s bits, as %s%s"
                            .formatted(
                                    block.count(),
                                    block.bits(),
                                    String.join(
                                            ", ",
                                            block.shapes().stream()
                                                    .map(
                                                            shape ->
                                                                    shape.depth()
                                                                            + " × "
                                                                            + shape.width())
                                                    .toList()),
                                    block.halves() ? "; each splits in two" : ""));
        }
        Device.Plls plls = device.plls();
        if (plls != null) {
            facts.add(
                    "%s PLLs with %s outputs, inside %s to %s, in steps of 1/%s"
                            .formatted(
                                    plls.count(),
                                    plls.outputs(),
                                    Frequency.format(plls.vcoMinimumHz()),
                                    Frequency.format(plls.vcoMaximumHz()),
                                    plls.multiplierSteps()));
        }
        device.hard().forEach((name, count) -> facts.add("%s hard %s".formatted(count, name)));
        facts.add(
                "I/O standards "
                        + String.join(
                                ", ",
                                device.standards().stream().map(Device.Standard::name).toList()));
        return facts;
    }

    private static PartSheet part(Board.Part part, Library library) {
        return new PartSheet(
                part.name(),
                part.kind(),
                part.title(),
                part.summary(),
                part.signals().stream()
                        .map(
                                signal ->
                                        new SignalRow(
                                                signal.name(),
                                                signal.direction().words(),
                                                Boolean.TRUE.equals(signal.activeLow()),
                                                signal.pins(),
                                                signal.standard()))
                        .toList(),
                part.drivers().stream()
                        .map(
                                driver ->
                                        new DriverRow(
                                                driver.type().toString(),
                                                library.type(driver.type())
                                                        .map(type -> type.title())
                                                        .orElse(driver.type().toString()),
                                                driver.parameters().entrySet().stream()
                                                        .sorted(
                                                                java.util.Map.Entry
                                                                        .comparingByKey())
                                                        .map(
                                                                entry ->
                                                                        entry.getKey()
                                                                                + " "
                                                                                + entry.getValue())
                                                        .toList()))
                        .toList());
    }
}
