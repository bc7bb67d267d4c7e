package polymetron.elaborate;

import polymetron.library.InterruptPort;

/**
 * An interrupt port with its parameters worked out.
 *
 * @param first number of the first input of a sink
 * @param count number of inputs of a sink; 0 for a source
 */
public record SizedInterrupt(InterruptPort type, int first, int count) {
    public String name() {
        return type.name();
    }

    public boolean isSource() {
        return type.end() == InterruptPort.End.SOURCE;
    }

    public boolean hasInput(int input) {
        return input >= first && input < first + count;
    }
}
