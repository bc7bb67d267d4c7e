package polymetron.server.platform;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.address.FreeSpace;
import polymetron.board.Parts;
import polymetron.bus.Protocol;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.SizedPort;
import polymetron.elaborate.TargetRange;
import polymetron.expression.Value;
import polymetron.finding.Checks;
import polymetron.finding.Finding;
import polymetron.finding.Grade;
import polymetron.finding.Rule;
import polymetron.handoff.Fingerprint;
import polymetron.interrupt.Sinks;
import polymetron.library.Board;
import polymetron.library.ClockInput;
import polymetron.library.Field;
import polymetron.library.ParameterType;
import polymetron.library.ResetInput;
import polymetron.library.Resources;
import polymetron.lookup.AddressRulers;
import polymetron.platform.Attachment;
import polymetron.quantity.Frequency;
import polymetron.serial.BaudRate;
import polymetron.serial.Uart;
import polymetron.server.library.LibraryView;
import polymetron.server.store.StoredPlatform;

/** Writes a worked-out platform down as a {@link PlatformView}. Formats; the core has computed it all. */
final class PlatformViews {
    private static final Map<String, String> RULE_TITLES =
            Checks.rules().stream().collect(Collectors.toMap(Rule::id, Rule::title));

    private final StoredPlatform stored;
    private final ElaboratedPlatform platform;
    private final Set<String> conflicts = new HashSet<>();
    private final Map<String, TargetRange> ranges = new HashMap<>();
    private final Map<String, String> busOf = new HashMap<>();
    private final Map<String, List<PlatformView.ReachView>> reachedBy = new HashMap<>();
    private final Map<String, TargetRange> software = new HashMap<>();
    private final Sinks sinks;
    private final Parts parts;
    private final List<Finding> findings;

    private PlatformViews(StoredPlatform stored, ElaboratedPlatform platform) {
        this.stored = stored;
        this.platform = platform;
        this.sinks = new Sinks(platform);
        this.parts = new Parts(platform);
        this.findings = Checks.run(platform);
        index();
    }

