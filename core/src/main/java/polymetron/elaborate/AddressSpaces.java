package polymetron.elaborate;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import polymetron.address.AddressRange;
import polymetron.platform.Attachment;

/** What each attached initiator sees. */
final class AddressSpaces {
    private final Map<String, ElaboratedBlock> blocks;
    private final Map<String, ElaboratedBus> buses;

    private AddressSpaces(Map<String, ElaboratedBlock> blocks, Map<String, ElaboratedBus> buses) {
        this.blocks = blocks;
        this.buses = buses;
    }

    static List<AddressSpace> of(
            Map<String, ElaboratedBlock> blocks, Map<String, ElaboratedBus> buses) {
        return new AddressSpaces(blocks, buses).spaces();
    }

    private List<AddressSpace> spaces() {
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
                        seen.stream().filter(range -> range.form().type().executable()).toList();
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
                windows.stream().map(each -> each.within(own)).filter(Objects::nonNull).toList();
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
                .map(target -> target.seenAt(target.range().part(own).orElseThrow(), target.via()))
                .toList();
    }

    private static List<TargetRange> withInside(InitiatorPort initiator, List<TargetRange> seen) {
        List<TargetRange> all = new ArrayList<>(seen);
        for (SizedInterface form : initiator.block().shape().busInterfaces()) {
            if (initiator.form().name().equals(form.type().seenBy()) && form.place() != null) {
                all.add(new TargetRange(initiator.block(), form, form.place(), true, List.of()));
            }
        }
        all.sort(TargetRange.BY_ADDRESS);
        return List.copyOf(all);
    }
}
