package polymetron.elaborate;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import polymetron.address.AddressRange;
import polymetron.bus.Adapter;
import polymetron.bus.Adapters;
import polymetron.library.BlockType;
import polymetron.library.Board;
import polymetron.library.ClockOutput;
import polymetron.library.Library;
import polymetron.platform.Attachment;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.InterruptWire;
import polymetron.platform.Outward;
import polymetron.platform.Platform;

/**
 * Works a platform out in one pass, in time n log n (the sorting of ranges). Never fails: what is wrong is left
 * out or kept as a {@link DanglingReference}, and the rest is worked out all the same.
 */
public final class Elaborator {
    static final Comparator<TargetRange> BY_ADDRESS =
            Comparator.comparing(TargetRange::range).thenComparing(TargetRange::ref);

    private final Library library;

    public Elaborator(Library library) {
        this.library = library;
    }

    public ElaboratedPlatform elaborate(Platform platform) {
        return new Pass(platform).run();
    }

    private record ShapeKey(BlockType type, Map<String, String> parameters) {
        // The type is one object in the library; comparing all of it would cost more than the
        // shape.
        @Override
        public boolean equals(Object other) {
            return other instanceof ShapeKey that
                    && type == that.type
                    && parameters.equals(that.parameters);
        }

        @Override
        public int hashCode() {
            return 31 * System.identityHashCode(type) + parameters.hashCode();
        }
    }

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

        /** Where only one initiator leads to a bus, nobody gets to more than it passes on. */
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

    private final class Pass {
        private final Platform platform;
        private final Board board;
        private final List<DanglingReference> dangling = new ArrayList<>();
        private final Map<ShapeKey, BlockShape> shapes = new HashMap<>();
        private final Map<String, ElaboratedBlock> blocks = new LinkedHashMap<>();
        private final Map<String, Domain> domains = new LinkedHashMap<>();
        private final Set<String> domainNames = new HashSet<>();

        private Pass(Platform platform) {
            this.platform = platform;
            this.board = library.board(platform.board()).orElse(null);
        }

        private ElaboratedPlatform run() {
            if (board == null) {
                missing("platform", "board %s is not in the library".formatted(platform.board()));
            }
            platform.domains().forEach(domain -> domainNames.add(domain.name()));
            platform.blocks().forEach(this::resolveBlock);
            platform.domains().forEach(this::resolveDomain);
            Map<String, ElaboratedBus> buses = attach();
            return new ElaboratedPlatform(
                    platform,
                    library,
                    board,
                    board == null ? null : library.device(board.device()).orElse(null),
                    domains,
                    blocks,
                    buses,
                    spaces(buses),
                    streams(),
                    interrupts(),
                    outward(),
                    List.copyOf(dangling),
                    new WorkedOut());
        }

        private void missing(String subject, String what) {
            dangling.add(new DanglingReference(subject, what));
        }

        private void resolveDomain(ClockDomain domain) {
            Board.Clock clock = board == null ? null : board.clock(domain.clock()).orElse(null);
            Board.Reset reset =
                    board == null || domain.reset() == null
                            ? null
                            : board.reset(domain.reset()).orElse(null);
            long frequency =
                    clock == null ? madeHz(domain.clock(), new HashSet<>()) : clock.frequencyHz();
            boolean resetMade = reset != null || isResetMade(domain.reset());
            if (board != null && clock == null && output(domain.clock()) == null) {
                missing(
                        domain.name(),
                        "%s has no clock %s, and no block makes it"
                                .formatted(board.title(), domain.clock()));
            }
            if (board != null && domain.reset() != null && !resetMade) {
                missing(
                        domain.name(),
                        "%s has no reset %s, and no block makes it"
                                .formatted(board.title(), domain.reset()));
            }
            domains.put(domain.name(), new Domain(domain, clock, reset, frequency, resetMade));
        }

        private record Output(ElaboratedBlock block, ClockOutput output) {}

        /** The clock output of that name, {@code block.output}; null when there is none. */
        private Output output(String ref) {
            int dot = ref == null ? -1 : ref.indexOf('.');
            ElaboratedBlock block = dot < 0 ? null : blocks.get(ref.substring(0, dot));
            if (block == null) {
                return null;
            }
            return block.shape().clockOutputs().stream()
                    .filter(each -> each.name().equals(ref.substring(dot + 1)))
                    .findFirst()
                    .map(each -> new Output(block, each))
                    .orElse(null);
        }

