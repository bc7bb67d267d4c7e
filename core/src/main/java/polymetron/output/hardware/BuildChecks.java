package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import polymetron.bus.Adapter;
import polymetron.bus.Protocol;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.StreamLink;
import polymetron.elaborate.TargetRange;
import polymetron.library.Direction;

/** What of a platform cannot be built as hardware yet. Nothing is written in its place. */
final class BuildChecks {
    private final ElaboratedPlatform platform;
    private final List<NotBuilt> found = new ArrayList<>();

    private BuildChecks(ElaboratedPlatform platform) {
        this.platform = platform;
    }

    static List<NotBuilt> of(ElaboratedPlatform platform) {
        BuildChecks checks = new BuildChecks(platform);
        if (platform.blocks().isEmpty() || platform.domains().isEmpty()) {
            checks.add("platform", "it has no block, or no clock domain");
        }
        platform.dangling().forEach(each -> checks.add(each.subject(), each.what()));
        platform.domains().forEach(checks::domain);
        platform.blocks().forEach(checks::block);
        platform.buses().forEach(checks::bus);
        platform.interrupts().forEach(checks::interrupt);
        checks.netNames();
        for (StreamLink stream : platform.streams()) {
            checks.add(stream.ref().toString(), "there is no hardware for streams yet");
        }
        return List.copyOf(checks.found);
    }

    private void add(String subject, String why) {
        found.add(new NotBuilt(subject, why));
    }

    private void domain(Domain domain) {
        if (domain.clock() == null) {
            add(domain.name(), "its clock is made by a block; there is no hardware for that yet");
        }
        if (domain.reset() == null) {
            add(
                    domain.name(),
                    domain.hasReset()
                            ? "its reset is made by a block; there is no hardware for that yet"
                            : "nothing resets it");
        }
    }

    private void block(ElaboratedBlock block) {
        if (block.type().hardware() == null) {
            add(
                    block.name(),
                    "there is no hardware for %s %s yet"
                            .formatted(block.type().title(), block.type().identity().version()));
        }
        block.type().clocks().forEach(clock -> inDomain(block, clock.name()));
        block.type().resets().forEach(reset -> inDomain(block, reset.name()));
        boolean bothWays =
                block.shape().outward().stream()
                        .flatMap(form -> form.ports().stream())
                        .anyMatch(port -> port.direction() == Direction.BOTH);
        if (bothWays && block.type().hardware() != null) {
            add(block.name(), "there is no hardware for lines that go both ways yet");
        }
        for (SizedInterface form : block.shape().busInterfaces()) {
            if (form.isForBus() && !block.block().attachments().containsKey(form.name())) {
                add(new InterfaceRef(block.name(), form.name()).toString(), "it is on no bus");
            }
        }
    }

    private void inDomain(ElaboratedBlock block, String port) {
        String domain = block.block().domains().get(port);
        if (domain == null || !platform.domainIndex().containsKey(domain)) {
            add(block.name(), "%s is in no clock domain".formatted(port));
        }
    }

    private void bus(ElaboratedBus bus) {
        if (bus.bus().protocol() != Protocol.AXI4_LITE) {
            add(
                    bus.name(),
                    "there is no hardware for %s yet".formatted(bus.bus().protocol().title()));
        }
        if (bus.bus().domain() == null) {
            add(bus.name(), "it is in no clock domain");
        }
        if (bus.initiators().isEmpty() || bus.placed().isEmpty()) {
            add(bus.name(), "it needs an initiator and a target");
        }
        if (bus.initiators().stream().anyMatch(InitiatorPort::isBehindBridge)) {
            add(bus.name(), "there is no hardware for bridges yet");
        }
        for (int at = 0; at < bus.placed().size(); at++) {
            TargetRange target = bus.placed().get(at);
            if (at > 0 && bus.placed().get(at - 1).range().overlaps(target.range())) {
                add(target.ref().toString(), "it overlaps with " + bus.placed().get(at - 1).ref());
            }
            if (!bus.addresses().contains(target.range())) {
                add(target.ref().toString(), "it lies beyond the addresses of " + bus.name());
            }
        }
        for (TargetRange target : bus.unplaced()) {
            add(target.ref().toString(), "it has no place");
        }
        bus.adapters()
                .forEach(
                        (ref, adapters) -> {
                            for (Adapter adapter : adapters) {
                                add(
                                        ref.toString(),
                                        "there is no hardware for the %s adapter yet"
                                                .formatted(adapter.sort()));
                            }
                        });
    }

    /** Nets are called by block and interface, or by block and port: no two may come to the same name. */
    private void netNames() {
        Map<String, String> owners = new HashMap<>();
        for (ElaboratedBlock block : platform.blocks()) {
            List<String> parts = new ArrayList<>();
            block.shape().busInterfaces().forEach(form -> parts.add(form.name()));
            block.shape().interrupts().forEach(port -> parts.add(port.name()));
            block.shape()
                    .outward()
                    .forEach(form -> form.ports().forEach(port -> parts.add(port.name())));
            for (String part : parts) {
                String other = owners.putIfAbsent(block.name() + "_" + part, block.name());
                if (other != null && !other.equals(block.name())) {
                    add(
                            block.name(),
                            "its %s and something of %s are both called %s_%s; rename one of them"
                                    .formatted(part, other, block.name(), part));
                }
            }
        }
    }

    private void interrupt(InterruptLink link) {
        if (!link.isConnected()) {
            return;
        }
        String from = link.block().domain(null);
        String to = link.sinkBlock().domain(null);
        if (from != null && to != null && !from.equals(to)) {
            add(
                    link.ref().toString(),
                    "it goes from domain %s to %s; there is no hardware for that yet"
                            .formatted(from, to));
        }
    }
}
