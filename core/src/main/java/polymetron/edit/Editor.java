package polymetron.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import polymetron.bus.Adapters;
import polymetron.bus.Protocol;
import polymetron.library.BlockType;
import polymetron.library.Board;
import polymetron.library.BusInterfaceType;
import polymetron.library.ClockInput;
import polymetron.library.ClockOutput;
import polymetron.library.InterruptPort;
import polymetron.library.Library;
import polymetron.library.OutwardInterface;
import polymetron.library.ParameterType;
import polymetron.library.ResetInput;
import polymetron.library.ResetOutput;
import polymetron.library.Role;
import polymetron.library.StreamType;
import polymetron.platform.Acceptance;
import polymetron.platform.Attachment;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.InterruptWire;
import polymetron.platform.Names;
import polymetron.platform.Outward;
import polymetron.platform.PinSetting;
import polymetron.platform.Platform;
import polymetron.platform.StreamWire;

/**
 * Applies edits. Pure: the platform given is not touched, and what is refused is refused whole. Refused is what
 * makes no sense (an unknown name); what makes sense but does not work yet is applied and becomes a finding.
 */
public final class Editor {
    private static final int DEEPEST = 20;
    private final Library library;

    public Editor(Library library) {
        this.library = library;
    }

    /**
     * @throws RejectedEdit when the edit refers to something that is not there or has an impossible value
     */
    public Platform apply(Platform platform, Edit edit) {
        return apply(platform, edit, 0);
    }

    private Platform apply(Platform platform, Edit edit, int depth) {
        return switch (edit) {
            case Edit.AddBlock add -> addBlock(platform, add);
            case Edit.RemoveBlock remove -> removeBlock(platform, remove);
            case Edit.RenameBlock rename -> renameBlock(platform, rename);
            case Edit.SetParameter set -> setParameter(platform, set);
            case Edit.SetDomain set -> setDomain(platform, set);
            case Edit.Attach attach -> attach(platform, attach);
            case Edit.Detach detach -> detach(platform, detach);
            case Edit.SetReach set -> setReach(platform, set);
            case Edit.SetPriority set -> setPriority(platform, set);
            case Edit.SetType set -> setType(platform, set);
            case Edit.ConnectStream connect -> connectStream(platform, connect);
            case Edit.DisconnectStream cut ->
                    change(platform, cut.block(), block -> block.withStream(cut.source(), null));
            case Edit.Group group -> Groups.group(platform, group);
            case Edit.Ungroup ungroup -> Groups.ungroup(platform, ungroup.name());
            case Edit.RenameGroup rename -> Groups.renameGroup(platform, rename);
            case Edit.ConnectInterrupt connect -> connect(platform, connect);
            case Edit.SetInterruptPriority set -> setInterruptPriority(platform, set);
            case Edit.DisconnectInterrupt cut ->
                    change(platform, cut.block(), block -> block.withInterrupt(cut.source(), null));
            case Edit.BindPart bind -> bindPart(platform, bind);
            case Edit.BindPins bind -> bindPins(platform, bind);
            case Edit.Unbind unbind ->
                    change(
                            platform,
                            unbind.block(),
                            block -> block.withOutward(unbind.outward(), null));
            case Edit.AddBus add -> addBus(platform, add);
            case Edit.Reserve reserve -> Reservations.reserve(platform, reserve);
            case Edit.Unreserve free -> Reservations.free(platform, free);
            case Edit.SetTraffic set -> setTraffic(platform, set);
            case Edit.SetPins set -> setPins(platform, set);
            case Edit.RemoveBus remove -> removeBus(platform, remove);
            case Edit.ChangeBus change -> changeBus(platform, change);
            case Edit.AddDomain add -> addDomain(platform, add);
            case Edit.RemoveDomain remove -> removeDomain(platform, remove);
            case Edit.RenamePlatform rename -> platform.withName(title(rename.name()));
            case Edit.Accept accept -> accept(platform, accept);
            case Edit.Reopen reopen ->
                    platform.withAccepted(
                            platform.accepted().stream()
                                    .filter(
                                            old ->
                                                    !(old.rule().equals(reopen.rule())
                                                            && old.subject()
                                                                    .equals(reopen.subject())))
                                    .toList());
            case Edit.Several several -> {
                require(
                        depth < DEEPEST,
                        "edits",
                        "edits are nested more than %s deep".formatted(DEEPEST));
                Platform result = platform;
                for (Edit part : several.edits()) {
                    require(part != null, "edits", "one of the edits is empty");
                    result = apply(result, part, depth + 1);
                }
                yield result;
            }
        };
    }

