package polymetron.library;

/**
 * A reset that a block makes.
 *
 * @param clock clock input that its release is synchronous to; null for none
 */
public record ResetOutput(String name, String clock) {}
