package polymetron.output.hardware;

/**
 * A bus interface at which a block that stands alone moves data by itself, as a program serves it: numbers of the harness's outputs and
 * inputs. A request stays as it is until the cycle in which the program says that it is done.
 *
 * @param dataBits bits of a word
 * @param request number of the output that says that there is a request; behind it come whether it is a write, the address, the
 *     value that is written, and which bytes of it count
 * @param done number of the input that says that it is done; behind it come what was read, and whether it has failed
 */
public record HarnessInitiator(String name, int dataBits, int request, int done) {
    public int write() {
        return request + 1;
    }

    public int address() {
        return request + 2;
    }

    public int value() {
        return request + 3;
    }

    public int bytes() {
        return request + 4;
    }

    public int answer() {
        return done + 1;
    }

    public int error() {
        return done + 2;
    }
}
