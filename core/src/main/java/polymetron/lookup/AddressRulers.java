package polymetron.lookup;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import polymetron.address.AddressRange;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.TargetRange;

/**
 * Address spaces side by side: cuts all of them at every address where one of them changes, so that equal addresses are at
 * equal height. One sweep over the cuts, with the ranges of each space in address order, in time n log n.
 */
public final class AddressRulers {
    private AddressRulers() {}

    /**
     * What one space has in a row.
     *
     * @param targets those that answer: none in a gap, several in a conflict
     * @param gap what is there where nothing answers; null where something does
     */
    public record Cell(List<TargetRange> targets, Gap gap) {}

    /**
     * A run of addresses in which no space changes.
     *
     * @param cells one for each space
     */
    public record Row(AddressRange range, List<Cell> cells) {
        /** Whether nothing answers for anybody. */
        public boolean isEmpty() {
            return cells.stream().allMatch(cell -> cell.targets().isEmpty());
        }
    }

    /** The rows from the lowest to the highest address of the widest bus; empty without spaces. */
    public static List<Row> of(List<AddressSpace> spaces) {
        if (spaces.isEmpty()) {
            return List.of();
        }
        TreeSet<Long> starts = new TreeSet<>(Long::compareUnsigned);
        long top = 0;
        for (AddressSpace space : spaces) {
            for (AddressRange range : edges(space)) {
                starts.add(range.base());
                top = Long.compareUnsigned(range.last(), top) > 0 ? range.last() : top;
                if (range.last() != -1L) {
                    starts.add(range.last() + 1);
                }
            }
        }
        List<Sweep> sweeps = spaces.stream().map(Sweep::new).toList();
        List<Row> rows = new ArrayList<>();
        for (long start : starts) {
            if (Long.compareUnsigned(start, top) > 0) {
                continue;
            }
            Long next = starts.higher(start);
            long last = next == null ? top : next - 1;
            List<Cell> cells = new ArrayList<>();
            for (Sweep sweep : sweeps) {
                cells.add(sweep.at(start));
            }
            rows.add(new Row(new AddressRange(start, last), notForThem(spaces, cells)));
        }
        return merged(rows);
    }

    /** Where another initiator on the bus reaches a target, nothing is free for those that do not. */
    private static List<Cell> notForThem(List<AddressSpace> spaces, List<Cell> cells) {
        List<Cell> told = new ArrayList<>(cells);
        for (int at = 0; at < cells.size(); at++) {
            Gap gap = cells.get(at).gap();
            if (gap == null || gap.sort() != Gap.Sort.FREE && gap.sort() != Gap.Sort.BEHIND) {
                continue;
            }
            for (int other = 0; other < cells.size(); other++) {
                if (!cells.get(other).targets().isEmpty()
                        && spaces.get(other).bus() == spaces.get(at).bus()) {
                    told.set(at, new Cell(List.of(), Gap.NOT_REACHED));
                    break;
                }
            }
        }
        return told;
    }

    private static List<AddressRange> edges(AddressSpace space) {
        List<AddressRange> edges = new ArrayList<>();
        edges.add(space.window());
        space.ranges().forEach(target -> edges.add(target.range()));
        space.hidden().forEach(target -> edges.add(target.range()));
        space.windows().forEach(window -> edges.add(window.range()));
        if (space.bus() != null) {
            space.bus().kept().forEach(each -> edges.add(each.range()));
        }
        if (space.initiator().form().place() != null) {
            edges.add(space.initiator().form().place());
        }
        return edges;
    }

    /** One space from the lowest address on; only for rising addresses. */
    private static final class Sweep {
        private final AddressSpace space;
        private final List<TargetRange> open = new ArrayList<>();
        private int next;

        private Sweep(AddressSpace space) {
            this.space = space;
        }

        private Cell at(long address) {
            open.removeIf(target -> Long.compareUnsigned(target.range().last(), address) < 0);
            while (next < space.ranges().size()
                    && Long.compareUnsigned(space.ranges().get(next).range().base(), address)
                            <= 0) {
                open.add(space.ranges().get(next++));
            }
            return open.isEmpty()
                    ? new Cell(List.of(), Gap.at(space, address))
                    : new Cell(List.copyOf(open), null);
        }
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