    private Platform addBlock(Platform platform, Edit.AddBlock edit) {
        require(
                Names.isName(edit.name()),
                "name",
                "'%s' cannot be a name: %s".formatted(edit.name(), Names.RULE));
        require(
                platform.block(edit.name()).isEmpty(),
                "name",
                "there is already a block named %s".formatted(edit.name()));
        require(edit.type() != null, "type", "the block type is missing");
        require(
                library.type(edit.type()).isPresent(),
                "type",
                "the library has no block type %s".formatted(edit.type()));
        Block block = Block.of(edit.name(), edit.type());
        List<Block> blocks = new ArrayList<>(platform.blocks());
        blocks.add(block);
        Platform result = platform.withBlocks(blocks);
        for (Map.Entry<String, String> entry :
                new TreeMap<>(edit.parameters() == null ? Map.of() : edit.parameters())
                        .entrySet()) {
            result =
                    setParameter(
                            result,
                            new Edit.SetParameter(edit.name(), entry.getKey(), entry.getValue()));
        }
        return result;
    }

    private Platform removeBlock(Platform platform, Edit.RemoveBlock edit) {
        Block gone = block(platform, edit.block());
        return References.drop(
                platform.withBlocks(
                        platform.blocks().stream().filter(block -> block != gone).toList()),
                edit.block());
    }

    private Platform renameBlock(Platform platform, Edit.RenameBlock edit) {
        Block old = block(platform, edit.block());
        require(
                Names.isName(edit.name()),
                "name",
                "'%s' cannot be a name: %s".formatted(edit.name(), Names.RULE));
        String name = Groups.fullName(old.group(), edit.name());
        require(
                Names.isName(name),
                "name",
                "'%s' cannot be a name: %s".formatted(name, Names.RULE));
        require(
                name.equals(edit.block()) || platform.block(name).isEmpty(),
                "name",
                "there is already a block named %s".formatted(name));
        return References.rename(
                change(platform, edit.block(), block -> block.withName(name)), edit.block(), name);
    }

    /** Where an initiator is on a bus. */
    private Attachment initiator(Platform platform, String block, String name) {
        BusInterfaceType form = busInterface(platform, block, name);
        Attachment at = block(platform, block).attachments().get(name);
        require(
                form.role() == Role.INITIATOR && at != null,
                "busInterface",
                "%s.%s is no initiator on a bus".formatted(block, name));
        return at;
    }

    private Platform setPriority(Platform platform, Edit.SetPriority edit) {
        Attachment at = initiator(platform, edit.block(), edit.busInterface());
        require(
                edit.priority() == null
                        || edit.priority() >= 0 && edit.priority() <= Attachment.LAST_PRIORITY,
                "priority",
                "a priority lies between 0 and %s".formatted(Attachment.LAST_PRIORITY));
        return change(
                platform,
                edit.block(),
                block ->
                        block.withAttachment(
                                edit.busInterface(), at.withPriority(edit.priority())));
    }

    private Platform setTraffic(Platform platform, Edit.SetTraffic edit) {
        Attachment at = initiator(platform, edit.block(), edit.busInterface());
        require(
                edit.traffic() == null
                        || edit.traffic() >= 1 && edit.traffic() <= Attachment.MOST_TRAFFIC,
                "traffic",
                "an initiator moves between 1 byte and 1 TB a second");
        return change(
                platform,
                edit.block(),
                block -> block.withAttachment(edit.busInterface(), at.withTraffic(edit.traffic())));
    }

