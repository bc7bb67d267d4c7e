package polymetron.server.platform;

import java.util.ArrayList;
import java.util.List;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.lookup.AddressRulers;
import polymetron.server.store.StoredPlatform;

/** Writes the address spaces of a platform down as an {@link AddressesView}. */
final class AddressesViews {
    private final ElaboratedPlatform platform;

    private AddressesViews(ElaboratedPlatform platform) {
        this.platform = platform;
    }

    static AddressesView of(StoredPlatform stored, ElaboratedPlatform platform) {
        AddressesViews views = new AddressesViews(platform);
        return new AddressesView(stored.revision(), views.rulers(), views.free());
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
