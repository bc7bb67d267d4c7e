package polymetron.platform;

/**
 * A finding that the user accepts.
 *
 * @param rule identity of the rule
 * @param subject what it was found at
 * @param what its words when it was accepted: when they change, the finding comes back
 * @param reason why it is accepted
 */
public record Acceptance(String rule, String subject, String what, String reason) {
    public boolean isFor(String otherRule, String otherSubject, String otherWhat) {
        return rule.equals(otherRule) && subject.equals(otherSubject) && what.equals(otherWhat);
    }
}
