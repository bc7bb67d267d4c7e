package polymetron.edit;

import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.platform.Bus;
import polymetron.platform.Platform;
import polymetron.platform.Reserved;

/** Addresses of a bus that are kept free of automatic placement. */
final class Reservations {
    private static final int LONGEST_NAME = 80;

    private Reservations() {}

    static Platform reserve(Platform platform, Edit.Reserve edit) {
        Bus bus = bus(platform, edit.bus());
        if (edit.name() == null || edit.name().isBlank() || edit.name().length() > LONGEST_NAME) {
            throw new RejectedEdit(
                    "name", "say what the addresses are kept for, in at most 80 characters");
        }
        Address base = edit.base();
        Address last = edit.last();
        if (base == null || last == null) {
            throw new RejectedEdit(
                    base == null ? "base" : "last", "give the first and the last address");
        }
        if (base.compareTo(last) > 0) {
            throw new RejectedEdit(
                    "last", "the last address %s lies before the first, %s".formatted(last, base));
        }
        AddressRange all = AddressRange.ofWidth(bus.addressWidth());
        if (!all.contains(last.bits())) {
            throw new RejectedEdit(
                    "last",
                    "%s ends at %s; %s lies beyond it"
                            .formatted(bus.name(), Address.format(all.last()), last));
        }
        return with(platform, bus.reserving(new Reserved(edit.name().strip(), base, last)));
    }

    static Platform free(Platform platform, Edit.Unreserve edit) {
        Bus bus = bus(platform, edit.bus());
        if (bus.reserved().stream().noneMatch(each -> each.name().equals(edit.name()))) {
            throw new RejectedEdit(
                    "name", "%s reserves nothing for %s".formatted(bus.name(), edit.name()));
        }
        return with(platform, bus.without(edit.name()));
    }

    private static Bus bus(Platform platform, String name) {
        return platform.bus(name)
                .orElseThrow(() -> new RejectedEdit("bus", "there is no bus %s".formatted(name)));
    }

    private static Platform with(Platform platform, Bus changed) {
        return platform.withBuses(
                platform.buses().stream()
                        .map(bus -> bus.name().equals(changed.name()) ? changed : bus)
                        .toList());
    }
}
