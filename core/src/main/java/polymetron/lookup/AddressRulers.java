package polymetron.lookup;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import polymetron.address.AddressRange;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.TargetRange;

/**
 * Address spaces side by side: cuts all of them at every address where one of them changes, so that equal
 * addresses are at equal height. Time is the number of cuts times the number of spaces.
 */
public final class AddressRulers {
    private AddressRulers() {}

    /**
     * A run of addresses in which no space changes.
     *
     * @param cells for each space the targets that answer: none in a gap, several in a conflict
     */
    public record Row(AddressRange range, List<List<TargetRange>> cells) {}

    /** The rows from the lowest to the highest address of the widest bus; empty without spaces. */
    public static List<Row> of(List<AddressSpace> spaces) {
        if (spaces.isEmpty()) {
            return List.of();
        }
        TreeSet<Long> starts = new TreeSet<>(Long::compareUnsigned);
        long top = 0;
        for (AddressSpace space : spaces) {
            AddressRange window = space.window();
            starts.add(window.base());
            top = Long.compareUnsigned(window.last(), top) > 0 ? window.last() : top;
            for (TargetRange target : space.ranges()) {
                starts.add(target.range().base());
                top =
                        Long.compareUnsigned(target.range().last(), top) > 0
                                ? target.range().last()
                                : top;
                if (target.range().last() != -1L) {
                    starts.add(target.range().last() + 1);
                }
            }
        }
        List<Row> rows = new ArrayList<>();
        for (long start : starts) {
            if (Long.compareUnsigned(start, top) > 0) {
                continue;
            }
            Long next = starts.higher(start);
            long last = next == null ? top : next - 1;
            rows.add(new Row(new AddressRange(start, last), cells(spaces, start)));
        }
        return merged(rows);
    }

    private static List<List<TargetRange>> cells(List<AddressSpace> spaces, long address) {
        List<List<TargetRange>> cells = new ArrayList<>();
        for (AddressSpace space : spaces) {
            cells.add(
                    space.ranges().stream()
                            .filter(target -> target.range().contains(address))
                            .toList());
        }
        return cells;
    }

    private static List<Row> merged(List<Row> rows) {
        List<Row> merged = new ArrayList<>();
        for (Row row : rows) {
            if (!merged.isEmpty() && merged.getLast().cells().equals(row.cells())) {
                Row before = merged.removeLast();
                merged.add(
                        new Row(
                                new AddressRange(before.range().base(), row.range().last()),
                                row.cells()));
            } else {
                merged.add(row);
            }
        }
        return merged;
    }
}
