package polymetron.platform;

/**
 * What the pins of a port are set to electrically. What is null is as the board part or the device has it.
 *
 * @param standard I/O standard
 * @param drive current of an output in mA
 * @param slew how steep the edges of an output are
 * @param pull what holds a line that is not driven
 * @param termination resistor that ends the line in the device
 */
public record PinSetting(
        String standard, Integer drive, Slew slew, Pull pull, Termination termination) {
    public static final PinSetting USUAL = new PinSetting(null, null, null, null, null);

    /** Steepness of edges. */
    public enum Slew {
        SLOW("slow"),
        FAST("fast");

        private final String word;

        Slew(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    /** A weak resistor, or what keeps the last level. */
    public enum Pull {
        NONE("none"),
        UP("up"),
        DOWN("down"),
        KEEPER("keeper");

        private final String word;

        Pull(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    /** Where the line is ended, and against what. */
    public enum Termination {
        NONE("none"),
        SERIES("series"),
        PARALLEL("parallel"),
        DIFFERENTIAL("differential");

        private final String word;

        Termination(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }
}
