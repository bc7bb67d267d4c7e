package polymetron.output.hardware;

/**
 * A signal of an interface.
 *
 * @param fromInitiator whether the initiator drives it
 * @param width how wide it is
 * @param isWrite whether only writes need it
 */
record Signal(String name, boolean fromInitiator, Width width, boolean isWrite) {
    /** How wide a signal is. */
    enum Width {
        ONE,
        TWO,
        THREE,
        EIGHT,
        ADDRESS,
        DATA,
        /** A bit for each byte of the data. */
        BYTES
    }

    boolean isHandshake() {
        return name.endsWith("valid") || name.endsWith("ready");
    }

    int bits(int addressBits, int dataBits) {
        return switch (width) {
            case ONE -> 1;
            case TWO -> 2;
            case THREE -> 3;
            case EIGHT -> 8;
            case ADDRESS -> addressBits;
            case DATA -> dataBits;
            case BYTES -> dataBits / 8;
        };
    }
}
