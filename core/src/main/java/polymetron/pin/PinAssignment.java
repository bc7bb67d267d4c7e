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
import polymetron.platform.PinSetting;

/**
 * Pins for lines that have none. The lines of an interface stay together in the bank that has the fewest
 * free pins and still room for all of them, or where the interface has pins already, in the order of the package; the largest interfaces choose first. Pins that
 * the board has something on, and those that are needed while the device is configured, are left alone; pins that can
 * take a clock come last. What has pins keeps them. A port that is set to an I/O standard goes to a bank of its voltage, and
 * the lines of a differential one to pairs of pins, the positive line first.
 *
 * @param given interfaces with the pins that they get
 * @param unplaceable interfaces that no bank has room for
 */
public record PinAssignment(List<Given> given, List<String> unplaceable) {

    /** Pins for the ports of one interface, lowest line first. */
    public record Given(OutwardLink link, Device.Bank bank, TreeMap<String, List<String>> pins) {}

    public static PinAssignment of(ElaboratedPlatform platform) {
        List<Given> given = new ArrayList<>();
        List<String> unplaceable = new ArrayList<>();
        if (platform.device() == null) {
            return new PinAssignment(given, unplaceable);
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
            Optional<Choice> choice =
                    platform.device().banks().stream()
                            .filter(each -> suits(platform.device(), link, each))
                            .map(each -> choose(platform.device(), link, each, taken))
                            .flatMap(Optional::stream)
                            .min(
                                    Comparator.comparing(
                                                    (Choice each) ->
                                                            each.bank().pins().stream()
                                                                    .noneMatch(own::contains))
                                            .thenComparingInt(
                                                    each -> free(each.bank(), taken).size())
                                            .thenComparing(each -> each.bank().name()));
            if (choice.isEmpty()) {
                unplaceable.add(link.ref().toString());
                continue;
            }
            choice.get().pins().values().forEach(taken::addAll);
            given.add(new Given(link, choice.get().bank(), choice.get().pins()));
        }
        return new PinAssignment(List.copyOf(given), List.copyOf(unplaceable));
    }

    /** Pins of one bank for all ports of an interface. */
    private record Choice(Device.Bank bank, TreeMap<String, List<String>> pins) {}

    private static Device.Standard standard(Device device, OutwardLink link, SizedPort port) {
        PinSetting setting =
                link.binding() == null ? null : link.binding().settings().get(port.name());
        return setting == null || setting.standard() == null
                ? null
                : device.standard(setting.standard()).orElse(null);
    }

    /** Whether the bank has the voltage of every standard that the ports are set to. */
    private static boolean suits(Device device, OutwardLink link, Device.Bank bank) {
        return link.form().ports().stream()
                .map(port -> standard(device, link, port))
                .allMatch(each -> each == null || each.voltage().equals(bank.voltage()));
    }

    /** Pairs are chosen first, because single lines can go anywhere. */
    private static Optional<Choice> choose(
            Device device, OutwardLink link, Device.Bank bank, Set<String> taken) {
        List<String> free = new ArrayList<>(free(bank, taken));
        TreeMap<String, List<String>> chosen = new TreeMap<>();
        List<SizedPort> ordered = new ArrayList<>(link.form().ports());
        ordered.sort(Comparator.comparing((SizedPort port) -> !isDifferential(device, link, port)));
        for (SizedPort port : ordered) {
            if (isDifferential(device, link, port) && port.width() % 2 != 0) {
                return Optional.empty();
            }
            List<String> all = new ArrayList<>(pins(link, port));
            while (all.size() < port.width()) {
                boolean pair = isDifferential(device, link, port) && all.size() % 2 == 0;
                String positive =
                        !pair
                                ? free.stream().findFirst().orElse(null)
                                : free.stream()
                                        .filter(pin -> partner(bank, pin, free) != null)
                                        .findFirst()
                                        .orElse(null);
                if (positive == null) {
                    return Optional.empty();
                }
                String negative = pair ? partner(bank, positive, free) : null;
                all.add(positive);
                free.remove(positive);
                if (negative != null) {
                    all.add(negative);
                    free.remove(negative);
                }
            }
            chosen.put(port.name(), List.copyOf(all));
        }
        return Optional.of(new Choice(bank, chosen));
    }

    private static boolean isDifferential(Device device, OutwardLink link, SizedPort port) {
        Device.Standard standard = standard(device, link, port);
        return standard != null && standard.differential();
    }

    private static String partner(Device.Bank bank, String pin, List<String> free) {
        return free.stream().filter(other -> bank.isPair(pin, other)).findFirst().orElse(null);
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
