package polymetron.server.platform;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.address.FreeSpace;
import polymetron.board.Parts;
import polymetron.edit.Groups;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.StreamLink;
import polymetron.elaborate.TargetRange;
import polymetron.finding.Checks;
import polymetron.finding.Finding;
import polymetron.finding.FindingGroups;
import polymetron.finding.Grade;
import polymetron.finding.Rule;
import polymetron.group.GroupEdges;
import polymetron.library.Board;
import polymetron.library.Capability;
import polymetron.output.Fingerprint;
import polymetron.platform.Attachment;
import polymetron.quantity.Frequency;
import polymetron.server.store.Elaborations;
import polymetron.server.store.StoredPlatform;
import polymetron.stream.StreamNet;

/** Writes a worked-out platform down as a {@link PlatformView}. Formats; the core has computed it all. */
final class PlatformViews {
    private static final Map<String, String> RULE_TITLES =
            Checks.rules().stream().collect(Collectors.toMap(Rule::id, Rule::title));

    private final StoredPlatform stored;
    private final ElaboratedPlatform platform;
    private final Set<String> conflicts = new HashSet<>();
    private final Map<String, TargetRange> ranges = new HashMap<>();
    private final Map<String, String> seen = new HashMap<>();

    /** Where a processor finds a target behind bridges. */
    private record AddressedBy(String processor, AddressRange range) {}

    private final Map<String, List<AddressedBy>> addressed = new HashMap<>();
    private final Map<String, List<InterruptLink>> interrupts = new HashMap<>();
    private final Map<String, List<OutwardLink>> outward = new HashMap<>();
    private final Set<String> onStreams = new HashSet<>();
    private final Parts parts;
    private final List<Finding> findings;

    private PlatformViews(StoredPlatform stored, Elaborations.Worked worked) {
        this.stored = stored;
        this.platform = worked.platform();
        this.parts = new Parts(platform);
        this.findings = worked.findings();
        index();
    }

    static PlatformView of(StoredPlatform stored, Elaborations.Worked worked) {
        return new PlatformViews(stored, worked).view();
    }

    private void index() {
        for (ElaboratedBus bus : platform.buses()) {
            bus.placed().forEach(target -> ranges.put(target.ref().toString(), target));
            TargetRange before = null;
            for (TargetRange target : bus.placed()) {
                if (before != null && before.range().overlaps(target.range())) {
                    conflicts.add(before.ref().toString());
                    conflicts.add(target.ref().toString());
                }
                if (before == null
                        || Long.compareUnsigned(target.range().last(), before.range().last()) > 0) {
                    before = target;
                }
            }
        }
        for (AddressSpace space : platform.spaces()) {
            for (TargetRange target : space.ranges()) {
                if (!target.via().isEmpty() && space.isDataOfProcessor()) {
                    list(addressed, target.ref().toString())
                            .add(new AddressedBy(space.initiator().block().name(), target.range()));
                }
                if (!target.via().isEmpty()) {
                    seen.putIfAbsent(
                            target.ref().toString(),
                            "%s sees it at %s"
                                    .formatted(
                                            space.initiator().label(),
                                            Address.format(target.range().base())));
                }
            }
        }
        platform.interrupts().forEach(link -> list(interrupts, link.block().name()).add(link));
        platform.outward().forEach(link -> list(outward, link.block().name()).add(link));
        for (ElaboratedBlock block : platform.blocks()) {
            if (!block.shape().streams().isEmpty()) {
                onStreams.add(block.name());
            }
        }
    }

    private static <T> List<T> list(Map<String, List<T>> lists, String key) {
        return lists.computeIfAbsent(key, name -> new ArrayList<>());
    }

    private PlatformView view() {
        Board board = platform.board();
        return new PlatformView(
                stored.id().toString(),
                platform.platform().name(),
                stored.revision(),
                stored.savedAt().toInstant().toString(),
                stored.undoTitle(),
                PlatformView.AuthorView.of(stored.undoBy()),
                stored.redoTitle(),
                platform.platform().board().toString(),
                board == null ? platform.platform().board().toString() : board.title(),
                Fingerprint.of(platform),
                platform.domains().stream().map(PlatformViews::domain).toList(),
                platform.buses().stream().map(this::bus).toList(),
                platform.blocks().stream().map(this::block).toList(),
                platform.streams().stream().map(PlatformViews::stream).toList(),
                new StreamNet(platform)
                        .openSinks().stream().map(end -> end.ref().toString()).toList(),
                groups(),
                board == null ? List.of() : board.parts().stream().map(this::part).toList(),
                findings.stream().map(PlatformViews::finding).toList(),
                FindingGroups.of(findings).stream().map(PlatformViews::group).toList());
    }

    private static PlatformView.FindingGroupView group(FindingGroups.Group group) {
        Finding first = group.findings().getFirst();
        return new PlatformView.FindingGroupView(
                FindingGroups.key(first),
                group.line(),
                group.grade().toString(),
                group.step().toString(),
                group.findings().size(),
                first.isAccepted(),
                group.isFixable());
    }

