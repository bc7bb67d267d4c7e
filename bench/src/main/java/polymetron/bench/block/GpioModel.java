package polymetron.bench.block;

import polymetron.library.Capability;

/**
 * General-purpose lines. Which fields they are worked by, the definition says; which of them there are says in which
 * directions the lines go.
 */
public final class GpioModel extends BankModel {
    private final long lines;
    private final BankField output;
    private final BankField drive;
    private final BankField rise;
    private final BankField fall;
    private final BankField edge;
    private long outside;

    /** Levels of the lines, whoever drives them. */
    private long lineLevels;

    /**
     * @param lines one bit for each line
     */
    public GpioModel(RegisterBank bank, Capability.Lines roles, long lines) {
        super(bank);
        this.lines = lines;
        this.output = field(roles.output());
        this.drive = field(roles.drive());
        this.rise = field(roles.rise());
        this.fall = field(roles.fall());
        this.edge = field(roles.edge());
        BankField input = field(roles.input());
        if (input != null) {
            input.gives(this::levels);
        }
        for (BankField driving : new BankField[] {output, drive}) {
            if (driving != null) {
                driving.onStored(this::noticeEdges);
            }
        }
    }

    @Override
    protected void clear() {
        super.clear();
        lineLevels = levels();
    }

    /** The field in a role; null when it is not there with the block's parameters. */
    private BankField field(String reference) {
        return reference == null ? null : bank.named(reference).orElse(null);
    }

    /** Lines that the block drives: those that software chose, or all of them where there are only outputs. */
    private long drives() {
        if (drive != null) {
            return drive.get();
        }
        return output == null ? 0 : lines;
    }

    /** Levels that the block drives; lines that it does not drive are 0. */
    public int driven() {
        return (int) (output == null ? 0 : output.get() & drives());
    }

    private long levels() {
        return outside & ~drives() | Integer.toUnsignedLong(driven());
    }

    /** Sets the levels that the board puts on the lines. */
    public void setOutside(int levels) {
        outside = Integer.toUnsignedLong(levels) & lines;
        noticeEdges();
    }

    /** An edge is one of the line, also where the block drives it. */
    private void noticeEdges() {
        long before = lineLevels;
        lineLevels = levels();
        if (edge != null) {
            edge.set(~before & lineLevels & enabled(rise) | before & ~lineLevels & enabled(fall));
        }
    }

    private static long enabled(BankField edges) {
        return edges == null ? 0 : edges.get();
    }
}