    private Platform setPins(Platform platform, Edit.SetPins edit) {
        OutwardInterface outward = outward(platform, edit.block(), edit.outward());
        require(
                outward.ports().stream().anyMatch(known -> known.name().equals(edit.port())),
                "port",
                "%s.%s has no port %s".formatted(edit.block(), edit.outward(), edit.port()));
        PinSetting setting = PinSetting.USUAL.equals(edit.setting()) ? null : edit.setting();
        require(
                setting == null
                        || setting.drive() == null
                        || setting.drive() >= 1 && setting.drive() <= 100,
                "setting.drive",
                "an output drives between 1 and 100 mA");
        Outward before = block(platform, edit.block()).outward().get(edit.outward());
        Outward bound = before == null ? new Outward(null, null, null) : before;
        return change(
                platform,
                edit.block(),
                block ->
                        block.withOutward(edit.outward(), bound.withSetting(edit.port(), setting)));
    }

    private Platform setType(Platform platform, Edit.SetType edit) {
        block(platform, edit.block());
        BlockType type =
                library.type(edit.type())
                        .orElseThrow(
                                () ->
                                        new RejectedEdit(
                                                "type",
                                                "the library has no block type %s"
                                                        .formatted(edit.type())));
        return change(platform, edit.block(), block -> Upgrade.to(block, type));
    }

    private Platform connectStream(Platform platform, Edit.ConnectStream edit) {
        stream(platform, edit.block(), edit.source(), StreamType.End.SOURCE, "source");
        stream(platform, edit.sinkBlock(), edit.sink(), StreamType.End.SINK, "sink");
        StreamWire wire = new StreamWire(edit.sinkBlock(), edit.sink());
        for (Block other : platform.blocks()) {
            for (Map.Entry<String, StreamWire> entry : other.streams().entrySet()) {
                boolean same =
                        other.name().equals(edit.block()) && entry.getKey().equals(edit.source());
                require(
                        same || !entry.getValue().equals(wire),
                        "sink",
                        "%s.%s is already fed by %s.%s; a sink takes one stream"
                                .formatted(
                                        edit.sinkBlock(),
                                        edit.sink(),
                                        other.name(),
                                        entry.getKey()));
            }
        }
        return change(platform, edit.block(), block -> block.withStream(edit.source(), wire));
    }

    private StreamType stream(
            Platform platform, String block, String name, StreamType.End end, String field) {
        List<StreamType> ends =
                type(platform, block).streams().stream().filter(each -> each.end() == end).toList();
        return find(ends, StreamType::name, name, block, field);
    }

    private Platform setParameter(Platform platform, Edit.SetParameter edit) {
        BlockType type = type(platform, edit.block());
        ParameterType parameter =
                type.parameter(edit.parameter())
                        .orElseThrow(
                                () ->
                                        new RejectedEdit(
                                                "parameter",
                                                "%s has no parameter %s; it has %s"
                                                        .formatted(
                                                                type.title(),
                                                                edit.parameter(),
                                                                names(
                                                                        type.parameters(),
                                                                        ParameterType::name))));
        String value = edit.value() == null ? null : ParameterText.check(parameter, edit.value());
        return change(
                platform, edit.block(), block -> block.withParameter(edit.parameter(), value));
    }

    private Platform setDomain(Platform platform, Edit.SetDomain edit) {
        BlockType type = type(platform, edit.block());
        boolean known =
                type.clocks().stream().anyMatch(clock -> clock.name().equals(edit.port()))
                        || type.resets().stream()
                                .anyMatch(reset -> reset.name().equals(edit.port()));
        require(
                known,
                "port",
                "%s has no clock or reset input %s; it has %s"
                        .formatted(
                                edit.block(),
                                edit.port(),
                                names(type.clocks(), ClockInput::name)
                                        + " "
                                        + names(type.resets(), ResetInput::name)));
        require(
                edit.domain() == null || platform.domain(edit.domain()).isPresent(),
                "domain",
                "there is no clock domain %s".formatted(edit.domain()));
        return change(
                platform, edit.block(), block -> block.withDomain(edit.port(), edit.domain()));
    }