    static PlatformView of(StoredPlatform stored, ElaboratedPlatform platform) {
        return new PlatformViews(stored, platform).view();
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
                reachedBy
                        .computeIfAbsent(target.ref().toString(), ref -> new ArrayList<>())
                        .add(
                                new PlatformView.ReachView(
                                        space.initiator().label(),
                                        Address.format(target.range().base()),
                                        target.via()));
                if (!space.initiator().fetches()) {
                    software.putIfAbsent(target.ref().toString(), target);
                }
            }
        }
    }

    private PlatformView view() {
        Board board = platform.board();
        return new PlatformView(
                stored.id().toString(),
                platform.platform().name(),
                stored.revision(),
                stored.savedAt().toInstant().toString(),
                stored.undoTitle(),
                stored.redoTitle(),
                platform.platform().board().toString(),
                board == null ? platform.platform().board().toString() : board.title(),
                Fingerprint.of(platform),
                platform.domains().stream().map(PlatformViews::domain).toList(),
                platform.buses().stream().map(this::bus).toList(),
                platform.blocks().stream().map(this::block).toList(),
                rulers(),
                free(),
                board == null ? List.of() : board.parts().stream().map(this::part).toList(),
                findings.stream().map(PlatformViews::finding).toList());
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
                Protocol.of(bus.bus().protocol()).map(Protocol::title).orElse(bus.bus().protocol()),
                depth(bus, new HashSet<>()),
                bus.bus().dataWidth(),
                bus.bus().addressWidth(),
                bus.bus().domain(),
                bus.initiators().stream().map(each -> initiator(bus, each)).toList(),
                slots(bus, bus.placed()),
                bus.unplaced().stream().map(each -> target(bus, each)).toList());
    }

    /** How many bridges lead to a bus, on the shortest way; bridges in a circle are counted once. */
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

    private static List<String> adapters(ElaboratedBus bus, InterfaceRef ref) {
        return bus.adaptersOf(ref).stream()
                .map(
                        adapter ->
                                "%s %s → %s, %s, about %s LUT"
                                        .formatted(
                                                adapter.sort(),
                                                adapter.from(),
                                                adapter.to(),
                                                adapter.cycles() == 1
                                                        ? "1 cycle"
                                                        : adapter.cycles() + " cycles",
                                                adapter.lookupTables()))
                .toList();
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
                adapters(bus, initiator.ref()),
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
                                        gapSize(slot.range()),
                                        slot.target() == null ? null : target(bus, slot.target())))
                .toList();
    }

    /** A size for people: gaps are rarely whole multiples, so at most one digit behind the point. */
    private static String gapSize(AddressRange range) {
        double bytes =
                range.sizeBytes() == 0
                        ? Math.pow(2, 64)
                        : range.sizeBytes() >= 0
                                ? range.sizeBytes()
                                : range.sizeBytes() + Math.pow(2, 64);
        String[] units = {"B", "KiB", "MiB", "GiB", "TiB", "PiB", "EiB"};
        int unit = 0;
        while (unit < units.length - 1 && bytes >= 1024) {
            bytes /= 1024;
            unit++;
        }
        String number = String.format(Locale.ROOT, bytes >= 100 ? "%.0f" : "%.1f", bytes);
        return (number.endsWith(".0") ? number.substring(0, number.length() - 2) : number)
                + " "
                + units[unit];
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
                Address.formatSize(target.form().sizeBytes()),
                target.form().isMemory(),
                target.held(),
                conflicts.contains(target.ref().toString()),
                behind == null ? null : behind.bus(),
                adapters(bus, target.ref()),
                target.isPlaced() ? Address.format(target.range().base()) : null,
                target.isPlaced() ? Address.format(target.range().last()) : null);
    }

    private PlatformView.RulersView rulers() {
        return new PlatformView.RulersView(
                platform.spaces().stream().map(space -> space.initiator().label()).toList(),
                AddressRulers.of(platform.spaces()).stream()
                        .map(
                                row ->
                                        new PlatformView.RulerRow(
                                                Address.format(row.range().base()),
                                                Address.format(row.range().last()),
                                                gapSize(row.range()),
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

    private List<PlatformView.FreeView> free() {
        List<PlatformView.FreeView> free = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            for (AddressRange gap : bus.freeSpace().gaps()) {
                free.add(
                        new PlatformView.FreeView(
                                bus.name(),
                                Address.format(gap.base()),
                                Address.format(gap.last()),
                                gapSize(gap)));
            }
        }
        return free;
    }

    private PlatformView.BlockView block(ElaboratedBlock block) {
        BlockShape shape = block.shape();
        boolean attached =
                shape.busInterfaces().stream()
                        .anyMatch(form -> block.block().attachments().containsKey(form.name()));
        return new PlatformView.BlockView(
                block.name(),
                block.type().identity().toString(),
                block.kind().toString(),
                block.type().title(),
                block.type().summary(),
                attached,
                block.type().parameters().stream()
                        .map(parameter -> value(block, parameter))
                        .toList(),
                ports(block),
                shape.busInterfaces().stream().map(form -> busInterface(block, form)).toList(),
                platform.interrupts().stream()
                        .filter(link -> link.block() == block)
                        .map(this::interrupt)
                        .toList(),
                platform.outward().stream()
                        .filter(link -> link.block() == block)
                        .map(this::outward)
                        .toList(),
                registers(block),
                resources(shape));
    }

    private PlatformView.ValueView value(ElaboratedBlock block, ParameterType parameter) {
        String text =
                block.block().parameters().getOrDefault(parameter.name(), parameter.initial());
        Value value = block.shape().parameters().get(parameter.name());
        return new PlatformView.ValueView(
                LibraryView.parameter(parameter),
                text,
                shown(parameter, value),
                block.block().parameters().containsKey(parameter.name()),
                note(block, parameter));
    }

    private static String shown(ParameterType parameter, Value value) {
        return switch (parameter.form()) {
            case ADDRESS -> Address.format(value.asNumber().longValue());
            case SIZE -> Address.formatSize(value.asNumber().longValue());
            case BOOLEAN -> value.isTrue() ? "on" : "off";
            case CHOICE -> value.toString();
            case INTEGER -> value + (parameter.unit() == null ? "" : " " + parameter.unit());
        };
    }

    private String note(ElaboratedBlock block, ParameterType parameter) {
        if (parameter.name().equals(Uart.BAUD)) {
            return Uart.baudRate(platform, block).map(PlatformViews::rate).orElse(null);
        }
        if (parameter.name().equals("DIVIDER") && platform.frequencyHz(block) > 0) {
            return "→ "
                    + Frequency.format(
                            platform.frequencyHz(block) / block.shape().number("DIVIDER"));
        }
        return null;
    }

    private static String rate(BaudRate rate) {
        return String.format(
                Locale.ROOT,
                "→ %.0f Bd, %+.2f %%, divisor %s",
                rate.obtained(),
                rate.errorPercent(),
                rate.divisor());
    }

    private static List<PlatformView.PortView> ports(ElaboratedBlock block) {
        List<PlatformView.PortView> ports = new ArrayList<>();
        for (ClockInput clock : block.type().clocks()) {
            ports.add(
                    new PlatformView.PortView(
                            clock.name(), "clock", block.block().domains().get(clock.name())));
        }
        for (ResetInput reset : block.type().resets()) {
            ports.add(
                    new PlatformView.PortView(
                            reset.name(), "reset", block.block().domains().get(reset.name())));
        }
        return ports;
    }

    private PlatformView.InterfaceView busInterface(ElaboratedBlock block, SizedInterface form) {
        String ref = new InterfaceRef(block.name(), form.name()).toString();
        Attachment attachment = block.block().attachments().get(form.name());
        TargetRange range = ranges.get(ref);
        return new PlatformView.InterfaceView(
                form.name(),
                form.type().role().toString(),
                form.type().title() == null ? form.name() : form.type().title(),
                attachment == null ? null : attachment.bus(),
                range == null ? null : Address.format(range.range().base()),
                range == null ? null : Address.format(range.range().last()),
                form.isTarget() ? Address.formatSize(form.sizeBytes()) : "",
                attachment != null && attachment.staysPut(),
                attachment == null
                        ? List.of()
                        : platform.bus(attachment.bus())
                                .map(
                                        bus ->
                                                adapters(
                                                        bus,
                                                        new InterfaceRef(
                                                                block.name(), form.name())))
                                .orElse(List.of()),
                reachedBy.getOrDefault(ref, List.of()));
    }

    private PlatformView.InterruptView interrupt(InterruptLink link) {
        List<PlatformView.SinkView> choices = new ArrayList<>();
        for (Sinks.Sink sink : sinks.forLine(link.source().type().line())) {
            OptionalInt free = sinks.freeInput(sink);
            choices.add(
                    new PlatformView.SinkView(
                            sink.block().name(),
                            sink.port().name(),
                            sink.port().first(),
                            sink.port().first() + sink.port().count() - 1,
                            free.isPresent() ? free.getAsInt() : null));
        }
        return new PlatformView.InterruptView(
                link.source().name(),
                link.source().type().line(),
                String.valueOf(link.source().type().trigger()),
                link.wire() == null ? null : link.wire().block(),
                link.wire() == null ? null : link.wire().sink(),
                link.wire() == null ? null : link.wire().input(),
                choices);
    }

    private PlatformView.OutwardView outward(OutwardLink link) {
        List<String> pins = new ArrayList<>();
        for (SizedPort port : link.form().ports()) {
            List<String> given =
                    link.part() != null
                            ? link.part()
                                    .signal(port.name())
                                    .map(Board.Signal::pins)
                                    .orElse(List.of())
                            : link.binding() == null
                                    ? List.of()
                                    : link.binding().pins().getOrDefault(port.name(), List.of());
            if (!given.isEmpty()) {
                pins.add(port.name() + " " + String.join(" ", given));
            }
        }
        return new PlatformView.OutwardView(
                link.form().name(),
                link.form().type().title(),
                link.form().ports().stream()
                        .map(
                                port ->
                                        "%s, %s %s"
                                                .formatted(
                                                        port.name(),
                                                        port.width(),
                                                        port.direction()))
                        .toList(),
                link.part() == null ? null : link.part().name(),
                link.binding() != null,
                pins,
                platform.board() == null
                        ? List.of()
                        : platform.board().parts().stream()
                                .filter(
                                        part ->
                                                link.form()
                                                        .type()
                                                        .partKinds()
                                                        .contains(part.kind()))
                                .filter(part -> parts.taker(part.name()).isEmpty())
                                .map(Board.Part::name)
                                .toList());
    }

    private List<PlatformView.RegisterView> registers(ElaboratedBlock block) {
        TargetRange range =
                block.shape().busInterfaces().stream()
                        .filter(SizedInterface::isTarget)
                        .map(
                                form ->
                                        software.get(
                                                new InterfaceRef(block.name(), form.name())
                                                        .toString()))
                        .filter(java.util.Objects::nonNull)
                        .findFirst()
                        .orElse(null);
        return block.shape().registers().stream()
                .map(register -> register(range, register))
                .toList();
    }

    private static PlatformView.RegisterView register(TargetRange range, Register register) {
        return new PlatformView.RegisterView(
                register.name(),
                "+0x%02X".formatted(register.offset()),
                range == null ? null : Address.format(range.range().base() + register.offset()),
                register.width(),
                register.access().letters(),
                "0x%X".formatted(register.reset()),
                register.count(),
                register.first(),
                register.type().explains(),
                register.type().condition(),
                register.fields().stream().map(PlatformViews::field).toList());
    }

    private static PlatformView.FieldView field(Field field) {
        return new PlatformView.FieldView(field.name(), field.bitRange(), field.explains());
    }

    private static List<PlatformView.ResourceView> resources(BlockShape shape) {
        Resources resources = shape.type().resources();
        if (resources == null) {
            return List.of();
        }
        return List.of(
                new PlatformView.ResourceView(
                        "lookup tables", shape.number(resources.lookupTables(), 0)),
                new PlatformView.ResourceView("flip-flops", shape.number(resources.flipFlops(), 0)),
                new PlatformView.ResourceView(
                        "memory bits", shape.number(resources.memoryBits(), 0)),
                new PlatformView.ResourceView(
                        "multipliers", shape.number(resources.multipliers(), 0)));
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
                finding.fixes().stream()
                        .map(fix -> new PlatformView.FixView(fix.label(), fix.edit()))
                        .toList());
    }
}
