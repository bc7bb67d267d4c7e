package polymetron.hdl;

/**
 * A parameter of a module.
 *
 * @param value expression of its default; null where there is none
 * @param isLocal whether its value is fixed, as that of a localparam
 */
public record HdlParameter(String name, String value, boolean isLocal, int line, String comment) {}
