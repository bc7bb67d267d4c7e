package polymetron.wiring;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import polymetron.address.Address;
import polymetron.board.Parts;
import polymetron.bus.Adapter;
import polymetron.bus.Adapters;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.TargetRange;
import polymetron.interrupt.Sinks;
import polymetron.library.Board;
import polymetron.library.ClockInput;
import polymetron.library.ClockOutput;
import polymetron.library.Kind;
import polymetron.library.Library;
import polymetron.library.ResetInput;
import polymetron.library.Role;
import polymetron.placement.Placement;
import polymetron.platform.Attachment;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Names;
import polymetron.platform.Platform;
import polymetron.quantity.Frequency;
import polymetron.stream.StreamEnd;
import polymetron.stream.StreamJoin;
import polymetron.stream.StreamNet;

/**
 * Proposes how to tie every loose end of a platform: clocks, resets, buses, addresses, interrupts and board
 * parts, in that order, each on top of the lines before it. Loose ends of one sort are taken by block name, so the
 * order in which blocks were added does not matter. What the user decided is never touched.
 *
 * @param proposals the lines, in the order in which they are applied
 */
public record WiringPlan(List<Proposal> proposals) {

    /**
     * What the user decided about the plan.
     *
     * @param off keys of the lines that are switched off
     * @param chosen choices made where several ways were equal, index by key
     * @param near where new ranges are wished; null for the usual place
     * @param bus bus that loose targets are wished on; null for the one that fits
     */
    public record Decisions(
            Set<String> off, Map<String, Integer> chosen, Address near, String bus) {
        public static final Decisions NONE = new Decisions(Set.of(), Map.of(), null, null);
    }

    public static WiringPlan propose(Platform platform, Library library, Decisions decisions) {
        return new WiringPlan(new Planner(platform, library, decisions).plan());
    }

    /** The whole plan as one edit; lines without edits are left out. */
    public Edit asEdit(String title) {
        return new Edit.Several(
                title, proposals.stream().flatMap(line -> line.edits().stream()).toList());
    }

    private static final class Planner {
        private final Editor editor;
        private final Elaborator elaborator;
        private final Decisions decisions;
        private final List<Proposal> lines = new ArrayList<>();
        private Platform platform;
        private ElaboratedPlatform now;

        private Planner(Platform platform, Library library, Decisions decisions) {
            this.editor = new Editor(library);
            this.elaborator = new Elaborator(library);
            this.decisions = decisions;
            this.platform = platform;
            this.now = elaborator.elaborate(platform);
        }

        private List<Proposal> plan() {
            planMadeClocks(true);
            planDomain();
            planClocksAndResets();
            planMadeClocks(false);
            planClocksAndResets();
            planStreams();
            planBus();
            planAttachments();
            planInterrupts();
            planParts();
            return List.copyOf(lines);
        }

        /** Notes a line and, unless it is switched off, goes on from the platform that it makes. */
        private void propose(String key, Proposal.Kind kind, String what, String why, Edit edit) {
            lines.add(new Proposal(key, kind, what, why, List.of(edit), List.of()));
            if (decisions.off().contains(key)) {
                return;
            }
            platform = editor.apply(platform, edit);
            now = elaborator.elaborate(platform);
        }

        private void offer(
                String key,
                Proposal.Kind kind,
                String what,
                String why,
                List<Proposal.Choice> choices) {
            Integer chosen = decisions.chosen().get(key);
            boolean made = chosen != null && chosen >= 0 && chosen < choices.size();
            List<Edit> edits = made ? choices.get(chosen).edits() : List.of();
            lines.add(new Proposal(key, kind, what, why, edits, choices));
            if (made && !decisions.off().contains(key)) {
                for (Edit edit : edits) {
                    platform = editor.apply(platform, edit);
                }
                now = elaborator.elaborate(platform);
            }
        }

        private List<ElaboratedBlock> blocksByName() {
            return now.blocks().stream()
                    .sorted(Comparator.comparing(ElaboratedBlock::name))
                    .toList();
        }

