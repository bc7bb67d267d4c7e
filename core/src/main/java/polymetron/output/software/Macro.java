package polymetron.output.software;

/**
 * A macro of the C header.
 *
 * @param name without arguments
 * @param arguments such as {@code (n)}; empty for none
 * @param block block that it belongs to; null for what belongs to the platform
 */
record Macro(String name, String arguments, String value, String block) {}
