package polymetron.elaborate;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import polymetron.address.AddressRange;
import polymetron.platform.Attachment;

/**
 * Works out what is seen from a bus through bridges: every target behind them at the address at which it appears,
 * in address order. A bridge that leads back to a bus on the way is not followed. Time is linear in what is seen, but
 * for the sorting.
 */
final class Flattening {
    private final Map<String, ElaboratedBus> buses;
    private final List<TargetRange> seen = new ArrayList<>();
    private final List<SeenWindow> windows = new ArrayList<>();

    private Flattening(Map<String, ElaboratedBus> buses) {
        this.buses = buses;
    }

    /**
     * What is seen from a bus.
     *
     * @param targets targets in address order
     * @param windows parts of bridges' windows that are seen, in address order
     */
    record Sight(List<TargetRange> targets, List<SeenWindow> windows) {}

    static Sight of(ElaboratedBus bus, Map<String, ElaboratedBus> buses) {
        if (bus.placed().stream().noneMatch(TargetRange::isWindow)) {
            return new Sight(bus.placed(), List.of());
        }
        Flattening flattening = new Flattening(buses);
        flattening.look(bus, bus.addresses(), 0, List.of(), List.of(bus.name()));
        flattening.seen.sort(TargetRange.BY_ADDRESS);
        flattening.windows.sort(Comparator.comparing(SeenWindow::range));
        return new Sight(List.copyOf(flattening.seen), List.copyOf(flattening.windows));
    }

    /**
     * @param visible addresses of the bus that are seen
     * @param shift what is to be added to an address of the bus to get the address at which it is seen
     * @param via bridges on the way
     * @param passed buses on the way
     */
    private void look(
            ElaboratedBus bus,
            AddressRange visible,
            long shift,
            List<String> via,
            List<String> passed) {
        for (TargetRange target : bus.placed()) {
            AddressRange range = target.range();
            if (!range.overlaps(visible)) {
                continue;
            }
            boolean beginsInside = visible.contains(range.base());
            AddressRange part =
                    new AddressRange(
                            beginsInside ? range.base() : visible.base(),
                            visible.contains(range.last()) ? range.last() : visible.last());
            if (target.isWindow()) {
                enter(target, part, shift, via, passed);
            } else if (beginsInside) {
                // Where its base is not seen, a target cannot be used: every offset counts from
                // there.
                seen.add(
                        target.seenAt(
                                new AddressRange(part.base() + shift, part.last() + shift), via));
            }
        }
    }

    private void enter(
            TargetRange window,
            AddressRange part,
            long shift,
            List<String> via,
            List<String> passed) {
        Bridge bridge = window.block().shape().bridge();
        Attachment below = window.block().block().attachments().get(bridge.downstream());
        ElaboratedBus bus = below == null ? null : buses.get(below.bus());
        if (bus == null || bridge.window() == null || passed.contains(bus.name())) {
            return;
        }
        long first = bridge.window().base() + (part.base() - window.range().base());
        long last = first + (part.last() - part.base());
        if (Long.compareUnsigned(last, first) < 0) {
            last = -1L;
        }
        List<String> longerVia = new ArrayList<>(via);
        longerVia.add(window.block().name());
        windows.add(
                new SeenWindow(
                        new AddressRange(part.base() + shift, part.last() + shift),
                        bus.name(),
                        new AddressRange(first, last),
                        List.copyOf(longerVia)));
        List<String> longerPassed = new ArrayList<>(passed);
        longerPassed.add(bus.name());
        look(
                bus,
                new AddressRange(first, last),
                part.base() + shift - first,
                longerVia,
                longerPassed);
    }
}
