package polymetron.server.pin;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Board;
import polymetron.library.Device;
import polymetron.pin.PinLine;
import polymetron.pin.PinTable;
import polymetron.platform.Outward;
import polymetron.platform.PinSetting;

/** Makes the view of pins. */
final class PinsViews {
    private final ElaboratedPlatform platform;
    private final PinTable table;
    private final Map<String, PinLine> byPin = new HashMap<>();
    private final Map<String, String> onBoard = new HashMap<>();

    private PinsViews(ElaboratedPlatform platform) {
        this.platform = platform;
        this.table = PinTable.of(platform);
        table.lines().stream()
                .filter(line -> !line.isOpen())
                .forEach(line -> byPin.putIfAbsent(line.pin(), line));
        Board board = platform.board();
        if (board != null) {
            board.clocks().forEach(clock -> onBoard.put(clock.pin(), clock.title()));
            board.resets().forEach(reset -> onBoard.put(reset.pin(), reset.title()));
            for (Board.Part part : board.parts()) {
                part.signals()
                        .forEach(
                                signal ->
                                        signal.pins()
                                                .forEach(pin -> onBoard.put(pin, part.title())));
            }
        }
    }

    static PinsView of(long revision, ElaboratedPlatform platform) {
        PinsViews views = new PinsViews(platform);
        Device device = platform.device();
        return new PinsView(
                revision,
                device == null ? "no device" : device.name(),
                device == null ? List.of() : device.banks().stream().map(views::bank).toList(),
                device == null
                        ? List.of()
                        : device.standards().stream()
                                .map(
                                        each ->
                                                new PinsView.StandardView(
                                                        each.name(),
                                                        each.voltage(),
                                                        each.differential(),
                                                        each.drives()))
                                .toList(),
                views.table.lines().stream().map(views::line).toList(),
                views.table.open().size());
    }

    private PinsView.PinBankView bank(Device.Bank bank) {
        return new PinsView.PinBankView(
                bank.name(),
                bank.voltage(),
                bank.pins().stream().map(pin -> pin(bank, pin)).toList());
    }

    private PinsView.PackagePinView pin(Device.Bank bank, String pin) {
        PinLine line = byPin.get(pin);
        String note = null;
        if (bank.configurationPins().contains(pin)) {
            note = "needed while the device is configured";
        } else if (line == null && onBoard.containsKey(pin)) {
            note = "the board has its %s there".formatted(onBoard.get(pin));
        } else if (bank.clockPins().contains(pin)) {
            note = "can take a clock";
        }
        return new PinsView.PackagePinView(
                pin,
                line == null ? null : line.port(),
                line == null || line.ref() == null ? null : line.ref().block(),
                note,
                bank.partner(pin).orElse(null));
    }

    private PinsView.PinLineView line(PinLine line) {
        return new PinsView.PinLineView(
                line.port(),
                line.ref() == null ? null : line.ref().block(),
                line.ref() == null ? null : line.ref().name(),
                line.signal(),
                line.line(),
                line.direction().toString(),
                line.pin(),
                line.bank() == null ? null : line.bank().name(),
                line.bank() == null ? null : line.bank().voltage(),
                line.standard(),
                line.setting().drive(),
                text(line.setting().slew()),
                text(line.setting().pull()),
                text(line.setting().termination()),
                set(line),
                line.by(),
                !line.byBoard());
    }

    private static String text(Object word) {
        return word == null ? null : word.toString();
    }

    private PinSetting set(PinLine line) {
        if (line.ref() == null) {
            return null;
        }
        Outward binding =
                platform.blockIndex()
                        .get(line.ref().block())
                        .block()
                        .outward()
                        .get(line.ref().name());
        return binding == null ? null : binding.settings().get(line.signal());
    }
}
