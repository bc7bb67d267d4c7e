package polymetron.bench.hart;

/**
 * First-level caches of a hart.
 *
 * @param instructions null for none
 * @param data null for none
 */
public record Caches(InstructionCache instructions, DataCache data) {
    public static final Caches NONE = new Caches(null, null);
}