        private void planDomain() {
            Board board = now.board();
            boolean needed =
                    now.blocks().stream().anyMatch(block -> !block.type().clocks().isEmpty());
            if (!needed || !now.domains().isEmpty() || board == null || board.clocks().isEmpty()) {
                return;
            }
            Board.Clock clock = board.clocks().getFirst();
            Board.Reset reset = board.resets().isEmpty() ? null : board.resets().getFirst();
            propose(
                    "domain",
                    Proposal.Kind.DOMAIN,
                    "clock domain main from %s, %s"
                            .formatted(clock.name(), Frequency.format(clock.frequencyHz())),
                    (board.clocks().size() == 1
                                    ? "the board's only clock"
                                    : "the board's first clock")
                            + (reset == null
                                    ? ""
                                    : "; reset by %s, synchronised to it".formatted(reset.name())),
                    new Edit.AddDomain(
                            new ClockDomain(
                                    "main", clock.name(), reset == null ? null : reset.name())));
        }

        private void planClocksAndResets() {
            for (ElaboratedBlock block : blocksByName()) {
                for (ClockInput clock : block.type().clocks()) {
                    planClock(block, clock);
                }
            }
            for (ElaboratedBlock block : blocksByName()) {
                for (ResetInput reset : block.type().resets()) {
                    planReset(block, reset);
                }
            }
        }

        private boolean isSaid(String key) {
            return lines.stream().anyMatch(line -> line.key().equals(key));
        }

        private void planClock(ElaboratedBlock block, ClockInput clock) {
            if (block.block().domains().containsKey(clock.name())
                    || isSaid("clock:%s.%s".formatted(block.name(), clock.name()))) {
                return;
            }
            List<Domain> fitting =
                    now.domains().stream().filter(domain -> allows(clock, domain)).toList();
            if (fitting.isEmpty()) {
                return;
            }
            Optional<Domain> near = new Neighbours(now).domainOf(block, fitting);
            Domain domain = near.orElse(fitting.getFirst());
            String why =
                    now.domains().size() == 1
                            ? "the only clock domain"
                            : near.isPresent()
                                    ? "the domain that it is connected in"
                                    : "the first domain within the block's limits";
            if (clock.minimumHz() != null && clock.maximumHz() != null) {
                why +=
                        "; %s is within %s to %s"
                                .formatted(
                                        Frequency.format(domain.frequencyHz()),
                                        Frequency.format(clock.minimumHz()),
                                        Frequency.format(clock.maximumHz()));
            }
            propose(
                    "clock:%s.%s".formatted(block.name(), clock.name()),
                    Proposal.Kind.CLOCK,
                    "%s.%s ← %s".formatted(block.name(), clock.name(), domain.name()),
                    why,
                    new Edit.SetDomain(block.name(), clock.name(), domain.name()));
        }

        private static boolean allows(ClockInput clock, Domain domain) {
            return (clock.minimumHz() == null || domain.frequencyHz() >= clock.minimumHz())
                    && (clock.maximumHz() == null || domain.frequencyHz() <= clock.maximumHz());
        }

        private void planReset(ElaboratedBlock block, ResetInput reset) {
            String clockDomain = block.block().domains().get(reset.clock());
            Domain domain = clockDomain == null ? null : now.domainIndex().get(clockDomain);
            if (block.block().domains().containsKey(reset.name())
                    || isSaid("reset:%s.%s".formatted(block.name(), reset.name()))
                    || domain == null
                    || !domain.hasReset()) {
                return;
            }
            propose(
                    "reset:%s.%s".formatted(block.name(), reset.name()),
                    Proposal.Kind.RESET,
                    "%s.%s ← %s".formatted(block.name(), reset.name(), domain.name()),
                    "the reset of the domain that clocks it",
                    new Edit.SetDomain(block.name(), reset.name(), domain.name()));
        }

        /** A domain for every clock that a block makes, so that it can be used. */
        private void planMadeClocks(boolean ofTheirOwn) {
            for (ElaboratedBlock block : blocksByName()) {
                for (ClockOutput output : block.shape().clockOutputs()) {
                    if (ofTheirOwn != (output.from() == null)) {
                        continue;
                    }
                    String source = block.name() + "." + output.name();
                    boolean used =
                            now.domains().stream()
                                    .anyMatch(domain -> source.equals(domain.domain().clock()));
                    if (!used) {
                        planMadeClock(block, output, source);
                    }
                }
            }
        }