    private static PlatformView.DomainView domain(Domain domain) {
        return new PlatformView.DomainView(
                domain.name(),
                domain.domain().clock(),
                domain.domain().reset(),
                domain.frequencyHz() == 0 ? "no clock" : Frequency.format(domain.frequencyHz()));
    }

    private PlatformView.BusView bus(ElaboratedBus bus) {
        return new PlatformView.BusView(
                bus.name(),
                bus.bus().protocol(),
                bus.bus().protocol().title(),
                depth(bus, new HashSet<>()),
                bus.bus().dataWidth(),
                bus.bus().addressWidth(),
                bus.bus().domain(),
                bus.bus().goesByPriority() ? "by-priority" : "in-turn",
                bus.initiators().stream().map(each -> initiator(bus, each)).toList(),
                slots(bus, bus.placed()),
                bus.unplaced().stream().map(each -> target(bus, each)).toList());
    }

    /** How many bridges lead to a bus, on the shortest way; bridges in a loop are counted once. */
    private int depth(ElaboratedBus bus, Set<String> seen) {
        if (!bus.isBehindBridge() || !seen.add(bus.name())) {
            return 0;
        }
        int least = Integer.MAX_VALUE;
        for (InitiatorPort initiator : bus.initiators()) {
            Attachment before =
                    initiator
                            .block()
                            .block()
                            .attachments()
                            .get(initiator.block().shape().bridge().upstream());
            int one =
                    before == null
                            ? 0
                            : platform.bus(before.bus()).map(up -> depth(up, seen)).orElse(0);
            least = Math.min(least, one + 1);
        }
        return least;
    }

    private PlatformView.InitiatorView initiator(ElaboratedBus bus, InitiatorPort initiator) {
        List<String> reaches =
                platform.space(initiator.ref()).stream()
                        .flatMap(space -> space.ranges().stream())
                        .map(target -> target.ref().toString())
                        .toList();
        return new PlatformView.InitiatorView(
                initiator.block().name(),
                initiator.form().name(),
                initiator.label(),
                initiator.fetches(),
                initiator.isBehindBridge(),
                initiator.block().block().attachments().get(initiator.form().name()).priority(),
                AdapterTexts.of(bus, initiator.ref()),
                reaches,
                platform.space(initiator.ref()).stream()
                        .flatMap(space -> space.hidden().stream())
                        .map(target -> target.ref().toString())
                        .toList());
    }

    /** Targets and the gaps between them, in address order; targets that overlap come one after the other. */
    private List<PlatformView.SlotView> slots(ElaboratedBus bus, List<TargetRange> placed) {
        record Slot(AddressRange range, TargetRange target) {}
        List<Slot> slots = new ArrayList<>();
        placed.forEach(target -> slots.add(new Slot(target.range(), target)));
        new FreeSpace(bus.window(), placed.stream().map(TargetRange::range).toList())
                .gaps()
                .forEach(gap -> slots.add(new Slot(gap, null)));
        slots.sort((one, other) -> one.range().compareTo(other.range()));
        return slots.stream()
                .map(
                        slot ->
                                new PlatformView.SlotView(
                                        Address.format(slot.range().base()),
                                        Address.format(slot.range().last()),
                                        SizeTexts.gap(slot.range()),
                                        slot.target() == null ? null : target(bus, slot.target()),
                                        slot.target() == null ? kept(bus, slot.range()) : null))
                .toList();
    }

    private static String kept(ElaboratedBus bus, AddressRange gap) {
        String kept =
                bus.kept().stream()
                        .filter(each -> each.range().overlaps(gap))
                        .map(ElaboratedBus.Kept::what)
                        .collect(Collectors.joining(", "));
        return kept.isEmpty() ? null : kept;
    }

    private PlatformView.TargetView target(ElaboratedBus bus, TargetRange target) {
        Bridge bridge = target.block().shape().bridge();
        Attachment behind =
                !target.isWindow()
                        ? null
                        : target.block().block().attachments().get(bridge.downstream());
        return new PlatformView.TargetView(
                target.block().name(),
                target.form().name(),
                target.label(),
                target.label().equals(target.block().name()) ? null : target.form().type().title(),
                Address.formatSize(target.form().sizeBytes()),
                target.form().isMemory(),
                target.held(),
                conflicts.contains(target.ref().toString()),
                behind == null ? null : behind.bus(),
                AdapterTexts.of(bus, target.ref()),
                seen.get(target.ref().toString()),
                software(target.ref().toString()),
                target.form().sizeParameter().orElse(null),
                target.isPlaced() ? Address.format(target.range().base()) : null,
                target.isPlaced() ? Address.format(target.range().last()) : null);
    }

