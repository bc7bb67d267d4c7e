package polymetron.finding;

import java.util.List;

/**
 * Something that the checks say.
 *
 * @param rule identity of the rule
 * @param subject what it was found at: a block, or {@code block.name} for one port or interface
 * @param what what is wrong, with the values that make it so
 * @param fixes ways to settle it, the most likely first
 * @param acceptedReason why the user accepts it; null when it is not accepted
 */
public record Finding(
        String rule,
        Grade grade,
        String subject,
        String what,
        String why,
        List<Fix> fixes,
        String acceptedReason) {

    public boolean isAccepted() {
        return acceptedReason != null;
    }

    /** Name of the block that the finding is about, or of the bus or domain. */
    public String subjectBlock() {
        int dot = subject.indexOf('.');
        return dot < 0 ? subject : subject.substring(0, dot);
    }

    Finding accepted(String reason) {
        return new Finding(rule, grade, subject, what, why, fixes, reason);
    }
}
