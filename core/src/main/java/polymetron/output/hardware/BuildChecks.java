package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.StreamLink;
import polymetron.elaborate.TargetRange;
import polymetron.platform.Attachment;

/** What of a platform cannot be built as hardware yet. Nothing is written in its place. */
final class BuildChecks {
    /** Parts of a wide word that the width adapters of the library can tell apart. */
    private static final int MOST_PARTS = 8;

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
        checks.netNames();
        checks.files();
        checks.streams();
        return List.copyOf(checks.found);
    }

    private void add(String subject, String why) {
        found.add(new NotBuilt(subject, why));
    }

    private void domain(Domain domain) {
        if (!domain.hasReset() && Clocks.plls(platform, domain).isEmpty()) {
            add(domain.name(), "nothing resets it");
        }
        String reset = domain.domain().reset();
        ElaboratedBlock by =
                reset == null || reset.indexOf('.') < 0
                        ? null
                        : platform.blockIndex().get(reset.substring(0, reset.indexOf('.')));
        boolean isItsOwn =
                by != null
                        && by.type().resets().stream()
                                .anyMatch(
                                        port ->
                                                domain.name()
                                                        .equals(
                                                                by.block()
                                                                        .domains()
                                                                        .get(port.name())));
        if (isItsOwn) {
            add(
                    domain.name(),
                    "%s, which resets it, is in it and would reset itself; put it into another domain of the same clock"
                            .formatted(by.name()));
        }
        if (domain.clock() == null && domain.frequencyHz() == 0) {
            add(domain.name(), "its clock has no frequency");
        }
    }

    private void block(ElaboratedBlock block) {
        if (block.type().hardware() == null && !OutsideLogic.is(block)) {
            add(
                    block.name(),
                    "there is no hardware for %s %s yet"
                            .formatted(block.type().title(), block.type().identity().version()));
        }
        block.type().clocks().forEach(clock -> inDomain(block, clock.name()));
        block.type().resets().forEach(reset -> inDomain(block, reset.name()));
        for (SizedInterface form : block.shape().busInterfaces()) {
            if (form.isForBus() && !block.block().attachments().containsKey(form.name())) {
                add(new InterfaceRef(block.name(), form.name()).toString(), "it is on no bus");
            }
        }
    }

    /** A stream is built where both ends agree; what brings them together is a block of its own. */
    private void streams() {
        Map<InterfaceRef, StreamLink> fed = new HashMap<>();
        for (StreamLink link : platform.streams()) {
            if (link.sink() == null) {
                continue;
            }
            String subject = link.ref().toString();
            StreamLink other = fed.putIfAbsent(link.sinkRef(), link);
            if (other != null) {
                add(subject, "%s has another source, %s".formatted(link.sinkRef(), other.ref()));
            }
            if (link.source().dataWidth() != link.sink().dataWidth()) {
                add(
                        subject,
                        "its words have %s bits, those of %s have %s; a width adapter is missing"
                                .formatted(
                                        link.source().dataWidth(),
                                        link.sinkRef(),
                                        link.sink().dataWidth()));
            }
            String from = link.block().domain(link.source().type().clock());
            String to = link.sinkBlock().domain(link.sink().type().clock());
            if (from != null && to != null && !from.equals(to)) {
                add(
                        subject,
                        "it is in %s and %s in %s; a stream clock crossing is missing"
                                .formatted(from, link.sinkRef(), to));
            }
        }
    }

    /** Files lie in one folder: two versions of a user's block may have different ones of the same name. */
    private void files() {
        Map<String, ElaboratedBlock> owners = new HashMap<>();
        for (ElaboratedBlock block : platform.blocks()) {
            platform.library()
                    .hardware()
                    .of(block.type().identity())
                    .forEach(
                            (file, text) -> {
                                ElaboratedBlock other = owners.putIfAbsent(file, block);
                                if (other != null && !text.equals(text(other, file))) {
                                    add(
                                            block.name(),
                                            "its file %s is another than that of %s, which is version %s; use one version of both"
                                                    .formatted(
                                                            file,
                                                            other.name(),
                                                            other.type().identity().version()));
                                }
                            });
        }
    }

    private String text(ElaboratedBlock block, String file) {
        return platform.library().hardware().of(block.type().identity()).get(file);
    }

    private void inDomain(ElaboratedBlock block, String port) {
        String domain = block.block().domains().get(port);
        if (domain == null || !platform.domainIndex().containsKey(domain)) {
            add(block.name(), "%s is in no clock domain".formatted(port));
        }
    }

    private void bus(ElaboratedBus bus) {
        if (bus.bus().domain() == null) {
            add(bus.name(), "it is in no clock domain");
        }
        if (bus.bus().protocol().hasOneInitiator() && bus.initiators().size() > 1) {
            add(
                    bus.name(),
                    "%s has one initiator, and it has %s"
                            .formatted(bus.bus().protocol().title(), bus.initiators().size()));
        }
        if (leadsTo(bus, bus, new HashSet<>())) {
            add(bus.name(), "bridges lead from it back to it");
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
        bus.initiators().forEach(each -> attachment(each.block(), each.form(), bus));
        bus.placed().forEach(each -> attachment(each.block(), each.form(), bus));
    }

    private void attachment(ElaboratedBlock block, SizedInterface form, ElaboratedBus bus) {
        Interface own = Interface.of(platform, block, form);
        String subject = new InterfaceRef(block.name(), form.name()).toString();
        int wide = Math.max(own.dataBits(), bus.bus().dataWidth());
        int narrow = Math.min(own.dataBits(), bus.bus().dataWidth());
        if (wide > MOST_PARTS * narrow) {
            add(
                    subject,
                    "there is no hardware for a width adapter from %s to %s bits"
                            .formatted(own.dataBits(), bus.bus().dataWidth()));
        }
    }

    /** Whether bridges lead from one bus to another. */
    private boolean leadsTo(ElaboratedBus from, ElaboratedBus to, Set<String> passed) {
        for (TargetRange target : from.placed()) {
            Bridge bridge = target.isWindow() ? target.block().shape().bridge() : null;
            Attachment below =
                    bridge == null
                            ? null
                            : target.block().block().attachments().get(bridge.downstream());
            ElaboratedBus next = below == null ? null : platform.busIndex().get(below.bus());
            if (next != null
                    && (next == to || passed.add(next.name()) && leadsTo(next, to, passed))) {
                return true;
            }
        }
        return false;
    }

    /** Nets are called by block and interface, or by block and port: no two may come to the same name. */
    private void netNames() {
        Map<String, String> owners = new HashMap<>();
        for (Domain domain : platform.domains()) {
            if (domain.clock() != null) {
                owners.put(domain.clock().name(), "the board");
            }
            if (domain.reset() != null) {
                owners.put(domain.reset().name(), "the board");
            }
        }
        for (ElaboratedBlock block : platform.blocks()) {
            List<String> parts = new ArrayList<>();
            block.shape().busInterfaces().forEach(form -> parts.add(form.name()));
            block.shape().interrupts().forEach(port -> parts.add(port.name()));
            block.shape().streams().forEach(form -> parts.add(form.name()));
            if (OutsideLogic.is(block)) {
                block.type().clocks().forEach(clock -> parts.add(clock.name()));
                block.type().resets().forEach(reset -> parts.add(reset.name()));
            }
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
}
