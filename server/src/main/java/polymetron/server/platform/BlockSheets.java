package polymetron.server.platform;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import polymetron.address.Address;
import polymetron.board.Parts;
import polymetron.edit.Groups;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Field;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.SizedPort;
import polymetron.elaborate.SizedStream;
import polymetron.elaborate.StreamLink;
import polymetron.elaborate.TargetRange;
import polymetron.expression.Expression;
import polymetron.expression.Value;
import polymetron.interrupt.Sinks;
import polymetron.library.BlockType;
import polymetron.library.Board;
import polymetron.library.Capability;
import polymetron.library.ClockInput;
import polymetron.library.ParameterType;
import polymetron.library.ResetInput;
import polymetron.library.Resources;
import polymetron.library.Vlnv;
import polymetron.platform.Attachment;
import polymetron.quantity.Frequency;
import polymetron.serial.BaudRate;
import polymetron.server.library.LibraryView;
import polymetron.server.store.StoredPlatform;
import polymetron.software.Consoles;
import polymetron.software.MachineTimer;
import polymetron.software.TargetClock;
import polymetron.stream.StreamEnd;
import polymetron.stream.StreamNet;

/** Writes one block of a worked-out platform down as a {@link BlockSheet}. Formats; the core has computed it all. */
final class BlockSheets {
    private final ElaboratedPlatform platform;
    private final Map<String, TargetRange> ranges = new HashMap<>();
    private final Map<String, List<BlockSheet.ReachView>> reachedBy = new HashMap<>();
    private final Map<String, TargetRange> software = new HashMap<>();
    private final Sinks sinks;
    private final Parts parts;
    private final StreamNet net;

    private BlockSheets(ElaboratedPlatform platform, String block) {
        this.platform = platform;
        this.sinks = new Sinks(platform);
        this.parts = new Parts(platform);
        this.net = new StreamNet(platform);
        for (ElaboratedBus bus : platform.buses()) {
            bus.placed().stream()
                    .filter(target -> target.block().name().equals(block))
                    .forEach(target -> ranges.put(target.ref().toString(), target));
        }
        for (AddressSpace space : platform.spaces()) {
            for (TargetRange target : space.ranges()) {
                if (target.block().name().equals(block)) {
                    note(space, target);
                }
            }
        }
    }

    private void note(AddressSpace space, TargetRange target) {
        reachedBy
                .computeIfAbsent(target.ref().toString(), ref -> new ArrayList<>())
                .add(
                        new BlockSheet.ReachView(
                                space.initiator().label(),
                                Address.format(target.range().base()),
                                target.via()));
        if (!target.form().isForBus()) {
            ranges.putIfAbsent(target.ref().toString(), target);
        }
        if (!space.initiator().fetches()) {
            software.putIfAbsent(target.ref().toString(), target);
        }
    }

    /** The sheet of a block; empty when there is no such block, or its type is unknown. */
    static Optional<BlockSheet> of(
            StoredPlatform stored, ElaboratedPlatform platform, String name) {
        return platform.block(name)
                .map(block -> new BlockSheets(platform, name).sheet(stored.revision(), block));
    }

