package polymetron.finding;

import java.util.List;
import polymetron.platform.Acceptance;

/**
 * Something that the checks say.
 *
 * @param rule identity of the rule
 * @param subject what it was found at: a block, or {@code block.name} for one port or interface
 * @param what what is wrong, with the values that make it so
 * @param fixes ways to settle it, the most likely first
 * @param cause what it follows from together with others, in words; null when it stands for itself
 * @param acceptance why, by whom and when it was accepted; null when it is not
 */
public record Finding(
        String rule,
        Grade grade,
        String subject,
        String what,
        String why,
        List<Fix> fixes,
        String cause,
        Acceptance acceptance) {

    public boolean isAccepted() {
        return acceptance != null;
    }

    /** Why the user accepts it; null when it is not accepted. */
    public String acceptedReason() {
        return acceptance == null ? null : acceptance.reason();
    }

    /** The same finding that follows, together with others, from something. */
    Finding because(String reason) {
        return new Finding(rule, grade, subject, what, why, fixes, reason, acceptance);
    }

    /** Name of the block that the finding is about, or of the bus or domain. */
    public String subjectBlock() {
        int dot = subject.indexOf('.');
        return dot < 0 ? subject : subject.substring(0, dot);
    }

    Finding accepted(Acceptance by) {
        return new Finding(rule, grade, subject, what, why, fixes, cause, by);
    }
}
