package polymetron.finding;

/** How often one check may work a platform out again to see what a fix would do; beyond that fixes are offered as they are. */
final class Looks {
    private static final int MOST = 8;

    private int taken;

    /** Whether there is one left; it is taken then. */
    boolean take() {
        return taken++ < MOST;
    }
}
