package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;

/** One check of a platform. */
public interface Rule {
    /** Identity, stable: acceptances refer to it. */
    String id();

    Grade grade();

    /** What the rule looks for, as a heading. */
    String title();

    /** Why it matters: what would go wrong later. */
    String explanation();

    /** Looks at a platform and reports each place where the rule does not hold. */
    void check(ElaboratedPlatform platform, Consumer<Finding> report);

    /** Looks once more when every rule has looked; for what depends on what they found. */
    default void conclude(
            ElaboratedPlatform platform, List<Finding> found, Consumer<Finding> report) {}

    /** A finding of this rule. */
    default Finding finding(Object subject, String what, List<Fix> fixes) {
        return new Finding(
                id(), grade(), subject.toString(), what, explanation(), fixes, null, null);
    }
}
