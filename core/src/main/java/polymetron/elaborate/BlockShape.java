package polymetron.elaborate;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import polymetron.address.AddressRange;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.Value;
import polymetron.library.BlockType;
import polymetron.library.BridgeType;
import polymetron.library.BusInterfaceType;
import polymetron.library.Capability;
import polymetron.library.ClockOutput;
import polymetron.library.Direction;
import polymetron.library.FieldType;
import polymetron.library.InterruptPort;
import polymetron.library.MemoryType;
import polymetron.library.OutwardInterface;
import polymetron.library.ParameterFault;
import polymetron.library.ParameterValues;
import polymetron.library.RegisterType;
import polymetron.library.Resources;
import polymetron.library.Role;
import polymetron.library.StreamType;

/**
 * A block type with given parameters: everything about a block that does not depend on its surroundings. Equal
 * types with equal parameters share one shape within an elaboration.
 */
public final class BlockShape {
    private static final long LARGEST_COUNT = 1 << 20;

    private final BlockType type;
    private final Map<String, Value> parameters;
    private final List<ParameterFault> faults;
    private final List<SizedInterface> busInterfaces;
    private final boolean hasSeveralTargets;
    private final List<SizedStream> streams;
    private final List<SizedInterrupt> interrupts;
    private final List<SizedOutward> outward;
    private final List<Register> registers;
    private final Map<String, List<Register>> registersByTarget;
    private final List<SizedMemory> memories;
    private final SizedResources resources;
    private final Bridge bridge;

    /** Works out a block type; what has no value is noted as a fault and replaced by its default. */
    public BlockShape(BlockType type, Map<String, String> chosen) {
        this.type = type;
        ParameterValues.Outcome outcome = ParameterValues.of(type, chosen);
        this.parameters = Ordered.copyOf(outcome.values());
        this.faults = List.copyOf(outcome.faults());
        this.busInterfaces = sizeInterfaces();
        this.hasSeveralTargets =
                busInterfaces.stream().filter(SizedInterface::isTarget).count() > 1;
        this.streams = sizeStreams();
        this.interrupts = sizeInterrupts();
        this.outward = sizeOutward();
        this.registers = sizeRegisters();
        this.registersByTarget = registersByTarget();
        this.memories = sizeMemories();
        this.resources = sizeResources();
        this.bridge = type.bridge() == null ? null : sizeBridge(type.bridge());
    }

    public BlockType type() {
        return type;
    }

    /** Value of each parameter. */
    public Map<String, Value> parameters() {
        return parameters;
    }

    public List<ParameterFault> faults() {
        return faults;
    }

    public List<SizedInterface> busInterfaces() {
        return busInterfaces;
    }

    /** Whether it takes more than its block's name to say which target is meant. */
    public boolean hasSeveralTargets() {
        return hasSeveralTargets;
    }

    public List<SizedStream> streams() {
        return streams;
    }

    public List<SizedInterrupt> interrupts() {
        return interrupts;
    }

    public List<SizedOutward> outward() {
        return outward;
    }

    public List<Register> registers() {
        return registers;
    }

    /** What the block needs of a device; all 0 when its type does not say. */
    public SizedResources resources() {
        return resources;
    }

    private SizedResources sizeResources() {
        Resources needs = type.resources();
        return needs == null
                ? SizedResources.NONE
                : new SizedResources(
                        number(needs.lookupTables(), 0),
                        number(needs.flipFlops(), 0),
                        number(needs.multipliers(), 0),
                        number(needs.plls(), 0));
    }

    public List<SizedMemory> memories() {
        return memories;
    }

    /** Bits of all memories inside. */
    public long memoryBits() {
        return memories.stream().mapToLong(SizedMemory::bits).sum();
    }

    private List<SizedMemory> sizeMemories() {
        List<SizedMemory> sized = new ArrayList<>();
        for (MemoryType form : type.memories()) {
            if (present(form.when())) {
                sized.add(
                        new SizedMemory(
                                form,
                                number(form.depth(), 0),
                                (int) number(form.width(), 0),
                                (int) number(form.ports(), 1),
                                number(form.byteEnables(), 0) != 0));
            }
        }
        return List.copyOf(sized);
    }

    /** What leads where, for a bridge; null for anything else. */
    public Bridge bridge() {
        return bridge;
    }

    private Bridge sizeBridge(BridgeType form) {
        long size = busInterface(form.upstream()).map(SizedInterface::sizeBytes).orElse(0L);
        AddressRange window = size == 0 ? null : AddressRange.of(number(form.origin(), 0), size);
        return new Bridge(form.upstream(), form.downstream(), window);
    }

    public Optional<SizedInterface> busInterface(String name) {
        return busInterfaces.stream().filter(form -> form.name().equals(name)).findFirst();
    }

    public Optional<SizedStream> stream(String name) {
        return streams.stream().filter(form -> form.name().equals(name)).findFirst();
    }

    public Optional<SizedInterrupt> interrupt(String name) {
        return interrupts.stream().filter(port -> port.name().equals(name)).findFirst();
    }

    public Optional<SizedOutward> outward(String name) {
        return outward.stream().filter(form -> form.name().equals(name)).findFirst();
    }

    /**
     * The number that a formula of the block type gives, or the alternative where there is no formula.
     *
     * @throws ExpressionException when the definition's formula is wrong
     */
    public long number(Expression formula, long otherwise) {
        return formula == null ? otherwise : formula.evaluate(parameters).asNumber().longValue();
    }

    /** The number of a parameter. */
    public long number(String parameter) {
        Value value = parameters.get(parameter);
        if (value == null) {
            throw new IllegalArgumentException(type.identity() + " has no parameter " + parameter);
        }
        return value.asNumber().longValue();
    }