    private Platform attach(Platform platform, Edit.Attach edit) {
        BusInterfaceType form = busInterface(platform, edit.block(), edit.busInterface());
        Bus bus = bus(platform, edit.bus());
        require(
                Adapters.canJoin(form.protocols(), bus.protocol()),
                "bus",
                "%s.%s speaks %s, bus %s speaks %s, and there is no adapter between them"
                        .formatted(
                                edit.block(),
                                edit.busInterface(),
                                String.join(", ", form.protocols()),
                                bus.name(),
                                bus.protocol()));
        require(
                form.role() == Role.TARGET || edit.base() == null,
                "base",
                "%s.%s is an initiator: it has no base"
                        .formatted(edit.block(), edit.busInterface()));
        require(
                !form.isInside(),
                "busInterface",
                "%s.%s is inside its block and on no bus"
                        .formatted(edit.block(), edit.busInterface()));
        Boolean held = Boolean.TRUE.equals(edit.held()) ? true : null;
        Attachment before = block(platform, edit.block()).attachments().get(edit.busInterface());
        boolean stays = before != null && before.bus().equals(edit.bus());
        Attachment attachment =
                new Attachment(
                        edit.bus(),
                        edit.base(),
                        held,
                        stays ? before.hidden() : null,
                        stays ? before.priority() : null,
                        stays ? before.traffic() : null);
        return change(
                platform,
                edit.block(),
                block -> block.withAttachment(edit.busInterface(), attachment));
    }

    private Platform detach(Platform platform, Edit.Detach edit) {
        busInterface(platform, edit.block(), edit.busInterface());
        return change(
                platform, edit.block(), block -> block.withAttachment(edit.busInterface(), null));
    }

    private Platform setReach(Platform platform, Edit.SetReach edit) {
        BusInterfaceType form = busInterface(platform, edit.block(), edit.busInterface());
        BusInterfaceType target = busInterface(platform, edit.target(), edit.targetInterface());
        require(
                form.role() == Role.INITIATOR && target.role() == Role.TARGET,
                "busInterface",
                "%s.%s is to be an initiator and %s.%s a target"
                        .formatted(
                                edit.block(),
                                edit.busInterface(),
                                edit.target(),
                                edit.targetInterface()));
        Attachment attachment =
                block(platform, edit.block()).attachments().get(edit.busInterface());
        require(
                attachment != null,
                "busInterface",
                "%s.%s is on no bus".formatted(edit.block(), edit.busInterface()));
        TreeSet<String> hidden = new TreeSet<>(attachment.hidden());
        String ref = edit.target() + "." + edit.targetInterface();
        if (edit.reached()) {
            hidden.remove(ref);
        } else {
            hidden.add(ref);
        }
        return change(
                platform,
                edit.block(),
                block ->
                        block.withAttachment(
                                edit.busInterface(), attachment.hiding(List.copyOf(hidden))));
    }

    private Platform connect(Platform platform, Edit.ConnectInterrupt edit) {
        InterruptPort source =
                interrupt(
                        platform, edit.block(), edit.source(), InterruptPort.End.SOURCE, "source");
        InterruptPort sink =
                interrupt(platform, edit.sinkBlock(), edit.sink(), InterruptPort.End.SINK, "sink");
        require(
                source.line().equals(sink.line())
                        || source.line().equals("external") && sink.line().equals("device"),
                "sink",
                "%s.%s is a %s line and cannot go to %s.%s, which takes %s lines"
                        .formatted(
                                edit.block(),
                                edit.source(),
                                source.line(),
                                edit.sinkBlock(),
                                edit.sink(),
                                sink.line()));
        require(
                edit.input() >= 0 && edit.input() <= 1023,
                "input",
                "an input number lies between 0 and 1023");
        InterruptWire before = block(platform, edit.block()).interrupts().get(edit.source());
        InterruptWire wire =
                new InterruptWire(
                        edit.sinkBlock(),
                        edit.sink(),
                        edit.input(),
                        before == null ? null : before.priority());
        return change(platform, edit.block(), block -> block.withInterrupt(edit.source(), wire));
    }