    private BlockSheet sheet(long revision, ElaboratedBlock block) {
        BlockShape shape = block.shape();
        return new BlockSheet(
                revision,
                block.name(),
                block.block().group(),
                Groups.localName(block.block()),
                block.type().identity().toString(),
                block.kind().toString(),
                block.type().title(),
                block.type().summary(),
                versions(block),
                block.type().parameters().stream()
                        .map(parameter -> value(block, parameter))
                        .toList(),
                ports(block),
                shape.busInterfaces().stream().map(form -> busInterface(block, form)).toList(),
                shape.streams().stream().map(form -> stream(block, form)).toList(),
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

    private List<BlockSheet.VersionView> versions(ElaboratedBlock block) {
        Vlnv own = block.type().identity();
        return platform.library().versionsOf(own).stream()
                .map(BlockType::identity)
                .filter(other -> !other.equals(own))
                .map(
                        other ->
                                new BlockSheet.VersionView(
                                        other.toString(),
                                        other.version(),
                                        Vlnv.BY_VERSION.compare(other, own) > 0))
                .toList();
    }

    private BlockSheet.StreamEndView stream(ElaboratedBlock block, SizedStream form) {
        StreamEnd end = new StreamEnd(block, form);
        StreamLink link = form.isSource() ? net.link(end) : net.feeder(end.ref()).orElse(null);
        InterfaceRef peer = link == null ? null : form.isSource() ? link.sinkRef() : link.ref();
        List<String> choices =
                (form.isSource() ? net.sinks() : net.sources())
                        .stream()
                                .filter(
                                        other ->
                                                form.isSource()
                                                        ? !net.leadsBack(end, other)
                                                        : !net.leadsBack(other, end))
                                .filter(
                                        other ->
                                                !form.isSource()
                                                        || net.feeder(other.ref()).isEmpty())
                                .map(other -> other.ref().toString())
                                .toList();
        return new BlockSheet.StreamEndView(
                form.name(),
                form.type().title() == null ? form.name() : form.type().title(),
                form.type().end().toString(),
                form.dataWidth(),
                form.isSource() && link != null ? link.carries().words() : form.traits().words(),
                end.domain(),
                peer == null ? null : peer.toString(),
                choices);
    }

    private BlockSheet.ValueView value(ElaboratedBlock block, ParameterType parameter) {
        String text =
                block.block().parameters().getOrDefault(parameter.name(), parameter.initial());
        Value value = block.shape().parameters().get(parameter.name());
        return new BlockSheet.ValueView(
                LibraryView.parameter(parameter),
                text,
                shown(parameter, value),
                block.block().parameters().containsKey(parameter.name()),
                note(block, parameter));
    }

    /** A value with its unit. */
    static String shown(ParameterType parameter, Value value) {
        return switch (parameter.form()) {
            case ADDRESS -> Address.format(value.asNumber().longValue());
            case SIZE -> Address.formatSize(value.asNumber().longValue());
            case BOOLEAN -> value.isTrue() ? "on" : "off";
            case CHOICE -> value.toString();
            case TEXT, NUMBERS -> value.toString().isEmpty() ? "none" : value.toString();
            case INTEGER, REAL -> value + (parameter.unit() == null ? "" : " " + parameter.unit());
        };
    }

    private String note(ElaboratedBlock block, ParameterType parameter) {
        for (Capability.Console console : block.type().provides(Capability.Console.class)) {
            if (isThe(console.baud(), parameter)) {
                return Consoles.rate(platform, block, console).map(BlockSheets::rate).orElse(null);
            }
        }
        for (MachineTimer timer : MachineTimer.of(platform)) {
            if (timer.block() == block
                    && isThe(timer.role().divider(), parameter)
                    && timer.tickHz() > 0) {
                return "→ " + Frequency.format(timer.tickHz());
            }
        }
        Long divided = dividedClock(block, parameter);
        return divided == null ? null : "→ " + Frequency.format(divided);
    }

    private static boolean isThe(Expression role, ParameterType parameter) {
        return role != null && role.parameter().filter(parameter.name()::equals).isPresent();
    }

    /** The rate that a divider gives, where a rate of the block is its clock divided by the parameter. */
    private Long dividedClock(ElaboratedBlock block, ParameterType parameter) {
        String formula = "CLOCK / " + parameter.name();
        boolean divides =
                block.type().rates().stream()
                        .anyMatch(rate -> rate.obtained().toString().equals(formula));
        long value = divides ? block.shape().number(parameter.name()) : 0;
        return value == 0 || platform.frequencyHz(block) == 0
                ? null
                : Long.valueOf(platform.frequencyHz(block) / value);
    }

    private static String rate(BaudRate rate) {
        return String.format(
                Locale.ROOT,
                "→ %.0f Bd, %+.2f %%, divisor %s",
                rate.actual(),
                rate.errorPercent(),
                rate.divisor());
    }

    static List<PlatformView.PortView> ports(ElaboratedBlock block) {
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

    private BlockSheet.InterfaceView busInterface(ElaboratedBlock block, SizedInterface form) {
        String ref = new InterfaceRef(block.name(), form.name()).toString();
        Attachment attachment = block.block().attachments().get(form.name());
        TargetRange range = ranges.get(ref);
        return new BlockSheet.InterfaceView(
                form.name(),
                form.type().role().toString(),
                form.type().title() == null ? form.name() : form.type().title(),
                attachment == null ? null : attachment.bus(),
                range == null ? null : Address.format(range.range().base()),
                range == null ? null : Address.format(range.range().last()),
                form.isTarget() ? Address.formatSize(form.sizeBytes()) : "",
                attachment != null && attachment.staysPut(),
                form.type().isInside(),
                attachment == null
                        ? List.of()
                        : platform.bus(attachment.bus())
                                .map(
                                        bus ->
                                                AdapterTexts.of(
                                                        bus,
                                                        new InterfaceRef(
                                                                block.name(), form.name())))
                                .orElse(List.of()),
                reachedBy.getOrDefault(ref, List.of()));
    }

    private BlockSheet.InterruptView interrupt(InterruptLink link) {
        List<BlockSheet.SinkView> choices = new ArrayList<>();
        for (Sinks.Sink sink : sinks.forLine(link.source().type().line())) {
            OptionalInt free = sinks.freeInput(sink);
            choices.add(
                    new BlockSheet.SinkView(
                            sink.block().name(),
                            sink.port().name(),
                            sink.port().first(),
                            sink.port().first() + sink.port().count() - 1,
                            free.isPresent() ? free.getAsInt() : null));
        }
        return new BlockSheet.InterruptView(
                link.source().name(),
                link.source().type().line(),
                String.valueOf(link.source().type().trigger()),
                link.wire() == null ? null : link.wire().block(),
                link.wire() == null ? null : link.wire().sink(),
                link.wire() == null ? null : link.wire().input(),
                choices);
    }

    /** The pins of an outward interface by port, lowest line first; empty as long as it is open. */
    static List<String> pins(OutwardLink link) {
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
        return pins;
    }

    private BlockSheet.OutwardView outward(OutwardLink link) {
        return new BlockSheet.OutwardView(
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
                pins(link),
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

    private List<BlockSheet.RegisterView> registers(ElaboratedBlock block) {
        List<BlockSheet.RegisterView> views = new ArrayList<>();
        for (SizedInterface form : block.shape().busInterfaces()) {
            TargetRange range = software.get(block.name() + "." + form.name());
            for (Register register : block.shape().registersOf(form.name())) {
                views.add(
                        register(range, register, TargetClock.hertz(platform, block, form.name())));
            }
        }
        return views;
    }

    private static BlockSheet.RegisterView register(
            TargetRange range, Register register, long clockHz) {
        return new BlockSheet.RegisterView(
                register.name(),
                "+0x%02X".formatted(register.offset()),
                range == null ? null : Address.format(range.range().base() + register.offset()),
                register.width(),
                register.access().letters(),
                register.resetText(clockHz),
                register.count(),
                register.first(),
                register.type().explains(),
                register.condition(),
                register.fields().stream().map(BlockSheets::field).toList());
    }

    private static BlockSheet.FieldView field(Field field) {
        return new BlockSheet.FieldView(field.name(), field.bitRange(), field.explains());
    }

    private static List<BlockSheet.ResourceView> resources(BlockShape shape) {
        Resources resources = shape.type().resources();
        if (resources == null) {
            return List.of();
        }
        return List.of(
                new BlockSheet.ResourceView(
                        "lookup tables", shape.number(resources.lookupTables(), 0)),
                new BlockSheet.ResourceView("flip-flops", shape.number(resources.flipFlops(), 0)),
                new BlockSheet.ResourceView("memory bits", shape.memoryBits()),
                new BlockSheet.ResourceView(
                        "multipliers", shape.number(resources.multipliers(), 0)));
    }
}
