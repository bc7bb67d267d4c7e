package polymetron.bench.block;

/** General-purpose lines. */
public final class GpioModel extends BlockModel {
    private final int lines;
    private final boolean canRead;
    private final boolean canDrive;
    private final boolean chooses;
    private final boolean edges;
    private final int resetLevels;
    private int outside;
    private int output;
    private int drive;
    private int rise;
    private int fall;
    private int pending;

    public GpioModel(int width, String direction, boolean edgeInterrupt, int resetLevels) {
        this.lines = width >= 32 ? -1 : (1 << width) - 1;
        this.canRead = !direction.equals("out");
        this.canDrive = !direction.equals("in");
        this.chooses = direction.equals("both");
        this.edges = edgeInterrupt && canRead;
        this.resetLevels = resetLevels;
        clear();
    }

    @Override
    protected void clear() {
        output = canDrive ? resetLevels & lines : 0;
        drive = chooses ? 0 : canDrive ? lines : 0;
        rise = 0;
        fall = 0;
        pending = 0;
    }

    /** Levels that the block drives; lines that it does not drive are 0. */
    public int driven() {
        return output & drive;
    }

    /** Sets the levels that the board puts on the lines. */
    public void setOutside(int levels) {
        int before = outside & lines;
        outside = levels & lines;
        pending |= ~before & outside & rise | before & ~outside & fall;
    }

    @Override
    public int read(int offset) {
        return switch (offset) {
            case 0x00 -> canRead ? outside & ~drive | driven() : 0;
            case 0x04 -> output;
            case 0x08 -> chooses ? drive : 0;
            case 0x0C -> rise;
            case 0x10 -> fall;
            case 0x14 -> pending;
            default -> 0;
        };
    }

    @Override
    public void write(int offset, int value, int mask) {
        switch (offset) {
            case 0x04 -> output = canDrive ? merge(output, value, mask) & lines : 0;
            case 0x08 -> drive = chooses ? merge(drive, value, mask) & lines : drive;
            case 0x0C -> rise = edges ? merge(rise, value, mask) & lines : 0;
            case 0x10 -> fall = edges ? merge(fall, value, mask) & lines : 0;
            case 0x14 -> pending &= ~(value & mask);
            default -> {}
        }
    }

    @Override
    public boolean interrupt(String source) {
        return pending != 0;
    }
}