        private void planMadeClock(ElaboratedBlock block, ClockOutput output, String source) {
            String name =
                    Names.free(
                            block.name() + "_" + output.name(),
                            now.domains().stream().map(Domain::name).toList());
            String before = output.from() == null ? null : block.domain(output.from());
            Domain input = before == null ? null : now.domainIndex().get(before);
            String reset =
                    !block.type().resetOutputs().isEmpty()
                            ? block.name() + "." + block.type().resetOutputs().getFirst().name()
                            : input == null ? firstReset() : input.domain().reset();
            propose(
                    "domain:" + source,
                    Proposal.Kind.DOMAIN,
                    "clock domain %s from %s".formatted(name, source),
                    "%s makes a clock that no domain runs on yet%s"
                            .formatted(
                                    block.name(),
                                    reset == null
                                            ? ""
                                            : "; reset by %s, synchronised to it".formatted(reset)),
                    new Edit.AddDomain(new ClockDomain(name, source, reset)));
        }

        private String firstReset() {
            return now.board() == null || now.board().resets().isEmpty()
                    ? null
                    : now.board().resets().getFirst().name();
        }

        /**
         * Open streams: where a source has one sink only to go to, and that sink one source only, there is nothing to
         * choose. Each stream that is tied can leave another with one way only, so it goes round until nothing is
         * left like that.
         */
        private void planStreams() {
            List<StreamEnd> open = new StreamNet(now).openSinks();
            boolean again = !open.isEmpty();
            while (again) {
                again = false;
                for (StreamEnd source : new StreamNet(now).openSources()) {
                    String key = "stream:" + source.ref();
                    boolean done = isSaid(key);
                    if (!done && planOnlyStream(key, source)) {
                        again = true;
                        break;
                    }
                }
                again = again || offerStreams(open);
            }
        }

        /** Sinks that a source could go to, of those that are open now. */
        private List<StreamEnd> sinksFor(StreamNet net, StreamEnd source) {
            return net.openSinks().stream()
                    .filter(sink -> !net.leadsBack(source, sink))
                    .filter(sink -> StreamJoin.obstacle(now, source, sink).isEmpty())
                    .toList();
        }

        private boolean planOnlyStream(String key, StreamEnd source) {
            StreamNet net = new StreamNet(now);
            List<StreamEnd> sinks = sinksFor(net, source);
            if (sinks.size() != 1) {
                return false;
            }
            StreamEnd sink = sinks.getFirst();
            boolean contested =
                    net.openSources().stream()
                            .filter(other -> !other.ref().equals(source.ref()))
                            .anyMatch(
                                    other ->
                                            sinksFor(net, other).stream()
                                                    .anyMatch(
                                                            each -> each.ref().equals(sink.ref())));
            if (contested) {
                return false;
            }
            StreamJoin join = StreamJoin.of(now, source, sink);
            propose(
                    key,
                    Proposal.Kind.STREAM,
                    streamWords(source, sink, join),
                    "the only open sink that it can go to, and the only open source for it",
                    new Edit.Several(null, join.edits()));
            return true;
        }

        private static String streamWords(StreamEnd source, StreamEnd sink, StreamJoin join) {
            return "%s → %s%s"
                    .formatted(
                            source.ref(),
                            sink.ref(),
                            join.parts().isEmpty()
                                    ? ""
                                    : " through " + String.join(" and ", join.parts()));
        }

        /**
         * @param sinks the sinks that were open at first, so that a choice keeps its number
         * @return whether a choice that was made tied a stream
         */
        private boolean offerStreams(List<StreamEnd> sinks) {
            for (StreamEnd source : new StreamNet(now).openSources()) {
                String key = "stream:" + source.ref();
                if (isSaid(key)) {
                    continue;
                }
                StreamNet net = new StreamNet(now);
                List<Proposal.Choice> choices = new ArrayList<>();
                for (StreamEnd sink : sinks) {
                    boolean open = net.feeder(sink.ref()).isEmpty();
                    boolean possible =
                            open
                                    && !net.leadsBack(source, sink)
                                    && StreamJoin.obstacle(now, source, sink).isEmpty();
                    choices.add(
                            new Proposal.Choice(
                                    sink.ref().toString(),
                                    possible
                                            ? List.of(
                                                    new Edit.Several(
                                                            null,
                                                            StreamJoin.of(now, source, sink)
                                                                    .edits()))
                                            : List.of()));
                }
                if (choices.stream().allMatch(choice -> choice.edits().isEmpty())) {
                    continue;
                }
                int before = lines.size();
                offer(
                        key,
                        Proposal.Kind.STREAM,
                        "%s to one of several sinks".formatted(source.ref()),
                        "several streams are open; choose where it goes",
                        choices);
                if (!lines.get(before).edits().isEmpty() && !decisions.off().contains(key)) {
                    return true;
                }
            }
            return false;
        }

