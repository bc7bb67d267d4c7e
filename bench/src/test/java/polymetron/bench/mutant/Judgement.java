package polymetron.bench.mutant;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntPredicate;

/**
 * What tests notice of the changes of a block.
 *
 * @param tried changes in all
 * @param equivalent those that are proved to make no difference
 * @param survivors places of the others that nothing noticed
 */
public record Judgement(int tried, int equivalent, List<String> survivors) {
    /** Asks for one change after the other whether it is noticed, and for a proof where it is not. */
    public static Judgement of(Mutants mutants, IntPredicate isNoticed) {
        int equivalent = 0;
        List<String> survivors = new ArrayList<>();
        for (int number = 1; number <= mutants.count(); number++) {
            if (isNoticed.test(number)) {
                continue;
            }
            if (mutants.isEquivalent(number)) {
                equivalent++;
            } else {
                survivors.add(mutants.place(number));
            }
        }
        return new Judgement(mutants.count(), equivalent, survivors);
    }

    public int noticed() {
        return tried - equivalent - survivors.size();
    }

    /** Of those that make a difference. */
    public double part() {
        return tried == equivalent ? 1 : (double) noticed() / (tried - equivalent);
    }

    /** In words. */
    public String text(String block) {
        return "mutants of %s: %d of %d noticed, %d more make no difference%s"
                .formatted(
                        block,
                        noticed(),
                        tried - equivalent,
                        equivalent,
                        survivors.isEmpty() ? "" : "\n  " + String.join("\n  ", survivors));
    }
}