        /** Frequency of a clock that a block makes; 0 when it is made from itself. */
        private long madeHz(String ref, Set<String> passed) {
            Output made = output(ref);
            if (made == null || !passed.add(ref)) {
                return 0;
            }
            String from = made.output().from();
            String input = from == null ? null : made.block().block().domains().get(from);
            long inputHz = 0;
            if (input != null) {
                String source = platform.domain(input).map(ClockDomain::clock).orElse(null);
                Board.Clock clock = board == null ? null : board.clock(source).orElse(null);
                inputHz = clock == null ? madeHz(source, passed) : clock.frequencyHz();
            }
            return made.block().shape().outputHz(made.output(), inputHz);
        }

        private boolean isResetMade(String ref) {
            int dot = ref == null ? -1 : ref.indexOf('.');
            ElaboratedBlock block = dot < 0 ? null : blocks.get(ref.substring(0, dot));
            return block != null
                    && block.type().resetOutputs().stream()
                            .anyMatch(each -> each.name().equals(ref.substring(dot + 1)));
        }

        private void resolveBlock(Block block) {
            Optional<BlockType> type = library.type(block.type());
            if (type.isEmpty()) {
                missing(block.name(), "the library has no block type %s".formatted(block.type()));
                return;
            }
            BlockShape shape =
                    shapes.computeIfAbsent(
                            new ShapeKey(type.get(), block.parameters()),
                            key -> new BlockShape(key.type(), key.parameters()));
            for (String parameter : block.parameters().keySet()) {
                if (!shape.parameters().containsKey(parameter)) {
                    missing(
                            block.name(),
                            "%s has no parameter %s".formatted(type.get().title(), parameter));
                }
            }
            block.domains()
                    .forEach(
                            (port, domain) -> {
                                if (!domainNames.contains(domain)) {
                                    missing(
                                            block.name(),
                                            "there is no clock domain %s".formatted(domain));
                                }
                            });
            blocks.put(block.name(), new ElaboratedBlock(block, shape));
        }