        /** The first bus speaks what the processor likes best, or whoever else wants to reach something. */
        private void planBus() {
            Optional<InitiatorPort> first =
                    blocksByName().stream()
                            .sorted(Comparator.comparing(block -> block.kind() != Kind.PROCESSOR))
                            .flatMap(
                                    block ->
                                            block.shape().busInterfaces().stream()
                                                    .filter(form -> !form.isTarget())
                                                    .filter(SizedInterface::isForBus)
                                                    .map(form -> new InitiatorPort(block, form)))
                            .filter(port -> !port.isBehindBridge())
                            .findFirst();
            if (!now.buses().isEmpty() || first.isEmpty()) {
                return;
            }
            InitiatorPort port = first.get();
            Protocol protocol =
                    Protocol.of(port.form().type().protocols().getFirst())
                            .orElse(Protocol.AXI4_LITE);
            int width =
                    protocol.dataWidths().contains(port.form().dataWidth())
                            ? port.form().dataWidth()
                            : 32;
            propose(
                    "bus",
                    Proposal.Kind.BUS,
                    "bus system, %s, %s-bit data, 32-bit addresses"
                            .formatted(protocol.title(), width),
                    "%s is an initiator and there is no bus yet".formatted(port.ref()),
                    new Edit.AddBus(
                            new Bus(
                                    "system",
                                    protocol.toString(),
                                    width,
                                    32,
                                    port.block().domain(port.form().type().clock()))));
        }

        private void planAttachments() {
            attachLoose(true);
            planPrivateMemories();
            planBuses();
            attachLoose(false);
            placeUnplaced();
        }

        /** The second port of a memory for the only instruction side that is loose: both then see one memory. */
        private void planPrivateMemories() {
            for (ElaboratedBlock memory : blocksByName()) {
                List<SizedInterface> ports =
                        memory.shape().busInterfaces().stream()
                                .filter(form -> form.isTarget() && form.isMemory())
                                .filter(form -> form.isForBus() && form.type().executable())
                                .filter(
                                        form ->
                                                !memory.block()
                                                        .attachments()
                                                        .containsKey(form.name()))
                                .toList();
                List<InitiatorPort> fetching = looseFetching();
                if (ports.size() == 2 && fetching.size() == 1 && !now.buses().isEmpty()) {
                    planPrivateMemory(memory, ports, fetching.getFirst());
                }
            }
        }

        private List<InitiatorPort> looseFetching() {
            List<InitiatorPort> loose = new ArrayList<>();
            for (ElaboratedBlock block : blocksByName()) {
                for (SizedInterface form : block.shape().busInterfaces()) {
                    if (!form.isTarget()
                            && form.type().executable()
                            && !block.block().attachments().containsKey(form.name())) {
                        loose.add(new InitiatorPort(block, form));
                    }
                }
            }
            return loose;
        }

