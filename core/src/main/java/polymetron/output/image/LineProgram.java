package polymetron.output.image;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The state machine of a line table (DWARF 5, 6.2.2 and 6.2.5): its operations make rows of addresses and lines. */
final class LineProgram {
    /**
     * @param leastLength bytes of the shortest instruction
     * @param operations in one instruction; more than one only on machines that run several at once, which RISC-V is not
     * @param isStatement not looked at
     * @param lineBase smallest step of lines of a special operation
     * @param lineRange how many steps there are
     */
    record Header(int leastLength, int operations, int isStatement, int lineBase, int lineRange) {}

    private final DwarfBytes in;
    private final Header header;
    private final int[] operands;
    private final List<String> files;

    private List<SourceLines.Row> rows = new ArrayList<>();
    private long address;
    private int file;
    private long line;

    LineProgram(DwarfBytes in, Header header, int[] operands, List<String> files) {
        this.in = in;
        this.header = header;
        this.operands = operands;
        this.files = files;
    }

    /**
     * Goes on to the end of the next sequence.
     *
     * @param most rows that are kept of it
     * @return the sequence; empty where it has no instructions
     */
    Optional<SourceLines.Sequence> sequence(int most) {
        rows = new ArrayList<>();
        address = 0;
        file = 1;
        line = 1;
        while (in.hasMore()) {
            int opcode = in.one();
            if (opcode >= operands.length) {
                special(opcode - operands.length);
                row(most);
            } else if (opcode == 0) {
                if (extended()) {
                    return rows.isEmpty() || address <= rows.getFirst().address()
                            ? Optional.empty()
                            : Optional.of(new SourceLines.Sequence(address, List.copyOf(rows)));
                }
            } else {
                standard(opcode, most);
            }
        }
        return Optional.empty();
    }

    private void special(int adjusted) {
        address += (long) (adjusted / header.lineRange()) * header.leastLength();
        line += header.lineBase() + adjusted % header.lineRange();
    }

    private void standard(int opcode, int most) {
        switch (opcode) {
            case 1 -> row(most);
            case 2 -> address += in.unsigned() * header.leastLength();
            case 3 -> line += in.signed();
            case 4 -> file = (int) Math.min(in.unsigned(), Integer.MAX_VALUE);
            case 8 ->
                    address +=
                            (long) ((255 - operands.length) / header.lineRange())
                                    * header.leastLength();
            case 9 -> address += in.two();
            default -> {
                for (int operand = 0; operand < operands[opcode]; operand++) {
                    in.unsigned();
                }
            }
        }
    }

    /** Whether the sequence ends. */
    private boolean extended() {
        long length = in.unsigned();
        if (length == 0) {
            return false;
        }
        long end = in.at() + length;
        int opcode = in.one();
        if (opcode == 2 && length == 5) {
            address = in.four();
        }
        in.goTo(end);
        return opcode == 1;
    }

    private void row(int most) {
        boolean ascends = rows.isEmpty() || rows.getLast().address() <= address;
        if (rows.size() < most && ascends) {
            String name = file < files.size() ? files.get(file) : "?";
            rows.add(new SourceLines.Row(address, name, Math.clamp(line, 0, Integer.MAX_VALUE)));
        }
    }
}
