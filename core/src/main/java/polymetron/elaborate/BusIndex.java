package polymetron.elaborate;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.address.AddressRange;
import polymetron.bus.Adapter;
import polymetron.bus.Adapters;
import polymetron.platform.Attachment;
import polymetron.platform.Bus;
import polymetron.platform.Platform;

/** Buses with what is attached to them, and what stands between where an interface and its bus differ. */
final class BusIndex {
    private static final class Attached {
        private final Bus bus;
        private final List<InitiatorPort> initiators = new ArrayList<>();
        private final List<TargetRange> placed = new ArrayList<>();
        private final List<TargetRange> unplaced = new ArrayList<>();
        private final Map<InterfaceRef, List<Adapter>> adapters = new HashMap<>();

        private Attached(Bus bus) {
            this.bus = bus;
        }

        /** What one initiator passes on to the bus; null for everything. */
        private static AddressRange shown(InitiatorPort initiator) {
            return initiator.isBehindBridge()
                    ? initiator.block().shape().bridge().window()
                    : initiator.form().place();
        }

        /** Where only one initiator leads to a bus, no initiator reaches more than it passes on. */
        private AddressRange window() {
            AddressRange all = AddressRange.ofWidth(bus.addressWidth());
            if (initiators.size() != 1) {
                return all;
            }
            AddressRange shown = shown(initiators.getFirst());
            if (shown == null || !all.contains(shown.base())) {
                return all;
            }
            return all.contains(shown.last()) ? shown : new AddressRange(shown.base(), all.last());
        }
    }

    private final Platform platform;
    private final Map<String, Domain> domains;
    private final Map<String, ElaboratedBlock> blocks;
    private final Dangling dangling;

    private BusIndex(
            Platform platform,
            Map<String, Domain> domains,
            Map<String, ElaboratedBlock> blocks,
            Dangling dangling) {
        this.platform = platform;
        this.domains = domains;
        this.blocks = blocks;
        this.dangling = dangling;
    }

    /** Buses by name, in the order of the document. */
    static Map<String, ElaboratedBus> of(
            Platform platform,
            Map<String, Domain> domains,
            Map<String, ElaboratedBlock> blocks,
            Dangling dangling) {
        return new BusIndex(platform, domains, blocks, dangling).buses();
    }

    private Map<String, ElaboratedBus> buses() {
        Map<String, Attached> attached = new LinkedHashMap<>();
        for (Bus bus : platform.buses()) {
            attached.put(bus.name(), new Attached(bus));
            if (bus.domain() != null && !domains.containsKey(bus.domain())) {
                dangling.missing(
                        bus.name(),
                        DanglingReference.Sort.BUS_DOMAIN,
                        null,
                        "there is no clock domain %s".formatted(bus.domain()));
            }
        }
        for (ElaboratedBlock block : blocks.values()) {
            for (Map.Entry<String, Attachment> entry : block.block().attachments().entrySet()) {
                Optional<SizedInterface> form = block.shape().busInterface(entry.getKey());
                Attached bus = attached.get(entry.getValue().bus());
                if (form.isEmpty() || !form.get().isForBus()) {
                    dangling.missing(
                            block.name(),
                            DanglingReference.Sort.ATTACHMENT,
                            entry.getKey(),
                            "there is no bus interface %s".formatted(entry.getKey()));
                } else if (bus == null) {
                    dangling.missing(
                            block.name(),
                            DanglingReference.Sort.ATTACHMENT,
                            entry.getKey(),
                            "there is no bus %s".formatted(entry.getValue().bus()));
                } else {
                    attach(bus, block, form.get(), entry.getValue());
                    adapt(bus, block, form.get());
                }
            }
        }
        Map<String, ElaboratedBus> buses = new LinkedHashMap<>();
        for (Bus bus : platform.buses()) {
            Attached all = attached.get(bus.name());
            all.placed.sort(TargetRange.BY_ADDRESS);
            buses.put(
                    bus.name(),
                    new ElaboratedBus(
                            bus,
                            all.initiators,
                            all.placed,
                            all.unplaced,
                            all.window(),
                            all.adapters));
        }
        return Ordered.copyOf(buses);
    }

    private void attach(Attached bus, ElaboratedBlock block, SizedInterface form, Attachment at) {
        if (!form.isTarget()) {
            bus.initiators.add(new InitiatorPort(block, form));
        } else if (at.base() == null || form.sizeBytes() == 0) {
            bus.unplaced.add(new TargetRange(block, form, null, at.staysPut(), List.of()));
        } else {
            AddressRange range = AddressRange.of(at.base().bits(), form.sizeBytes());
            bus.placed.add(new TargetRange(block, form, range, at.staysPut(), List.of()));
        }
    }

    private void adapt(Attached bus, ElaboratedBlock block, SizedInterface form) {
        List<Adapter> adapters =
                Adapters.between(
                        new Adapters.Side(
                                form.type().protocols(),
                                form.dataWidth(),
                                form.addressBits(),
                                block.domain(form.type().clock())),
                        new Adapters.Side(
                                List.of(bus.bus.protocol()),
                                bus.bus.dataWidth(),
                                form.addressBits(),
                                bus.bus.domain()),
                        form.isTarget());
        if (!adapters.isEmpty()) {
            bus.adapters.put(new InterfaceRef(block.name(), form.name()), adapters);
        }
    }
}