        private void planPrivateMemory(
                ElaboratedBlock memory, List<SizedInterface> ports, InitiatorPort side) {
            InterfaceRef common = new InterfaceRef(memory.name(), ports.getFirst().name());
            if (fitting(ports.getFirst()).size() == 1) {
                planAttachment(memory, ports.getFirst());
            }
            Attachment at =
                    now.block(memory.name()).orElseThrow().block().attachments().get(common.name());
            if (at == null || at.base() == null) {
                return;
            }
            String name =
                    Names.free(
                            memory.name() + "_private",
                            now.buses().stream().map(ElaboratedBus::name).toList());
            propose(
                    "private:" + memory.name(),
                    Proposal.Kind.BUS,
                    "bus %s between %s and %s.%s, at %s"
                            .formatted(
                                    name,
                                    side.ref(),
                                    memory.name(),
                                    ports.get(1).name(),
                                    at.base()),
                    "the only instruction side that is loose fetches through the second port; at"
                            + " the same address on both, because it is one memory",
                    new Edit.Several(
                            null,
                            List.of(
                                    new Edit.AddBus(
                                            new Bus(
                                                    name,
                                                    side.form().type().protocols().getFirst(),
                                                    side.form().dataWidth(),
                                                    32,
                                                    side.block().domain(null))),
                                    new Edit.Attach(
                                            side.block().name(),
                                            side.form().name(),
                                            name,
                                            null,
                                            null),
                                    new Edit.Attach(
                                            memory.name(),
                                            ports.get(1).name(),
                                            name,
                                            at.base(),
                                            null))));
        }

        /** A bus behind every bridge that is on one itself. */
        private void planBuses() {
            for (ElaboratedBlock block : blocksByName()) {
                Bridge bridge = block.shape().bridge();
                if (bridge == null
                        || block.block().attachments().containsKey(bridge.downstream())
                        || !block.block().attachments().containsKey(bridge.upstream())) {
                    continue;
                }
                Edit.AddBus bus = NewBus.behind(now, block);
                propose(
                        "bus:" + block.name(),
                        Proposal.Kind.BUS,
                        "bus %s behind %s, %s"
                                .formatted(
                                        bus.bus().name(),
                                        block.name(),
                                        Protocol.of(bus.bus().protocol())
                                                .map(Protocol::title)
                                                .orElse("")),
                        "%s leads nowhere yet".formatted(block.name()),
                        new Edit.Several(
                                null,
                                List.of(
                                        bus,
                                        new Edit.Attach(
                                                block.name(),
                                                bridge.downstream(),
                                                bus.bus().name(),
                                                null,
                                                null))));
            }
        }

        /**
         * @param bridges whether bridges are attached, upstream, or everything else
         */
        private void attachLoose(boolean bridges) {
            for (Role role : Role.values()) {
                for (ElaboratedBlock block : blocksByName()) {
                    for (SizedInterface form : block.shape().busInterfaces()) {
                        boolean loose = !block.block().attachments().containsKey(form.name());
                        Bridge bridge = block.shape().bridge();
                        boolean isOwnDownstream = bridge != null && bridge.passesOn(form);
                        if (form.type().role() == role
                                && form.isForBus()
                                && loose
                                && bridges == (bridge != null)
                                && !isOwnDownstream) {
                            planAttachment(block, form);
                        }
                    }
                }
            }
        }

        private void planAttachment(ElaboratedBlock block, SizedInterface form) {
            InterfaceRef ref = new InterfaceRef(block.name(), form.name());
            List<ElaboratedBus> fitting = fitting(form);
            if (fitting.isEmpty()) {
                return;
            }
            String key = "attach:" + ref;
            if (fitting.size() == 1) {
                Edit edit = attachEdit(fitting.getFirst(), ref, form);
                if (edit != null) {
                    propose(
                            key,
                            Proposal.Kind.ATTACHMENT,
                            attachWords(edit, ref, form),
                            attachReason(edit, form),
                            edit);
                }
                return;
            }
            List<Proposal.Choice> choices = new ArrayList<>();
            for (ElaboratedBus bus : fitting) {
                Edit edit = attachEdit(bus, ref, form);
                if (edit != null) {
                    choices.add(new Proposal.Choice(bus.name(), List.of(edit)));
                }
            }
            offer(
                    key,
                    Proposal.Kind.ATTACHMENT,
                    "%s on one of %s buses".formatted(ref, choices.size()),
                    "several buses are as good for it; choose one",
                    choices);
        }

