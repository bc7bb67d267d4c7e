package polymetron.library;

import java.util.List;
import polymetron.expression.Expression;

/**
 * Ports of a block that leave the chip together, to one part of the board.
 *
 * @param title what a person calls it
 * @param partKinds sorts of board part that it can drive
 * @param when whether the ports are there; null for always
 */
public record OutwardInterface(
        String name, String title, List<String> partKinds, Expression when, List<Port> ports) {

    /**
     * @param name name of the port, the same as the signal of the board part
     * @param direction an expression that gives {@code "in"}, {@code "out"} or {@code "both"}
     * @param width number of lines
     */
    public record Port(String name, Expression direction, Expression width) {}

    public OutwardInterface {
        partKinds = Lists.orEmpty(partKinds);
        ports = Lists.orEmpty(ports);
    }
}
