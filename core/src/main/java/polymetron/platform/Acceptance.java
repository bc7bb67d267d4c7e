package polymetron.platform;

/**
 * A finding that the user accepts.
 *
 * @param rule identity of the rule
 * @param subject what it was found at
 * @param what its words when it was accepted: when they change, the finding comes back
 * @param reason why it is accepted
 * @param author who accepted it, as they call themselves; null when not specified
 * @param revision revision that it was accepted on; null when there are none, as for a document on its own
 */
public record Acceptance(
        String rule, String subject, String what, String reason, String author, Long revision) {
    public boolean isFor(String otherRule, String otherSubject, String otherWhat) {
        return rule.equals(otherRule) && subject.equals(otherSubject) && what.equals(otherWhat);
    }
}
