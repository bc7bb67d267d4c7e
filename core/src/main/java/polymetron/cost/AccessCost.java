package polymetron.cost;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;

/**
 * What it costs an initiator to read from a target without other traffic on the way: the cycles of every bus that is
 * crossed, of arbitration where several initiators share a bus, of adapters, of bridges, and those that the target
 * takes. For what is built as hardware these are the cycles that a simulation of it measures: one number within a clock, and
 * from the fewest to the most where a clock is crossed.
 *
 * <p>A burst is one on AXI4 up to the first end that makes accesses of its beats: that of the target, of a bridge or of an adapter.
 * Each further transfer takes what is behind that end, at a target what it says of the following word; what the choice of whose turn it is and the answer take, a burst has
 * once. Where there are no bursts each transfer is a whole access.
 *
 * @param steps parts of the way, from the initiator on
 * @param single cycles of the initiator's bus for a single read
 * @param write the same for a write: of a word of 32 bits, and where the initiator moves data, of all its bits
 * @param answer those of them that come after the target did what was asked: it reads or stores in the cycle before
 * @param worst a single access while all other initiators keep their ways as busy as they can; without an end where they go
 *     first
 * @param next a read that is a further transfer of a burst
 * @param nextWrite the same of a write
 * @param onceCycles cycles of a single access that a burst has once
 * @param burst transfers of the initiator's longest burst; 1 where it has none
 * @param onBuses cycles for which a single read keeps each bus of the way busy, in that bus's clock, by its name
 */
public record AccessCost(
        List<Step> steps,
        Span single,
        Span write,
        Span answer,
        Span worst,
        Span next,
        Span nextWrite,
        long onceCycles,
        int burst,
        Map<String, Span> onBuses) {
    public AccessCost {
        steps = List.copyOf(steps);
        onBuses = Collections.unmodifiableMap(new LinkedHashMap<>(onBuses));
    }

    /**
     * A part of the way.
     *
     * @param cycles cycles of the clock that it runs on
     * @param clockHz that clock; 0 when it is not known
     */
    public record Step(String what, Span cycles, long clockHz) {}

    /** Fewest cycles of a single read. */
    public long leastCycles() {
        return single.leastCycles();
    }

    /** Most cycles of a single read, without other traffic on the way. */
    public long cycles() {
        return single.mostCycles();
    }

    /** Most cycles of a single access with the traffic of everybody; empty where there is no limit. */
    public OptionalLong worstCycles() {
        return Double.isInfinite(worst.most())
                ? OptionalLong.empty()
                : OptionalLong.of(worst.mostCycles());
    }

    /** Most cycles of each further transfer of a burst. */
    public long nextCycles() {
        return next.mostCycles();
    }

    /** Cycles of the longest burst, from the request to the last transfer. */
    public long burstCycles() {
        return cycles() + (burst - 1) * nextCycles();
    }

    /**
     * @param target a target that the initiator sees
     */
    public static AccessCost of(
            ElaboratedPlatform platform, AddressSpace space, TargetRange target) {
        return new AccessWay(platform, platform.result(BusWaits.PASS)).to(space, target);
    }

    /** The same where there is nothing: until the bus has answered with an error. */
    public static AccessCost ofNothing(ElaboratedPlatform platform, AddressSpace space) {
        return new AccessWay(platform, platform.result(BusWaits.PASS)).toNowhere(space);
    }
}