    private Platform setInterruptPriority(Platform platform, Edit.SetInterruptPriority edit) {
        InterruptWire wire = block(platform, edit.block()).interrupts().get(edit.source());
        require(
                wire != null,
                "source",
                "interrupt %s.%s is not connected".formatted(edit.block(), edit.source()));
        require(
                edit.priority() == null || edit.priority() >= 0 && edit.priority() <= 65535,
                "priority",
                "a priority lies between 0 and 65535");
        return change(
                platform,
                edit.block(),
                block -> block.withInterrupt(edit.source(), wire.withPriority(edit.priority())));
    }

    private Platform bindPart(Platform platform, Edit.BindPart edit) {
        OutwardInterface outward = outward(platform, edit.block(), edit.outward());
        Board board =
                library.board(platform.board())
                        .orElseThrow(
                                () ->
                                        new RejectedEdit(
                                                "part",
                                                "the board of the platform is not in the library"));
        Board.Part part =
                board.part(edit.part())
                        .orElseThrow(
                                () ->
                                        new RejectedEdit(
                                                "part",
                                                "%s has no part %s; it has %s"
                                                        .formatted(
                                                                board.title(),
                                                                edit.part(),
                                                                names(
                                                                        board.parts(),
                                                                        Board.Part::name))));
        require(
                outward.partKinds().contains(part.kind()),
                "part",
                "%s.%s cannot drive %s, which is a %s"
                        .formatted(edit.block(), edit.outward(), part.name(), part.kind()));
        for (Block other : platform.blocks()) {
            for (Map.Entry<String, Outward> entry : other.outward().entrySet()) {
                boolean same =
                        other.name().equals(edit.block()) && entry.getKey().equals(edit.outward());
                require(
                        same || !edit.part().equals(entry.getValue().part()),
                        "part",
                        "board part %s is already taken by %s"
                                .formatted(edit.part(), other.name()));
            }
        }
        return change(
                platform,
                edit.block(),
                block -> block.withOutward(edit.outward(), new Outward(edit.part(), null, null)));
    }

    private Platform bindPins(Platform platform, Edit.BindPins edit) {
        OutwardInterface outward = outward(platform, edit.block(), edit.outward());
        Map<String, List<String>> pins = edit.pins() == null ? Map.of() : edit.pins();
        for (String port : pins.keySet()) {
            require(
                    outward.ports().stream().anyMatch(known -> known.name().equals(port)),
                    "pins",
                    "%s.%s has no port %s".formatted(edit.block(), edit.outward(), port));
        }
        Outward before = block(platform, edit.block()).outward().get(edit.outward());
        Outward bound =
                new Outward(null, new TreeMap<>(pins), before == null ? null : before.settings());
        return change(platform, edit.block(), block -> block.withOutward(edit.outward(), bound));
    }

    private Platform addBus(Platform platform, Edit.AddBus edit) {
        checkBus(platform, edit.bus());
        require(
                platform.bus(edit.bus().name()).isEmpty(),
                "name",
                "there is already a bus named %s".formatted(edit.bus().name()));
        List<Bus> buses = new ArrayList<>(platform.buses());
        buses.add(edit.bus());
        return platform.withBuses(buses);
    }

    private Platform changeBus(Platform platform, Edit.ChangeBus edit) {
        checkBus(platform, edit.bus());
        Bus old = bus(platform, edit.bus().name());
        return platform.withBuses(
                platform.buses().stream()
                        .map(bus -> bus == old ? edit.bus().withReserved(old.reserved()) : bus)
                        .toList());
    }

