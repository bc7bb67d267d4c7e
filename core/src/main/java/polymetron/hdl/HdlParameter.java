package polymetron.hdl;

/**
 * A parameter of a module.
 *
 * @param value expression of its default; null where there is none
 * @param isLocal whether its value is fixed, as that of a localparam
 * @param least expression of the lowest value that its type has; null for one without
 * @param most likewise of the highest
 */
public record HdlParameter(
        String name,
        String value,
        boolean isLocal,
        String least,
        String most,
        int line,
        String comment) {}
