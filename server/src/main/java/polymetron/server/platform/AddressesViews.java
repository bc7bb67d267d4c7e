package polymetron.server.platform;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.cost.BusLoad;
import polymetron.decode.BusDecode;
import polymetron.decode.Term;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.lookup.AddressRulers;
import polymetron.lookup.SoftwareAddresses;
import polymetron.platform.Reserved;
import polymetron.quantity.Quantity;
import polymetron.server.store.StoredPlatform;

/** Writes the address spaces of a platform down as an {@link AddressesView}. */
final class AddressesViews {
    /** Every target is compared with every other; a longer list is of no use. */
    private static final int MOST_DECODED = 1000;

    private final ElaboratedPlatform platform;

    private final SoftwareAddresses software;

    private AddressesViews(ElaboratedPlatform platform) {
        this.platform = platform;
        this.software = new SoftwareAddresses(platform);
    }

    static AddressesView of(StoredPlatform stored, ElaboratedPlatform platform) {
        AddressesViews views = new AddressesViews(platform);
        return new AddressesView(
                stored.revision(),
                views.rulers(),
                views.free(),
                views.reserved(),
                views.loads(),
                views.decode());
    }

    private AddressesView.RulersView rulers() {
        Map<InterfaceRef, String> buses = new HashMap<>();
        for (ElaboratedBus bus : platform.buses()) {
            bus.placed().forEach(target -> buses.put(target.ref(), bus.name()));
        }
        return new AddressesView.RulersView(
                platform.spaces().stream().map(space -> space.initiator().label()).toList(),
                platform.spaces().stream()
                        .map(space -> space.initiator().ref().toString())
                        .toList(),
                platform.spaces().stream()
                        .map(space -> space.bus() == null ? "" : space.bus().name())
                        .toList(),
                AddressRulers.of(platform.spaces()).stream()
                        .map(
                                row ->
                                        new AddressesView.RulerRow(
                                                Address.format(row.range().base()),
                                                Address.format(row.range().last()),
                                                SizeTexts.gap(row.range()),
                                                row.cells().stream()
                                                        .map(cell -> cell(cell, buses))
                                                        .toList()))
                        .toList());
    }

    private static AddressesView.RulerCell cell(
            AddressRulers.Cell cell, Map<InterfaceRef, String> buses) {
        return new AddressesView.RulerCell(
                cell.targets().stream()
                        .map(
                                target ->
                                        new AddressesView.RulerTarget(
                                                target.label(),
                                                target.block().name(),
                                                target.form().name(),
                                                buses.getOrDefault(target.ref(), ""),
                                                target.via()))
                        .toList(),
                cell.gap() == null ? null : cell.gap().sort().toString(),
                cell.gap() == null || cell.gap().what().isEmpty() ? null : cell.gap().what());
    }

    private List<AddressesView.ReservedView> reserved() {
        List<AddressesView.ReservedView> reserved = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            for (Reserved each : bus.bus().reserved()) {
                reserved.add(
                        new AddressesView.ReservedView(
                                bus.name(),
                                each.name(),
                                each.base().toString(),
                                each.last().toString(),
                                seen(bus, each.range()),
                                SizeTexts.gap(each.range())));
            }
        }
        return reserved;
    }

    private List<AddressesView.LoadView> loads() {
        return BusLoad.of(platform).stream()
                .map(
                        load ->
                                new AddressesView.LoadView(
                                        load.bus().name(),
                                        load.clockHz() == 0
                                                ? "no clock"
                                                : Quantity.format(load.clockHz(), "Hz"),
                                        Quantity.rough(load.singlesPerSecond(), "B/s"),
                                        Quantity.rough(load.burstsPerSecond(), "B/s"),
                                        percent(load.busy()),
                                        load.shares().stream()
                                                .map(
                                                        share ->
                                                                new AddressesView.TrafficView(
                                                                        share.initiator()
                                                                                .toString(),
                                                                        share.label(),
                                                                        Quantity.rough(
                                                                                share.traffic(),
                                                                                "B/s"),
                                                                        percent(share.part())))
                                                .toList()))
                .toList();
    }

    private static double percent(double part) {
        return Math.round(part * 1000) / 10.0;
    }

    private List<AddressesView.DecodeView> decode() {
        List<AddressesView.DecodeView> rows = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            if (bus.placed().size() > MOST_DECODED) {
                continue;
            }
            for (BusDecode.Select select : BusDecode.of(bus).selects()) {
                rows.add(
                        new AddressesView.DecodeView(
                                bus.name(),
                                select.target().label(),
                                select.target().block().name(),
                                terms(select.full()),
                                select.fullLookupTables(),
                                terms(select.partial()),
                                select.partialLookupTables(),
                                select.aliases() == 1
                                        ? "once"
                                        : "%s times".formatted(select.aliases())));
            }
        }
        return rows;
    }

    private static String terms(List<Term> terms) {
        return terms.stream()
                .map(
                        term ->
                                term.mask() == 0
                                        ? "always"
                                        : "%s = %s"
                                                .formatted(
                                                        Address.format(term.mask()),
                                                        Address.format(term.value())))
                .collect(Collectors.joining("; "));
    }

    private List<AddressesView.FreeView> free() {
        List<AddressesView.FreeView> free = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            bus.freeSpace().gaps().stream()
                    .flatMap(gap -> software.parts(bus.name(), gap).stream())
                    .map(
                            gap ->
                                    new AddressesView.FreeView(
                                            bus.name(),
                                            Address.format(gap.base()),
                                            Address.format(gap.last()),
                                            seen(bus, gap),
                                            SizeTexts.gap(gap)))
                    .forEach(free::add);
        }
        return free;
    }

    private AddressesView.SeenRange seen(ElaboratedBus bus, AddressRange range) {
        return software.of(bus.name(), range)
                .map(
                        seen ->
                                new AddressesView.SeenRange(
                                        Address.format(seen.base()), Address.format(seen.last())))
                .orElse(null);
    }
}
