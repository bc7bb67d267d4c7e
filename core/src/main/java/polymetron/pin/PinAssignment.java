package polymetron.pin;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import polymetron.board.PinUse;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.SizedPort;
import polymetron.library.Board;
import polymetron.library.Device;

/**
 * Pins for lines that have none. The lines of an interface stay together in the bank that has the fewest
 * free pins and still room for all of them, or where the interface has pins already, in the order of the package; the largest interfaces choose first. Pins that
 * the board has something on, and those that are needed while the device is configured, are left alone; pins that can
 * take a clock come last. What has pins keeps them.
 *
 * @param given interfaces with the pins that they get
 * @param homeless interfaces that no bank has room for
 */
public record PinAssignment(List<Given> given, List<String> homeless) {

    /** Pins for the ports of one interface, lowest line first. */
    public record Given(OutwardLink link, Device.Bank bank, TreeMap<String, List<String>> pins) {}

    public static PinAssignment of(ElaboratedPlatform platform) {
        List<Given> given = new ArrayList<>();
        List<String> homeless = new ArrayList<>();
        if (platform.device() == null) {
            return new PinAssignment(given, homeless);
        }
        Set<String> taken = taken(platform);
        List<OutwardLink> open =
                platform.outward().stream()
                        .filter(link -> link.part() == null && missing(link) > 0)
                        .sorted(
                                Comparator.comparingInt(PinAssignment::missing)
                                        .reversed()
                                        .thenComparing(OutwardLink::ref))
                        .toList();
        for (OutwardLink link : open) {
            Set<String> own = own(link);
            Optional<Device.Bank> bank =
                    platform.device().banks().stream()
                            .filter(each -> free(each, taken).size() >= missing(link))
                            .min(
                                    Comparator.comparing(
                                                    (Device.Bank each) ->
                                                            each.pins().stream()
                                                                    .noneMatch(own::contains))
                                            .thenComparingInt(each -> free(each, taken).size())
                                            .thenComparing(Device.Bank::name));
            if (bank.isEmpty()) {
                homeless.add(link.ref().toString());
                continue;
            }
            List<String> pins = free(bank.get(), taken);
            TreeMap<String, List<String>> chosen = new TreeMap<>();
            int next = 0;
            for (SizedPort port : link.form().ports()) {
                List<String> has = pins(link, port);
                List<String> all = new ArrayList<>(has);
                int more = Math.max(0, port.width() - has.size());
                all.addAll(pins.subList(next, next + more));
                chosen.put(port.name(), List.copyOf(all));
                next += more;
            }
            taken.addAll(pins.subList(0, next));
            given.add(new Given(link, bank.get(), chosen));
        }
        return new PinAssignment(List.copyOf(given), List.copyOf(homeless));
    }

    /** All of it as one edit. */
    public Edit asEdit() {
        List<Edit> edits = new ArrayList<>();
        for (Given each : given) {
            edits.add(
                    new Edit.BindPins(
                            each.link().block().name(),
                            each.link().form().name(),
                            Map.copyOf(each.pins())));
        }
        return new Edit.Several("assign pins", edits);
    }

    private static List<String> pins(OutwardLink link, SizedPort port) {
        return link.binding() == null
                ? List.of()
                : link.binding().pins().getOrDefault(port.name(), List.of());
    }

    /** Lines that have no pin. */
    private static int missing(OutwardLink link) {
        return link.form().ports().stream()
                .mapToInt(port -> Math.max(0, port.width() - pins(link, port).size()))
                .sum();
    }

    private static Set<String> own(OutwardLink link) {
        Set<String> own = new HashSet<>();
        link.form().ports().forEach(port -> own.addAll(pins(link, port)));
        return own;
    }

    private static List<String> free(Device.Bank bank, Set<String> taken) {
        return bank.pins().stream()
                .filter(pin -> !taken.contains(pin))
                .filter(pin -> !bank.configurationPins().contains(pin))
                .sorted(Comparator.comparing(bank.clockPins()::contains))
                .toList();
    }

    private static Set<String> taken(ElaboratedPlatform platform) {
        Set<String> taken = new HashSet<>();
        PinUse.of(platform).forEach(use -> taken.add(use.pin()));
        Board board = platform.board();
        if (board != null) {
            board.clocks().forEach(clock -> taken.add(clock.pin()));
            board.resets().forEach(reset -> taken.add(reset.pin()));
            board.parts()
                    .forEach(part -> part.signals().forEach(signal -> taken.addAll(signal.pins())));
        }
        return taken;
    }
}