    /** Whether what a condition of the block type decides on is there; null for always. */
    public boolean isPresent(Expression when) {
        return present(when);
    }

    private boolean present(Expression when) {
        return when == null || when.evaluate(parameters).isTrue();
    }

    private List<SizedInterface> sizeInterfaces() {
        List<SizedInterface> sized = new ArrayList<>();
        for (BusInterfaceType form : type.busInterfaces()) {
            if (present(form.when())) {
                boolean isMemory = form.usage() == BusInterfaceType.Usage.MEMORY;
                long waits = number(form.waits(), isMemory ? 1 : 0);
                sized.add(
                        new SizedInterface(
                                form,
                                number(form.size(), 0),
                                present(form.writable()),
                                (int) number(form.dataWidth(), 0),
                                Math.clamp(number(form.addressWidth(), 64), 1, 64),
                                Math.max(1, (int) number(form.burst(), 1)),
                                waits,
                                number(form.nextWaits(), waits),
                                form.role() == Role.INITIATOR
                                        && form.executable()
                                        && !movesData(form),
                                place(form)));
            }
        }
        return List.copyOf(sized);
    }

    /** Whether it is the data side of a hart, which may be its instruction side as well. */
    private boolean movesData(BusInterfaceType form) {
        return type.provides(Capability.Hart.class).stream()
                .anyMatch(hart -> hart.data().equals(form.name()));
    }

    private AddressRange place(BusInterfaceType form) {
        if (form.window() != null) {
            return sized(number(form.window().base(), 0), number(form.window().size(), 0));
        }
        return form.base() == null ? null : sized(number(form.base(), 0), number(form.size(), 0));
    }

    private static AddressRange sized(long base, long size) {
        return size == 0 ? null : AddressRange.of(base, size);
    }

    /** The registers behind one of the targets. */
    public List<Register> registersOf(String busInterface) {
        return registersByTarget.getOrDefault(busInterface, List.of());
    }

    private Map<String, List<Register>> registersByTarget() {
        String usual =
                busInterfaces.stream()
                        .filter(form -> form.isTarget() && !form.isMemory())
                        .map(SizedInterface::name)
                        .findFirst()
                        .orElse("");
        return registers.stream()
                .collect(
                        Collectors.groupingBy(
                                register ->
                                        register.type().target() == null
                                                ? usual
                                                : register.type().target(),
                                Collectors.toUnmodifiableList()));
    }

    /** Frequency in hertz of a clock that the block makes; 0 when its input has none. */
    public long outputHz(ClockOutput output, long inputHz) {
        if (output.from() == null) {
            return number(output.multiply(), 0);
        }
        long divide = number(output.divide(), 1);
        return divide == 0
                ? 0
                : Math.round((double) inputHz * number(output.multiply(), 1) / divide);
    }

    /** The clocks that the block makes with its parameters. */
    public List<ClockOutput> clockOutputs() {
        return type.clockOutputs().stream().filter(output -> present(output.when())).toList();
    }

    private List<SizedStream> sizeStreams() {
        List<SizedStream> sized = new ArrayList<>();
        for (StreamType form : type.streams()) {
            if (present(form.when())) {
                StreamTraits traits =
                        new StreamTraits(
                                number(form.packets(), 0) != 0,
                                number(form.byteLanes(), 0) != 0,
                                (int) number(form.sampleWidth(), 0));
                sized.add(new SizedStream(form, (int) number(form.dataWidth(), 0), traits));
            }
        }
        return List.copyOf(sized);
    }

    private List<SizedInterrupt> sizeInterrupts() {
        List<SizedInterrupt> sized = new ArrayList<>();
        for (InterruptPort port : type.interrupts()) {
            if (present(port.when())) {
                int count =
                        port.end() == InterruptPort.End.SINK ? (int) number(port.count(), 1) : 0;
                sized.add(new SizedInterrupt(port, (int) number(port.first(), 0), count));
            }
        }
        return List.copyOf(sized);
    }

    private List<SizedOutward> sizeOutward() {
        List<SizedOutward> sized = new ArrayList<>();
        for (OutwardInterface form : type.outward()) {
            if (!present(form.when())) {
                continue;
            }
            List<SizedPort> ports = new ArrayList<>();
            for (OutwardInterface.Port port : form.ports()) {
                ports.add(
                        new SizedPort(
                                port.name(),
                                direction(port.direction().evaluate(parameters)),
                                (int) number(port.width(), 1)));
            }
            sized.add(new SizedOutward(form, List.copyOf(ports)));
        }
        return List.copyOf(sized);
    }

    private static Direction direction(Value value) {
        for (Direction direction : Direction.values()) {
            if (direction.toString().equals(value.toString())) {
                return direction;
            }
        }
        throw new ExpressionException(
                "'%s' is not a direction; in, out and both are".formatted(value));
    }

    private List<Register> sizeRegisters() {
        List<Register> sized = new ArrayList<>();
        for (RegisterType register : type.registers()) {
            if (present(register.when())) {
                long count = Math.clamp(number(register.count(), 1), 1, LARGEST_COUNT);
                sized.add(
                        new Register(
                                register,
                                number(register.offset(), 0),
                                register.width() == null ? 32 : register.width(),
                                (int) count,
                                sizeFields(register)));
            }
        }
        return List.copyOf(sized);
    }

    private List<Field> sizeFields(RegisterType register) {
        List<Field> sized = new ArrayList<>();
        for (FieldType field : register.fields()) {
            if (present(field.when())) {
                sized.add(
                        new Field(
                                field,
                                (int) number(field.lowBit(), 0),
                                Math.clamp(number(field.width(), 1), 1, Long.SIZE),
                                parameters));
            }
        }
        return List.copyOf(sized);
    }
}
