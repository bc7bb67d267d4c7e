package polymetron.decode;

import java.util.ArrayList;
import java.util.List;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.TargetRange;

/**
 * The address decode that a bus needs for its targets. Decoded in full, a target answers within its range and nowhere else.
 * Decoded in part, only as many bits are compared as tell the targets from each other; a target then appears again
 * wherever the bits differ that are not compared.
 *
 * <p>Bits are left out one by one, the highest first, as long as no other target would answer as well. What stays cannot
 * lose any bit, though a smaller set may exist: the smallest is a covering problem.
 *
 * @param selects one for each placed target, in address order
 */
public record BusDecode(List<Select> selects) {

    /**
     * @param full comparisons for the range alone; several when it is no power of two
     * @param partial comparisons that tell it from the other targets; as many
     * @param aliases how often the target appears with partial decoding, 1 for once
     */
    public record Select(TargetRange target, List<Term> full, List<Term> partial, long aliases) {
        public int fullLookupTables() {
            return full.stream().mapToInt(Term::lookupTables).sum();
        }

        public int partialLookupTables() {
            return partial.stream().mapToInt(Term::lookupTables).sum();
        }
    }

    public static BusDecode of(ElaboratedBus bus) {
        int width = bus.bus().addressWidth();
        List<List<Term>> full =
                bus.placed().stream().map(target -> Term.covering(target.range(), width)).toList();
        List<Select> selects = new ArrayList<>();
        for (int at = 0; at < full.size(); at++) {
            List<Term> others = new ArrayList<>();
            for (int other = 0; other < full.size(); other++) {
                if (other != at) {
                    others.addAll(full.get(other));
                }
            }
            List<Term> partial = new ArrayList<>();
            long aliases = 1;
            for (Term term : full.get(at)) {
                Term less = reduce(term, others);
                partial.add(less);
                int dropped = Math.min(62, term.bits() - less.bits());
                aliases = Math.max(aliases, 1L << dropped);
            }
            selects.add(
                    new Select(bus.placed().get(at), full.get(at), List.copyOf(partial), aliases));
        }
        return new BusDecode(List.copyOf(selects));
    }

    /** Leaves out every bit without which the comparison still meets none of the others. */
    static Term reduce(Term term, List<Term> others) {
        if (others.stream().anyMatch(term::meets)) {
            // It overlaps another already; nothing can be left out safely.
            return term;
        }
        Term less = term;
        for (long bit = Long.highestOneBit(term.mask()); bit != 0; bit >>>= 1) {
            if ((less.mask() & bit) != 0) {
                Term shorter = less.without(bit);
                if (others.stream().noneMatch(shorter::meets)) {
                    less = shorter;
                }
            }
        }
        return less;
    }
}
