package polymetron.server.platform;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.decode.BusDecode;
import polymetron.decode.Term;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.lookup.AddressRulers;
import polymetron.server.store.StoredPlatform;

/** Writes the address spaces of a platform down as an {@link AddressesView}. */
final class AddressesViews {
    /** Every target is compared with every other; nobody reads a list of more. */
    private static final int MOST_DECODED = 1000;

    private final ElaboratedPlatform platform;

    private AddressesViews(ElaboratedPlatform platform) {
        this.platform = platform;
    }

    static AddressesView of(StoredPlatform stored, ElaboratedPlatform platform) {
        AddressesViews views = new AddressesViews(platform);
        return new AddressesView(stored.revision(), views.rulers(), views.free(), views.decode());
    }

    private AddressesView.RulersView rulers() {
        return new AddressesView.RulersView(
                platform.spaces().stream().map(space -> space.initiator().label()).toList(),
                AddressRulers.of(platform.spaces()).stream()
                        .map(
                                row ->
                                        new AddressesView.RulerRow(
                                                Address.format(row.range().base()),
                                                Address.format(row.range().last()),
                                                SizeTexts.gap(row.range()),
                                                row.cells().stream()
                                                        .map(
                                                                cell ->
                                                                        cell.stream()
                                                                                .map(
                                                                                        TargetRange
                                                                                                ::label)
                                                                                .toList())
                                                        .toList()))
                        .toList());
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
            for (AddressRange gap : bus.freeSpace().gaps()) {
                free.add(
                        new AddressesView.FreeView(
                                bus.name(),
                                Address.format(gap.base()),
                                Address.format(gap.last()),
                                SizeTexts.gap(gap)));
            }
        }
        return free;
    }
}
