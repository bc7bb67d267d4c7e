package polymetron.pin;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.Pass;
import polymetron.elaborate.SizedPort;
import polymetron.library.Board;
import polymetron.library.Device;
import polymetron.library.Direction;
import polymetron.platform.PinSetting;

/**
 * Every external line, those without a pin first. What is not set by hand is as the board part has it; a pin that
 * was chosen by hand has the single-ended standard of its bank's voltage. An output has the usual current of its standard
 * and slow edges, as those disturb least; nothing is pulled or terminated in the device.
 *
 * @param lines in that order, then by name
 */
public record PinTable(List<PinLine> lines) {
    public static final Pass<PinTable> PASS = Pass.named("pin table", PinTable::make);

    public static PinTable of(ElaboratedPlatform platform) {
        return platform.result(PASS);
    }

    private static PinTable make(ElaboratedPlatform platform) {
        List<PinLine> lines = new ArrayList<>();
        Set<String> sources = new HashSet<>();
        for (Domain domain : platform.domains()) {
            Board.Clock clock = domain.clock();
            if (clock != null && sources.add(clock.name())) {
                lines.add(source(platform, clock.name(), clock.pin(), clock.standard()));
            }
            Board.Reset reset = domain.reset();
            if (reset != null && sources.add(reset.name())) {
                lines.add(source(platform, reset.name(), reset.pin(), reset.standard()));
            }
        }
        for (OutwardLink link : platform.outward()) {
            for (SizedPort port : link.form().ports()) {
                for (int line = 0; line < port.width(); line++) {
                    lines.add(line(platform, link, port, line));
                }
            }
        }
        List<PinLine> ordered = new ArrayList<>(lines.size());
        lines.stream().filter(PinLine::isOpen).forEach(ordered::add);
        lines.stream().filter(line -> !line.isOpen()).forEach(ordered::add);
        return new PinTable(List.copyOf(ordered));
    }

    private static PinLine source(
            ElaboratedPlatform platform, String name, String pin, String standard) {
        return new PinLine(
                name,
                null,
                null,
                0,
                Direction.IN,
                pin,
                bank(platform, pin),
                new PinSetting(
                        standard, null, null, PinSetting.Pull.NONE, PinSetting.Termination.NONE),
                "board",
                true);
    }

    private static PinLine line(
            ElaboratedPlatform platform, OutwardLink link, SizedPort port, int line) {
        String name = link.block().name() + "." + port.name() + "[" + line + "]";
        String pin = null;
        String standard = null;
        String by = "not assigned";
        if (link.part() != null) {
            Board.Signal signal = link.signal(port).orElse(null);
            pin = signal == null || line >= signal.width() ? null : signal.pins().get(line);
            standard = signal == null ? null : signal.standard();
            by = "board part " + link.part().name();
        } else if (link.binding() != null) {
            Map<String, List<String>> pins = link.binding().pins();
            List<String> chosen = pins.getOrDefault(port.name(), List.of());
            pin = line < chosen.size() ? chosen.get(line) : null;
            standard = pin == null ? null : usual(platform.device(), bank(platform, pin));
            by = "hand";
        }
        return new PinLine(
                name,
                link.ref(),
                port.name(),
                line,
                port.direction(),
                pin,
                bank(platform, pin),
                pin == null ? PinSetting.USUAL : setting(platform.device(), link, port, standard),
                by,
                link.part() != null);
    }

    private static PinSetting setting(
            Device device, OutwardLink link, SizedPort port, String usual) {
        PinSetting own =
                link.binding() == null
                        ? PinSetting.USUAL
                        : link.binding().settings().getOrDefault(port.name(), PinSetting.USUAL);
        String standard = own.standard() == null ? usual : own.standard();
        boolean drives = port.direction() != Direction.IN;
        Device.Standard form =
                device == null || standard == null ? null : device.standard(standard).orElse(null);
        Integer drive = form == null || form.drives().isEmpty() ? null : form.drives().getFirst();
        return new PinSetting(
                standard,
                own.drive() != null || !drives ? own.drive() : drive,
                own.slew() != null || !drives ? own.slew() : PinSetting.Slew.SLOW,
                own.pull() == null ? PinSetting.Pull.NONE : own.pull(),
                own.termination() == null ? PinSetting.Termination.NONE : own.termination());
    }

    private static Device.Bank bank(ElaboratedPlatform platform, String pin) {
        return platform.device() == null || pin == null
                ? null
                : platform.device().bankOf(pin).orElse(null);
    }

    /** The first single-ended standard that a bank's voltage allows; null when there is none. */
    private static String usual(Device device, Device.Bank bank) {
        return bank == null
                ? null
                : device.standards().stream()
                        .filter(each -> !each.differential())
                        .filter(each -> each.voltage().equals(bank.voltage()))
                        .findFirst()
                        .map(Device.Standard::name)
                        .orElse(null);
    }

    public List<PinLine> open() {
        return lines.stream().filter(PinLine::isOpen).toList();
    }
}