        private Map<String, ElaboratedBus> attach() {
            Map<String, Attached> attached = new LinkedHashMap<>();
            for (Bus bus : platform.buses()) {
                attached.put(bus.name(), new Attached(bus));
                if (bus.domain() != null && !domains.containsKey(bus.domain())) {
                    missing(bus.name(), "there is no clock domain %s".formatted(bus.domain()));
                }
            }
            for (ElaboratedBlock block : blocks.values()) {
                for (Map.Entry<String, Attachment> entry : block.block().attachments().entrySet()) {
                    Optional<SizedInterface> form = block.shape().busInterface(entry.getKey());
                    Attached bus = attached.get(entry.getValue().bus());
                    if (form.isEmpty() || !form.get().isForBus()) {
                        missing(
                                block.name(),
                                "there is no bus interface %s".formatted(entry.getKey()));
                    } else if (bus == null) {
                        missing(
                                block.name(),
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
                all.placed.sort(BY_ADDRESS);
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
            return buses;
        }

        private void attach(
                Attached bus, ElaboratedBlock block, SizedInterface form, Attachment at) {
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
                                    block.domain(form.type().clock())),
                            new Adapters.Side(
                                    List.of(bus.bus.protocol()),
                                    bus.bus.dataWidth(),
                                    bus.bus.domain()));
            if (!adapters.isEmpty()) {
                bus.adapters.put(new InterfaceRef(block.name(), form.name()), adapters);
            }
        }

        private List<AddressSpace> spaces(Map<String, ElaboratedBus> buses) {
            List<AddressSpace> spaces = new ArrayList<>();
            for (ElaboratedBus bus : buses.values()) {
                Flattening.Sight sight = Flattening.of(bus, buses);
                List<TargetRange> seen = sight.targets();
                Map<Reach, List<TargetRange>> parts = new EnumMap<>(Reach.class);
                for (InitiatorPort initiator : bus.initiators()) {
                    if (!initiator.isBehindBridge()) {
                        Reach reach = Reach.of(initiator.form());
                        spaces.add(
                                space(
                                        initiator,
                                        bus,
                                        parts.computeIfAbsent(reach, of -> of.part(seen)),
                                        sight.windows()));
                    }
                }
            }
            for (ElaboratedBlock block : blocks.values()) {
                for (SizedInterface form : block.shape().busInterfaces()) {
                    InitiatorPort initiator = new InitiatorPort(block, form);
                    if (!form.isTarget()
                            && !block.block().attachments().containsKey(form.name())
                            && initiator.seesInside()) {
                        spaces.add(space(initiator, null, List.of(), List.of()));
                    }
                }
            }
            return List.copyOf(spaces);
        }

        /** What sort of target an initiator is there for. */
        private enum Reach {
            EVERYTHING,
            MEMORY,
            EXECUTABLE;

            private static Reach of(SizedInterface form) {
                if (form.onlyFetches()) {
                    return EXECUTABLE;
                }
                return Boolean.TRUE.equals(form.type().memoryOnly()) ? MEMORY : EVERYTHING;
            }

            private List<TargetRange> part(List<TargetRange> seen) {
                return switch (this) {
                    case EVERYTHING -> seen;
                    case MEMORY -> seen.stream().filter(range -> range.form().isMemory()).toList();
                    case EXECUTABLE ->
                            seen.stream()
                                    .filter(range -> range.form().type().executable())
                                    .toList();
                };
            }
        }

        private AddressSpace space(
                InitiatorPort initiator,
                ElaboratedBus bus,
                List<TargetRange> onBus,
                List<SeenWindow> windows) {
            AddressRange own = AddressRange.ofWidth(initiator.form().addressWidth());
            List<TargetRange> seen = within(own, onBus);
            List<SeenWindow> shown =
                    windows.stream()
                            .map(each -> each.within(own))
                            .filter(Objects::nonNull)
                            .toList();
            if (initiator.form().place() != null) {
                shown =
                        shown.stream()
                                .filter(each -> initiator.form().place().contains(each.range()))
                                .toList();
                seen =
                        seen.stream()
                                .filter(target -> initiator.form().place().contains(target.range()))
                                .toList();
            }
            if (initiator.seesInside()) {
                seen = withInside(initiator, seen);
            }
            Attachment at = initiator.block().block().attachments().get(initiator.form().name());
            List<String> hides = at == null ? List.of() : at.hidden();
            if (hides.isEmpty()) {
                return new AddressSpace(initiator, bus, seen, List.of(), shown);
            }
            Map<Boolean, List<TargetRange>> parted =
                    seen.stream()
                            .collect(
                                    Collectors.partitioningBy(
                                            target -> hides.contains(target.ref().toString())));
            return new AddressSpace(initiator, bus, parted.get(false), parted.get(true), shown);
        }

        /** What an initiator can address of targets in address order; one that reaches beyond ends there for it. */
        private static List<TargetRange> within(AddressRange own, List<TargetRange> seen) {
            if (seen.isEmpty() || own.contains(AddressRange.ofWidth(64))) {
                return seen;
            }
            if (seen.stream().allMatch(target -> own.contains(target.range()))) {
                return seen;
            }
            return seen.stream()
                    .filter(target -> own.contains(target.range().base()))
                    .map(
                            target ->
                                    target.seenAt(
                                            target.range().part(own).orElseThrow(), target.via()))
                    .toList();
        }

        private static List<TargetRange> withInside(
                InitiatorPort initiator, List<TargetRange> seen) {
            List<TargetRange> all = new ArrayList<>(seen);
            for (SizedInterface form : initiator.block().shape().busInterfaces()) {
                if (initiator.form().name().equals(form.type().seenBy()) && form.place() != null) {
                    all.add(
                            new TargetRange(
                                    initiator.block(), form, form.place(), true, List.of()));
                }
            }
            all.sort(BY_ADDRESS);
            return List.copyOf(all);
        }

        private List<StreamLink> streams() {
            return StreamLinks.of(blocks, this::missing);
        }

        private List<InterruptLink> interrupts() {
            List<InterruptLink> links = new ArrayList<>();
            for (ElaboratedBlock block : blocks.values()) {
                for (SizedInterrupt port : block.shape().interrupts()) {
                    if (port.isSource()) {
                        links.add(link(block, port));
                    }
                }
            }
            return List.copyOf(links);
        }

        private InterruptLink link(ElaboratedBlock block, SizedInterrupt source) {
            InterruptWire wire = block.block().interrupts().get(source.name());
            if (wire == null) {
                return new InterruptLink(block, source, null, null, null);
            }
            ElaboratedBlock sinkBlock = blocks.get(wire.block());
            SizedInterrupt sink =
                    sinkBlock == null
                            ? null
                            : sinkBlock
                                    .shape()
                                    .interrupt(wire.sink())
                                    .filter(port -> !port.isSource())
                                    .orElse(null);
            if (sink == null) {
                missing(
                        block.name(),
                        "there is no interrupt input %s.%s".formatted(wire.block(), wire.sink()));
            }
            return new InterruptLink(block, source, wire, sinkBlock, sink);
        }

        private List<OutwardLink> outward() {
            List<OutwardLink> links = new ArrayList<>();
            for (ElaboratedBlock block : blocks.values()) {
                for (SizedOutward form : block.shape().outward()) {
                    Outward binding = block.block().outward().get(form.name());
                    Board.Part part = null;
                    if (binding != null && binding.part() != null && board != null) {
                        part = board.part(binding.part()).orElse(null);
                        if (part == null) {
                            missing(
                                    block.name(),
                                    "%s has no part %s".formatted(board.title(), binding.part()));
                        }
                    }
                    links.add(new OutwardLink(block, form, binding, part));
                }
            }
            return List.copyOf(links);
        }
    }
}