    private PlatformView.SoftwareRange software(String target) {
        List<AddressedBy> all = addressed.getOrDefault(target, List.of());
        if (all.isEmpty()) {
            return null;
        }
        AddressRange first = all.getFirst().range();
        String others =
                all.stream()
                        .filter(each -> !each.range().equals(first))
                        .map(
                                each ->
                                        "%s at %s"
                                                .formatted(
                                                        each.processor(),
                                                        Address.format(each.range().base())))
                        .collect(Collectors.joining(", "));
        return new PlatformView.SoftwareRange(
                Address.format(first.base()),
                Address.format(first.last()),
                others.isEmpty() ? null : others);
    }

    private PlatformView.BlockView block(ElaboratedBlock block) {
        boolean onBus =
                block.shape().busInterfaces().stream()
                        .anyMatch(form -> block.block().attachments().containsKey(form.name()));
        String base =
                block.shape().busInterfaces().stream()
                        .map(form -> ranges.get(block.name() + "." + form.name()))
                        .filter(Objects::nonNull)
                        .findFirst()
                        .map(target -> Address.format(target.range().base()))
                        .orElse(null);
        return new PlatformView.BlockView(
                block.name(),
                block.block().group(),
                Groups.localName(block.block()),
                block.type().identity().toString(),
                block.kind().toString(),
                block.type().title(),
                detail(block),
                base,
                onBus || onStreams.contains(block.name()),
                BlockSheets.ports(block),
                list(interrupts, block.name()).stream().map(PlatformViews::wire).toList(),
                list(outward, block.name()).stream().map(PlatformViews::outside).toList());
    }

    /** What tells a block from others of its type: its width and direction where it has both. */
    private static String detail(ElaboratedBlock block) {
        return block.type().provides(Capability.Lines.class).stream()
                .findFirst()
                .map(
                        lines ->
                                "%s · %s %s"
                                        .formatted(
                                                block.type().title(),
                                                block.shape().number(lines.count(), 0),
                                                lines.direction()
                                                        .evaluate(block.shape().parameters())))
                .orElse(block.type().title());
    }

    private static PlatformView.WireView wire(InterruptLink link) {
        return new PlatformView.WireView(
                link.source().name(),
                link.source().type().line(),
                link.wire() == null ? null : link.wire().block(),
                link.wire() == null ? null : link.wire().sink(),
                link.wire() == null ? null : link.wire().input());
    }

    private static PlatformView.OutsideView outside(OutwardLink link) {
        return new PlatformView.OutsideView(
                link.form().name(),
                link.part() == null ? null : link.part().name(),
                link.binding() != null,
                BlockSheets.pins(link));
    }

    private static PlatformView.StreamView stream(StreamLink link) {
        String from = link.block().domain(link.source().type().clock());
        String to =
                link.sink() == null ? null : link.sinkBlock().domain(link.sink().type().clock());
        boolean crosses = from != null && to != null && !from.equals(to);
        return new PlatformView.StreamView(
                link.block().name(),
                link.source().name(),
                link.source().dataWidth(),
                link.carries().words(),
                from,
                link.sink() == null ? null : link.sinkBlock().name(),
                link.sink() == null ? null : link.sink().name(),
                crosses
                        || link.sink() != null
                                && link.sink().dataWidth() != link.source().dataWidth());
    }

    private List<PlatformView.GroupView> groups() {
        List<PlatformView.GroupView> groups = new ArrayList<>();
        GroupEdges.of(platform)
                .forEach(
                        (name, edges) ->
                                groups.add(
                                        new PlatformView.GroupView(
                                                name,
                                                platform.blocks().stream()
                                                        .filter(
                                                                block ->
                                                                        name.equals(
                                                                                block.block()
                                                                                        .group()))
                                                        .map(ElaboratedBlock::name)
                                                        .toList(),
                                                edges.stream()
                                                        .map(
                                                                edge ->
                                                                        new PlatformView
                                                                                .CrossingView(
                                                                                edge.sort(),
                                                                                edge.inside()
                                                                                        .toString(),
                                                                                edge.outside()))
                                                        .toList())));
        return groups;
    }

    private PlatformView.PartUse part(Board.Part part) {
        return new PlatformView.PartUse(
                part.name(),
                part.title(),
                part.kind(),
                parts.taker(part.name()).map(link -> link.block().name()).orElse(null),
                part.drivers().stream().map(driver -> driver.type().toString()).toList());
    }

    private static PlatformView.FindingView finding(Finding finding) {
        return new PlatformView.FindingView(
                finding.rule(),
                RULE_TITLES.get(finding.rule()),
                finding.grade().toString(),
                finding.subject(),
                finding.subjectBlock(),
                finding.what(),
                finding.why(),
                finding.grade() != Grade.ERROR,
                finding.acceptedReason(),
                finding.isAccepted() ? finding.acceptance().author() : null,
                finding.isAccepted() ? finding.acceptance().revision() : null,
                FindingGroups.key(finding),
                finding.fixes().stream()
                        .map(fix -> new PlatformView.FixView(fix.label(), fix.edit()))
                        .toList());
    }
}
