package polymetron.fit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import polymetron.board.PinUse;
import polymetron.bus.Adapter;
import polymetron.bus.Adapters;
import polymetron.bus.BusEndSize;
import polymetron.bus.Protocol;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.Pass;
import polymetron.elaborate.SizedResources;
import polymetron.elaborate.TargetRange;
import polymetron.library.Device;

/**
 * Whether a platform fits its device, and what needs how much of it.
 *
 * @param device the board's device
 * @param memory memories on memory blocks
 * @param amounts everything else, lookup tables first
 */
public record DeviceFit(Device device, MemoryFit memory, List<Amount> amounts) {
    /** The fit of a platform whose device is known. */
    public static final Pass<DeviceFit> PASS =
            Pass.named("device fit", platform -> new Counter(platform).fit());

    /** How far the estimates of logic may be off: they come from formulas, not from synthesis. */
    public static final int LOGIC_UNCERTAINTY = 25;

    /** Inputs of the lookup tables that definitions count; carry chains are not counted on. */
    public static final int COUNTED_INPUTS = 6;

    /**
     * Lookup tables of fewer inputs for 100 of those: generic synthesis makes 130 of four inputs from the processors, devices
     * and buses of the library together.
     */
    public static final int SMALLER_TABLES = 130;

    /** Empty when the board or its device is not there. */
    public static Optional<DeviceFit> of(ElaboratedPlatform platform) {
        if (platform.device() == null) {
            return Optional.empty();
        }
        return Optional.of(platform.result(PASS));
    }

    public boolean fits() {
        return memory.fits() && amounts.stream().allMatch(Amount::fits);
    }

    public Amount amount(String name) {
        return amounts.stream().filter(each -> each.name().equals(name)).findFirst().orElseThrow();
    }

    /** The smallest other device of the family, by lookup tables, that everything fits; empty when none does. */
    public Optional<Device> bigger(ElaboratedPlatform platform) {
        return platform.library().devices().stream()
                .filter(other -> other.family().equals(device.family()))
                .filter(other -> !other.name().equals(device.name()))
                .sorted(Comparator.comparingLong(Device::lookupTables).thenComparing(Device::name))
                .filter(other -> on(platform, other).fits())
                .findFirst();
    }

    private static DeviceFit on(ElaboratedPlatform platform, Device other) {
        return of(platform.on(other)).orElseThrow();
    }

    private static final class Counter {
        private final ElaboratedPlatform platform;
        private final Device device;
        private final MemoryFit memory;

        private Counter(ElaboratedPlatform platform) {
            this.platform = platform;
            this.device = platform.device();
            this.memory = MemoryFit.of(platform);
        }

        private DeviceFit fit() {
            List<Amount.Share> tables = new ArrayList<>();
            List<Amount.Share> flipFlops = new ArrayList<>();
            List<Amount.Share> multipliers = new ArrayList<>();
            List<Amount.Share> plls = new ArrayList<>();
            for (ElaboratedBlock block : platform.blocks()) {
                SizedResources needs = block.shape().resources();
                add(tables, block.name(), block.name(), needs.lookupTables());
                add(flipFlops, block.name(), block.name(), needs.flipFlops());
                add(multipliers, block.name(), block.name(), needs.multipliers());
                add(plls, block.name(), block.name(), needs.plls());
            }
            for (ElaboratedBus bus : platform.buses()) {
                for (TargetRange target : bus.placed()) {
                    ends(bus, target, tables, flipFlops);
                }
                InterconnectEstimate estimate = new InterconnectEstimate(bus);
                add(tables, "bus " + bus.name(), null, estimate.lookupTables());
                add(flipFlops, "bus " + bus.name(), null, estimate.flipFlops());
                bus.adapters()
                        .forEach(
                                (ref, adapters) -> {
                                    String who = "adapters of " + ref;
                                    add(tables, who, ref.block(), sum(adapters, true));
                                    add(flipFlops, who, ref.block(), sum(adapters, false));
                                });
            }
            if (device.logic().inputs() < COUNTED_INPUTS) {
                tables.replaceAll(
                        each ->
                                new Amount.Share(
                                        each.who(),
                                        each.block(),
                                        each.count() * SMALLER_TABLES / 100));
            }
            // Memories of lookup tables are counted in those of the device.
            for (MemoryUse use : memory.uses()) {
                add(tables, "memory " + use.label(), use.block(), use.lookupTables());
            }
            List<Amount> amounts =
                    List.of(
                            amount("lookup tables", device.lookupTables(), true, tables),
                            amount("flip-flops", device.flipFlops(), true, flipFlops),
                            amount("multipliers", device.multipliers(), false, multipliers),
                            amount(
                                    "PLLs",
                                    device.plls() == null ? 0 : device.plls().count(),
                                    false,
                                    plls),
                            amount("clock networks", device.clockNetworks(), false, clocks()),
                            amount("pins", device.pins(), false, pins()));
            return new DeviceFit(device, memory, amounts);
        }

        private static void add(List<Amount.Share> shares, String who, String block, long count) {
            if (count > 0) {
                shares.add(new Amount.Share(who, block, count));
            }
        }

        /** Blocks are estimated with the end of AXI4-Lite; where they speak another protocol themselves, its end is larger. */
        private static void ends(
                ElaboratedBus bus,
                TargetRange target,
                List<Amount.Share> tables,
                List<Amount.Share> flipFlops) {
            Protocol own = Adapters.spoken(target.form().type().protocols(), bus.bus().protocol());
            BusEndSize more = BusEndSize.beyondLite(own, target.form().addressBits());
            String block = target.block().name();
            add(tables, block, block, more.lookupTables());
            add(flipFlops, block, block, more.flipFlops());
        }

        private static long sum(List<Adapter> adapters, boolean tables) {
            return adapters.stream()
                    .mapToLong(each -> tables ? each.lookupTables() : each.flipFlops())
                    .sum();
        }

        private static Amount amount(
                String name, long available, boolean estimated, List<Amount.Share> shares) {
            return new Amount(
                    name, available, estimated ? LOGIC_UNCERTAINTY : 0, List.copyOf(shares));
        }

        /** One network for each clock, however many domains it has. */
        private List<Amount.Share> clocks() {
            List<Amount.Share> shares = new ArrayList<>();
            Set<String> sources = new HashSet<>();
            platform.domains()
                    .forEach(
                            domain -> {
                                if (domain.frequencyHz() > 0
                                        && sources.add(domain.domain().clock())) {
                                    shares.add(new Amount.Share(domain.domain().clock(), null, 1));
                                }
                            });
            return shares;
        }

        private List<Amount.Share> pins() {
            Map<Object, Set<String>> pins = new LinkedHashMap<>();
            for (PinUse use : PinUse.of(platform)) {
                pins.computeIfAbsent(use.subject(), subject -> new HashSet<>()).add(use.pin());
            }
            List<Amount.Share> shares = new ArrayList<>();
            pins.forEach(
                    (subject, taken) ->
                            shares.add(
                                    new Amount.Share(
                                            subject.toString(),
                                            subject instanceof InterfaceRef ref
                                                    ? ref.block()
                                                    : null,
                                            taken.size())));
            return shares;
        }
    }
}