        /** Buses that need the least between: memory stays on the processors' buses where it can. */
        private List<ElaboratedBus> fitting(SizedInterface form) {
            if (form.isTarget()
                    && decisions.bus() != null
                    && now.bus(decisions.bus()).isPresent()) {
                return List.of(now.bus(decisions.bus()).get());
            }
            List<ElaboratedBus> possible =
                    now.buses().stream()
                            .filter(
                                    bus ->
                                            Adapters.canJoin(
                                                    form.type().protocols(), bus.bus().protocol()))
                            .filter(bus -> form.isTarget() || !bus.isBehindBridge())
                            .filter(bus -> !isPrivate(bus))
                            .toList();
            List<ElaboratedBus> near =
                    possible.stream().filter(bus -> !bus.isBehindBridge()).toList();
            if (form.isMemory() && !near.isEmpty()) {
                possible = near;
            }
            return cheapest(possible, form);
        }

        /** The buses that need the least logic between; several where they need the same. */
        private static List<ElaboratedBus> cheapest(
                List<ElaboratedBus> buses, SizedInterface form) {
            int least = buses.stream().mapToInt(bus -> between(bus, form)).min().orElse(0);
            return buses.stream().filter(bus -> between(bus, form) == least).toList();
        }

        private static int between(ElaboratedBus bus, SizedInterface form) {
            Adapters.Side own = new Adapters.Side(form.type().protocols(), form.dataWidth(), null);
            Adapters.Side its =
                    new Adapters.Side(List.of(bus.bus().protocol()), bus.bus().dataWidth(), null);
            return Adapters.between(own, its).stream().mapToInt(Adapter::lookupTables).sum();
        }

        /** Whether a bus is there for an instruction side and a port of its memory only, and better stays so. */
        private static boolean isPrivate(ElaboratedBus bus) {
            return !bus.placed().isEmpty()
                    && bus.initiators().stream().allMatch(InitiatorPort::fetches)
                    && bus.placed().stream().allMatch(WiringPlan.Planner::isSecondPort);
        }

        private static boolean isSecondPort(TargetRange target) {
            return target.form().isMemory()
                    && target.block().shape().busInterfaces().stream()
                            .filter(SizedInterface::isMemory)
                            .findFirst()
                            .filter(first -> !first.name().equals(target.form().name()))
                            .isPresent();
        }

        private Edit attachEdit(ElaboratedBus bus, InterfaceRef ref, SizedInterface form) {
            if (!form.isTarget()) {
                return new Edit.Attach(ref.block(), ref.name(), bus.name(), null, null);
            }
            Optional<Address> place =
                    decisions.near() == null
                            ? Placement.baseFor(bus, ref, form)
                            : Placement.baseNear(bus, ref, form, decisions.near());
            return place.<Edit>map(
                            base ->
                                    new Edit.Attach(
                                            ref.block(), ref.name(), bus.name(), base, null))
                    .orElse(null);
        }

        private static String attachWords(Edit edit, InterfaceRef ref, SizedInterface form) {
            Edit.Attach attach = (Edit.Attach) edit;
            return form.isTarget()
                    ? "%s on %s at %s, %s"
                            .formatted(
                                    ref,
                                    attach.bus(),
                                    attach.base(),
                                    Address.formatSize(form.sizeBytes()))
                    : "%s on %s".formatted(ref, attach.bus());
        }

        private String attachReason(Edit edit, SizedInterface form) {
            String only =
                    now.buses().size() == 1
                            ? "the only bus"
                            : decisions.bus() != null && form.isTarget()
                                    ? "the bus that you chose"
                                    : "the bus that needs the least between";
            if (!form.isTarget()) {
                if (form.type().executable()) {
                    return only + "; reaches executable memory only";
                }
                return Boolean.TRUE.equals(form.type().memoryOnly())
                        ? only + "; reaches memory only, because it moves data"
                        : only;
            }
            boolean reached =
                    now.bus(((Edit.Attach) edit).bus()).stream()
                            .anyMatch(bus -> !bus.initiators().isEmpty());
            String place =
                    decisions.near() != null
                            ? "first place from the chosen gap on, aligned to its size"
                            : form.isMemory()
                                    ? "lowest free place for memory, aligned to its size"
                                    : "lowest free place for registers, aligned to its size";
            return only + (reached ? "; " : ", though no initiator is on it yet; ") + place;
        }

