package polymetron.edit;

import static polymetron.edit.Known.require;

import java.util.ArrayList;
import java.util.List;
import polymetron.bus.Protocol;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.Names;
import polymetron.platform.Platform;

/** Buses: added, changed, removed. */
final class BusEdits {
    private BusEdits() {}

    static Platform add(Known known, Edit.AddBus edit) {
        check(known, edit.bus());
        require(
                known.platform().bus(edit.bus().name()).isEmpty(),
                "name",
                "there is already a bus named %s".formatted(edit.bus().name()));
        List<Bus> buses = new ArrayList<>(known.platform().buses());
        buses.add(edit.bus());
        return known.platform().withBuses(buses);
    }

    static Platform change(Known known, Edit.ChangeBus edit) {
        check(known, edit.bus());
        Bus old = known.bus(edit.bus().name());
        return known.platform()
                .withBuses(
                        known.platform().buses().stream()
                                .map(
                                        bus ->
                                                bus == old
                                                        ? edit.bus().withReserved(old.reserved())
                                                        : bus)
                                .toList());
    }

    private static void check(Known known, Bus bus) {
        require(bus != null, "bus", "the bus is missing");
        require(Names.isName(bus.name()), "name", Names.refusal(bus.name()));
        require(
                bus.protocol() != null,
                "protocol",
                "the protocol is missing; there is " + Protocol.words());
        Protocol protocol = bus.protocol();
        require(
                protocol.dataWidths().contains(bus.dataWidth()),
                "dataWidth",
                "an %s bus has %s data bits, not %s"
                        .formatted(protocol.title(), protocol.dataWidths(), bus.dataWidth()));
        require(
                bus.addressWidth() >= 12 && bus.addressWidth() <= 64,
                "addressWidth",
                "a bus has 12 to 64 address bits, not %s".formatted(bus.addressWidth()));
        require(
                bus.domain() == null || known.platform().domain(bus.domain()).isPresent(),
                "domain",
                "there is no clock domain %s".formatted(bus.domain()));
    }

    static Platform remove(Known known, Edit.RemoveBus edit) {
        Bus bus = known.bus(edit.bus());
        for (Block block : known.platform().blocks()) {
            require(
                    block.attachments().values().stream()
                            .noneMatch(at -> at.bus().equals(edit.bus())),
                    "bus",
                    "%s is still on bus %s; take it off first".formatted(block.name(), edit.bus()));
        }
        return known.platform()
                .withBuses(
                        known.platform().buses().stream().filter(other -> other != bus).toList());
    }
}
