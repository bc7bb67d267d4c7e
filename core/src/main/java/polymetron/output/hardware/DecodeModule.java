package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.address.AddressRange;
import polymetron.decode.Term;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.TargetRange;
import polymetron.verilog.Expression;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/**
 * Which target of a bus an address leads to, for each initiator: the one place where addresses are. An initiator gets to the
 * targets that it sees, and to no others. Into the window of a bridge it gets as a whole, or where something behind it is
 * hidden, to what it sees behind it.
 */
final class DecodeModule {
    private DecodeModule() {}

    /**
     * @param initiators in the order of the lines of the port {@code initiator}
     */
    static Module of(
            ElaboratedPlatform platform,
            ElaboratedBus bus,
            List<InitiatorPort> initiators,
            int addressBits,
            String name) {
        Module decode = new Module(name);
        Net address = decode.input("address", addressBits);
        Net initiator = decode.input("initiator", initiators.size());
        Net target = decode.output("target", lines(bus));
        List<Expression> selects = new ArrayList<>();
        for (TargetRange each : bus.placed().reversed()) {
            Map<List<AddressRange>, List<Integer>> groups = new LinkedHashMap<>();
            for (int at = 0; at < initiators.size(); at++) {
                List<AddressRange> ranges = visible(platform, initiators.get(at), each);
                if (!ranges.isEmpty()) {
                    groups.computeIfAbsent(ranges, key -> new ArrayList<>()).add(at);
                }
            }
            Expression select = null;
            for (Map.Entry<List<AddressRange>, List<Integer>> group : groups.entrySet()) {
                Expression one = inRanges(address, group.getKey());
                if (group.getValue().size() < initiators.size()) {
                    Expression who = null;
                    for (int at : group.getValue()) {
                        who = who == null ? initiator.bit(at) : who.or(initiator.bit(at));
                    }
                    one = one.and(who);
                }
                select = select == null ? one : select.or(one);
            }
            selects.add(
                    decode.wire(
                                    "selects_" + each.block().name() + "_" + each.form().name(),
                                    select == null ? Expression.constant(1, 0) : select)
                            .read());
        }
        if (selects.isEmpty()) {
            selects.add(Expression.constant(1, 0));
        }
        decode.assign(target, Expression.concat(selects.toArray(Expression[]::new)));
        // Lower bits count within a range, and some targets are for every initiator.
        decode.unused("inputs", List.of(address.read(), initiator.read()));
        return decode;
    }

    /** Lines that select a target: a bus without any has one, which never does. */
    static int lines(ElaboratedBus bus) {
        return Math.max(1, bus.placed().size());
    }

    /** The addresses at which an initiator gets to a target of its bus. */
    static List<AddressRange> visible(
            ElaboratedPlatform platform, InitiatorPort initiator, TargetRange target) {
        if (initiator.isBehindBridge()) {
            AddressRange window = initiator.block().shape().bridge().window();
            boolean isSeen =
                    window == null
                            || window.contains(target.range().base())
                            || target.isWindow() && window.overlaps(target.range());
            return isSeen ? List.of(target.range()) : List.of();
        }
        AddressSpace space = platform.space(initiator.ref()).orElse(null);
        if (space == null) {
            return List.of();
        }
        if (!target.isWindow()) {
            return space.ranges().stream()
                    .filter(seen -> seen.ref().equals(target.ref()))
                    .map(TargetRange::range)
                    .toList();
        }
        String bridge = target.block().name();
        boolean isWhole =
                !initiator.fetches()
                        && !Boolean.TRUE.equals(initiator.form().type().memoryOnly())
                        && space.hidden().stream().noneMatch(seen -> leadsThrough(seen, bridge))
                        && space.windows().stream()
                                .anyMatch(seen -> seen.range().equals(target.range()));
        return isWhole
                ? List.of(target.range())
                : space.ranges().stream()
                        .filter(seen -> leadsThrough(seen, bridge))
                        .map(TargetRange::range)
                        .toList();
    }

    private static boolean leadsThrough(TargetRange seen, String bridge) {
        return !seen.via().isEmpty() && seen.via().getFirst().equals(bridge);
    }

    private static Expression inRanges(Net address, List<AddressRange> ranges) {
        Expression all = null;
        int addressBits = address.bits();
        for (AddressRange range : ranges) {
            for (Term term : Term.covering(range, addressBits)) {
                int low = Long.numberOfTrailingZeros(term.mask());
                Expression one =
                        low >= addressBits
                                ? Expression.constant(1, 1)
                                : address.bits(addressBits - 1, low)
                                        .is(
                                                Expression.constant(
                                                        addressBits - low, term.value() >>> low));
                all = all == null ? one : all.or(one);
            }
        }
        return all;
    }

    /** Address bits that a decode compares: those of the bus, and of an initiator that has more. */
    static int addressBits(
            ElaboratedPlatform platform, ElaboratedBus bus, List<InitiatorPort> initiators) {
        return Math.max(
                bus.bus().addressWidth(),
                initiators.stream()
                        .mapToInt(
                                each ->
                                        Interface.of(platform, each.block(), each.form())
                                                .addressBits())
                        .max()
                        .orElse(0));
    }
}