        private void placeUnplaced() {
            for (ElaboratedBus bus : now.buses()) {
                for (var target : List.copyOf(bus.unplaced())) {
                    Placement.baseFor(
                                    now.bus(bus.name()).orElseThrow(), target.ref(), target.form())
                            .ifPresent(
                                    base ->
                                            propose(
                                                    "place:" + target.ref(),
                                                    Proposal.Kind.ATTACHMENT,
                                                    "%s at %s".formatted(target.ref(), base),
                                                    "lowest free place, aligned to its size",
                                                    new Edit.Attach(
                                                            target.block().name(),
                                                            target.form().name(),
                                                            bus.name(),
                                                            base,
                                                            target.held())));
                }
            }
        }

        private void planInterrupts() {
            List<InterruptLink> loose =
                    now.interrupts().stream()
                            .filter(link -> link.wire() == null)
                            .sorted(Comparator.comparing(InterruptLink::ref))
                            .toList();
            for (InterruptLink link : loose) {
                Sinks sinks = new Sinks(now);
                List<Proposal.Choice> choices = new ArrayList<>();
                List<String> words = new ArrayList<>();
                for (Sinks.Sink sink : sinks.forLine(link.source().type().line())) {
                    OptionalInt input = sinks.freeInput(sink);
                    if (input.isPresent()) {
                        words.add(
                                "%s → %s, input %s"
                                        .formatted(link.ref(), sink.ref(), input.getAsInt()));
                        choices.add(
                                new Proposal.Choice(
                                        sink.ref().toString(),
                                        List.of(
                                                new Edit.ConnectInterrupt(
                                                        link.block().name(),
                                                        link.source().name(),
                                                        sink.block().name(),
                                                        sink.port().name(),
                                                        input.getAsInt()))));
                    }
                }
                String key = "interrupt:" + link.ref();
                if (choices.size() == 1) {
                    propose(
                            key,
                            Proposal.Kind.INTERRUPT,
                            words.getFirst(),
                            "the lowest free input of the only port for %s interrupts"
                                    .formatted(link.source().type().line()),
                            choices.getFirst().edits().getFirst());
                } else if (choices.size() > 1) {
                    offer(
                            key,
                            Proposal.Kind.INTERRUPT,
                            "%s to one of %s inputs".formatted(link.ref(), choices.size()),
                            "several ports take %s interrupts; choose one"
                                    .formatted(link.source().type().line()),
                            choices);
                }
            }
        }

        private void planParts() {
            List<OutwardLink> loose =
                    now.outward().stream()
                            .filter(link -> link.binding() == null)
                            .sorted(Comparator.comparing(OutwardLink::ref))
                            .toList();
            // Ports with a part of their own name first, so that nobody else takes it.
            for (boolean sameName : new boolean[] {true, false}) {
                for (OutwardLink link : loose) {
                    List<Board.Part> fitting = new Parts(now).fitting(link);
                    boolean named =
                            fitting.stream()
                                    .anyMatch(part -> part.name().equals(link.block().name()));
                    if (named == sameName && !fitting.isEmpty()) {
                        planPart(link, fitting);
                    }
                }
            }
        }

        private void planPart(OutwardLink link, List<Board.Part> fitting) {
            String key = "part:" + link.ref();
            if (isSaid(key)) {
                return;
            }
            List<Board.Part> named =
                    fitting.stream()
                            .filter(part -> part.name().equals(link.block().name()))
                            .toList();
            List<Board.Part> best = named.isEmpty() ? fitting : named;
            if (best.size() == 1) {
                propose(
                        key,
                        Proposal.Kind.PART,
                        "%s → board part %s".formatted(link.ref(), best.getFirst().name()),
                        named.isEmpty()
                                ? "the only free part that matches in kind, direction and width"
                                : "same name as the board part",
                        bind(link, best.getFirst()));
                return;
            }
            offer(
                    key,
                    Proposal.Kind.PART,
                    "%s to one of %s board parts".formatted(link.ref(), best.size()),
                    "several free parts match; choose one",
                    best.stream()
                            .map(
                                    part ->
                                            new Proposal.Choice(
                                                    part.name(), List.of(bind(link, part))))
                            .toList());
        }

        private static Edit bind(OutwardLink link, Board.Part part) {
            return new Edit.BindPart(link.block().name(), link.form().name(), part.name());
        }
    }
}
