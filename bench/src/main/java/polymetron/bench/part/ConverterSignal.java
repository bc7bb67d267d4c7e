package polymetron.bench.part;

/**
 * What a converter measures, sample after sample, as signed numbers of so many bits. It follows from the shape, the number of the
 * sample and a seed, so that a run can be repeated.
 */
public final class ConverterSignal {
    /** The shapes that there are. */
    public enum Shape {
        /** A recording, over and over: the same as in simulation. */
        RECORDED("recording"),
        /** Noise only. */
        QUIET("quiet"),
        /** Ground that shakes from now on and comes to rest. */
        GROUND("ground motion"),
        SINE("sine"),
        /** Three sines of different periods. */
        SUM("sum of sines"),
        NOISE("noise"),
        CONSTANT("constant"),
        /** Samples of a table, over and over; there once a table was read. */
        TABLE("table"),
        /** What something around the board gives. */
        FOLLOWS("surroundings");

        private final String word;

        Shape(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    private static final double FULL_SCALE = 0.5;
    private static final double CONSTANT_LEVEL = 0.25;
    private static final double PERIOD = 90.0;
    private static final double DECAY = 900.0;

    /** Samples by which each channel comes later than the one before. */
    private static final int DELAY = 40;

    private static final double NOISE = 0.0005;

    /** A linear congruential generator with Knuth's constants (from memory). */
    private static final long FACTOR = 6_364_136_223_846_793_005L;

    private static final long ADDED = 1_442_695_040_888_963_407L;

    private static final double LOUD = 0.2;
    private static final double THIRD = 1.0 / 3;
    private static final double SLOWER = 7;
    private static final double FASTER = 0.37;

    private final int[][] recording;
    private final int bits;
    private int[][] table;
    private double[] followed = {};
    private Shape shape = Shape.RECORDED;
    private long samples;
    private long since;
    private long noise;

    /**
     * @param recording by time and channel
     */
    public ConverterSignal(int[][] recording, int bits) {
        this.recording = recording;
        this.bits = bits;
        reset();
    }

    /** Begins a shape with the next sample. */
    public void set(Shape next) {
        shape = next;
        since = samples;
    }

    /**
     * Begins samples of one's own with the next sample.
     *
     * @param samples by time and channel, at least one
     */
    public void set(int[][] samples) {
        table = samples;
        set(Shape.TABLE);
    }

    /**
     * What the next samples are where the signal follows what is around the board.
     *
     * @param levels of each channel, parts of the full scale
     */
    public void follow(double[] levels) {
        followed = levels.clone();
    }

    /** Whether samples of one's own were given. */
    public boolean hasTable() {
        return table != null;
    }

    /** Bits of a sample, with its sign. */
    public int bits() {
        return bits;
    }

    public Shape shape() {
        return shape;
    }

    /** Back to the first sample; the shape stays, and begins again. */
    public void reset() {
        samples = 0;
        since = 0;
        noise = 1;
        followed = new double[] {};
    }

    public int channels() {
        return recording[0].length;
    }

    /** One sample of each channel. */
    public int[] next() {
        int[] row = new int[channels()];
        for (int channel = 0; channel < row.length; channel++) {
            row[channel] =
                    switch (shape) {
                        case RECORDED -> recording[(int) (samples % recording.length)][channel];
                        case FOLLOWS -> scaled(channel < followed.length ? followed[channel] : 0);
                        case TABLE -> table[(int) ((samples - since) % table.length)][channel];
                        default -> scaled(level(channel) + hiss());
                    };
        }
        samples++;
        return row;
    }

    private double level(int channel) {
        double time = Math.max(0, samples - since - (double) channel * DELAY);
        double wave = StrictMath.sin(2 * StrictMath.PI * time / PERIOD);
        return switch (shape) {
            case GROUND -> FULL_SCALE * StrictMath.exp(-time / DECAY) * wave;
            case SINE -> FULL_SCALE * wave;
            case SUM -> FULL_SCALE * THIRD * (wave + sine(time, SLOWER) + sine(time, FASTER));
            case NOISE -> LOUD / NOISE * hiss();
            case CONSTANT -> CONSTANT_LEVEL;
            case QUIET, RECORDED, TABLE, FOLLOWS -> 0;
        };
    }

    /** A sine with a multiple of the usual period. */
    private static double sine(double time, double multiple) {
        return StrictMath.sin(2 * StrictMath.PI * time / (PERIOD * multiple));
    }

    private double hiss() {
        noise = noise * FACTOR + ADDED;
        return NOISE * (noise >> 11) / (double) (1L << 52);
    }

    private int scaled(double level) {
        return (int) Math.round(level * ((1L << bits - 1) - 1));
    }
}
