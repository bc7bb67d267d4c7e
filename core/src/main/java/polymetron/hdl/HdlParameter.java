package polymetron.hdl;

/**
 * A parameter of a module.
 *
 * @param value expression of its default; null where there is none
 * @param isLocal whether nobody can choose another value
 */
public record HdlParameter(String name, String value, boolean isLocal, int line, String comment) {}
