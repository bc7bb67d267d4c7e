package polymetron.bench.hart;

/**
 * A region and how often it was entered. The Java virtual machine compiles a method as a whole when it is called
 * often; a region that is called seldom and then loops for long would only be compiled from the middle of one loop.
 * So the first calls of a region are kept short.
 */
final class Translation {
    private static final int SHORT_RUNS = 3_000;
    private static final int SHORT = 4_096;

    private final Region region;
    private int runs;

    Translation(Region region) {
        this.region = region;
    }

    Region region() {
        return region;
    }

    /** How many instructions to do at the next call, at most. */
    int most(int wanted) {
        if (runs >= SHORT_RUNS || wanted <= SHORT) {
            return wanted;
        }
        runs++;
        return SHORT;
    }
}