    private void checkBus(Platform platform, Bus bus) {
        require(bus != null, "bus", "the bus is missing");
        require(
                Names.isName(bus.name()),
                "name",
                "'%s' cannot be a name: %s".formatted(bus.name(), Names.RULE));
        require(
                Protocol.of(bus.protocol()).isPresent(),
                "protocol",
                "protocol %s is not known; there is %s"
                        .formatted(bus.protocol(), Protocol.words()));
        Protocol protocol = Protocol.of(bus.protocol()).orElseThrow();
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
                bus.domain() == null || platform.domain(bus.domain()).isPresent(),
                "domain",
                "there is no clock domain %s".formatted(bus.domain()));
    }

    private Platform removeBus(Platform platform, Edit.RemoveBus edit) {
        Bus bus = bus(platform, edit.bus());
        for (Block block : platform.blocks()) {
            require(
                    block.attachments().values().stream()
                            .noneMatch(at -> at.bus().equals(edit.bus())),
                    "bus",
                    "%s is still on bus %s; take it off first".formatted(block.name(), edit.bus()));
        }
        return platform.withBuses(platform.buses().stream().filter(other -> other != bus).toList());
    }

    private Platform addDomain(Platform platform, Edit.AddDomain edit) {
        ClockDomain domain = edit.domain();
        require(
                domain != null && Names.isName(domain.name()),
                "name",
                "a clock domain needs a name: " + Names.RULE);
        require(
                platform.domain(domain.name()).isEmpty(),
                "name",
                "there is already a clock domain named %s".formatted(domain.name()));
        library.board(platform.board())
                .ifPresent(
                        board -> {
                            require(
                                    board.clock(String.valueOf(domain.clock())).isPresent()
                                            || isMade(
                                                    platform,
                                                    domain.clock(),
                                                    BlockType::clockOutputs,
                                                    ClockOutput::name),
                                    "clock",
                                    "%s has no clock %s, and no block makes it; it has %s"
                                            .formatted(
                                                    board.title(),
                                                    domain.clock(),
                                                    names(board.clocks(), Board.Clock::name)));
                            require(
                                    domain.reset() == null
                                            || board.reset(domain.reset()).isPresent()
                                            || isMade(
                                                    platform,
                                                    domain.reset(),
                                                    BlockType::resetOutputs,
                                                    ResetOutput::name),
                                    "reset",
                                    "%s has no reset %s, and no block makes it; it has %s"
                                            .formatted(
                                                    board.title(),
                                                    domain.reset(),
                                                    names(board.resets(), Board.Reset::name)));
                        });
        List<ClockDomain> domains = new ArrayList<>(platform.domains());
        domains.add(domain);
        return platform.withDomains(domains);
    }

    /** Whether {@code block.output} is an output of a block of the platform. */
    private <T> boolean isMade(
            Platform platform,
            String ref,
            java.util.function.Function<BlockType, List<T>> outputs,
            java.util.function.Function<T, String> nameOf) {
        int dot = ref == null ? -1 : ref.indexOf('.');
        return dot > 0
                && platform
                        .block(ref.substring(0, dot))
                        .flatMap(block -> library.type(block.type()))
                        .stream()
                        .flatMap(type -> outputs.apply(type).stream())
                        .anyMatch(output -> nameOf.apply(output).equals(ref.substring(dot + 1)));
    }

    private Platform removeDomain(Platform platform, Edit.RemoveDomain edit) {
        require(
                platform.domain(edit.domain()).isPresent(),
                "domain",
                "there is no clock domain %s".formatted(edit.domain()));
        for (Block block : platform.blocks()) {
            require(
                    !block.domains().containsValue(edit.domain()),
                    "domain",
                    "%s is still in clock domain %s".formatted(block.name(), edit.domain()));
        }
        for (Bus bus : platform.buses()) {
            require(
                    !edit.domain().equals(bus.domain()),
                    "domain",
                    "bus %s is still in clock domain %s".formatted(bus.name(), edit.domain()));
        }
        return platform.withDomains(
                platform.domains().stream()
                        .filter(domain -> !domain.name().equals(edit.domain()))
                        .toList());
    }

    private Platform accept(Platform platform, Edit.Accept edit) {
        require(
                edit.rule() != null && edit.subject() != null && edit.what() != null,
                "rule",
                "say which finding");
        require(
                edit.reason() != null && !edit.reason().isBlank(),
                "reason",
                "say why the finding is accepted; the reason is kept with it");
        require(edit.reason().length() <= 500, "reason", "a reason has at most 500 characters");
        List<Acceptance> accepted = new ArrayList<>(platform.accepted());
        accepted.removeIf(
                old -> old.rule().equals(edit.rule()) && old.subject().equals(edit.subject()));
        boolean isNamed = edit.author() != null && !edit.author().isBlank();
        require(
                !isNamed || edit.author().strip().length() <= 80,
                "author",
                "a name has at most 80 characters");
        accepted.add(
                new Acceptance(
                        edit.rule(),
                        edit.subject(),
                        edit.what(),
                        edit.reason().strip(),
                        isNamed ? edit.author().strip() : null,
                        edit.revision()));
        return platform.withAccepted(accepted);
    }

    /** A platform's title without blanks around it. */
    public static String title(String name) {
        require(name != null && !name.isBlank(), "name", "a platform needs a name");
        require(name.strip().length() <= 80, "name", "a name has at most 80 characters");
        require(
                name.codePoints().noneMatch(Character::isISOControl),
                "name",
                "a name has no control characters in it");
        return name.strip();
    }

    private static Platform change(Platform platform, String name, UnaryOperator<Block> change) {
        Block old = block(platform, name);
        return platform.withBlocks(
                platform.blocks().stream()
                        .map(block -> block == old ? change.apply(block) : block)
                        .toList());
    }

    private static Block block(Platform platform, String name) {
        return platform.block(name)
                .orElseThrow(
                        () ->
                                new RejectedEdit(
                                        "block", "there is no block named %s".formatted(name)));
    }

    private static Bus bus(Platform platform, String name) {
        return platform.bus(name)
                .orElseThrow(
                        () -> new RejectedEdit("bus", "there is no bus named %s".formatted(name)));
    }

    private BlockType type(Platform platform, String name) {
        Block block = block(platform, name);
        return library.type(block.type())
                .orElseThrow(
                        () ->
                                new RejectedEdit(
                                        "block",
                                        "%s is of type %s, which the library does not have"
                                                .formatted(name, block.type())));
    }

    private BusInterfaceType busInterface(Platform platform, String block, String name) {
        return find(
                type(platform, block).busInterfaces(),
                BusInterfaceType::name,
                name,
                block,
                "busInterface");
    }

    private OutwardInterface outward(Platform platform, String block, String name) {
        return find(
                type(platform, block).outward(), OutwardInterface::name, name, block, "outward");
    }

    private InterruptPort interrupt(
            Platform platform, String block, String name, InterruptPort.End end, String field) {
        List<InterruptPort> ports =
                type(platform, block).interrupts().stream()
                        .filter(port -> port.end() == end)
                        .toList();
        return find(ports, InterruptPort::name, name, block, field);
    }

    private static <T> T find(
            List<T> entries,
            java.util.function.Function<T, String> nameOf,
            String name,
            String block,
            String field) {
        Map<String, T> byName = new HashMap<>();
        entries.forEach(entry -> byName.put(nameOf.apply(entry), entry));
        require(
                byName.containsKey(name),
                field,
                "%s has no %s; it has %s".formatted(block, name, names(entries, nameOf)));
        return byName.get(name);
    }

    private static <T> String names(
            List<T> entries, java.util.function.Function<T, String> nameOf) {
        return entries.isEmpty()
                ? "none"
                : String.join(", ", entries.stream().map(nameOf).toList());
    }

    private static void require(boolean condition, String field, String message) {
        if (!condition) {
            throw new RejectedEdit(field, message);
        }
    }
}
