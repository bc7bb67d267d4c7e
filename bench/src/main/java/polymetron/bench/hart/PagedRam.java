package polymetron.bench.hart;

import java.util.ArrayList;
import java.util.List;

/**
 * A memory that may be larger than what there is to simulate it with: its pages come into being when they are first
 * touched. A page is a memory of its own to the hart, so running and loading cost nothing more within one.
 */
public final class PagedRam implements Memory {
    /** Bytes of a page. */
    public static final int PAGE = 8 << 20;

    private final long sizeBytes;
    private final boolean writable;
    private final int mostPages;
    private final Page[] pages;
    private final byte blank;
    private final MemoryShare share;
    private int touched;
    private boolean marks;

    /**
     * @param sizeBytes at most 2^32
     * @param mostBytes how much of it can be touched
     */
    public PagedRam(long sizeBytes, boolean writable, long mostBytes) {
        this(sizeBytes, writable, mostBytes, (byte) 0, MemoryShare.ample());
    }

    /**
     * @param blank what a byte is before anything is written
     * @param share what the pages that are touched are taken from
     */
    public PagedRam(
            long sizeBytes, boolean writable, long mostBytes, byte blank, MemoryShare share) {
        this.share = share;
        this.blank = blank;
        this.sizeBytes = sizeBytes;
        this.writable = writable;
        this.mostPages = (int) Math.max(1, mostBytes / PAGE);
        this.pages = new Page[(int) ((sizeBytes + PAGE - 1) / PAGE)];
        for (int index = 0; index < pages.length; index++) {
            pages[index] = new Page(index);
        }
    }

    /** One page, there or not yet. */
    final class Page {
        private final int index;
        private Ram ram;

        private Page(int index) {
            this.index = index;
        }

        /**
         * @throws MemoryExhausted when no further page can be had
         */
        Ram ram() {
            if (ram == null) {
                if (touched >= mostPages) {
                    throw MemoryExhausted.ofOne((long) mostPages * PAGE);
                }
                ram =
                        new Ram(
                                (int) Math.min(PAGE, sizeBytes - (long) index * PAGE),
                                writable,
                                blank,
                                share);
                touched++;
                if (marks) {
                    ram.keepMarks();
                }
            }
            return ram;
        }
    }

    @Override
    public List<BusMap.Entry> at(int base, int last, AccessCycles cycles) {
        List<BusMap.Entry> entries = new ArrayList<>();
        for (Page page : pages) {
            int first = base + page.index * PAGE;
            int end = page.index == pages.length - 1 ? last : first + PAGE - 1;
            entries.add(new BusMap.Entry(first, end, page, cycles));
        }
        return entries;
    }

    @Override
    public void load(long offset, byte[] contents) {
        int done = 0;
        while (done < contents.length) {
            long at = offset + done;
            int within = (int) (at % PAGE);
            int count = Math.min(contents.length - done, PAGE - within);
            pages[(int) (at / PAGE)].ram().load(within, contents, done, count);
            done += count;
        }
    }

    @Override
    public void read(long offset, byte[] into) {
        int done = 0;
        while (done < into.length) {
            long at = offset + done;
            int within = (int) (at % PAGE);
            int count = Math.min(into.length - done, PAGE - within);
            System.arraycopy(pages[(int) (at / PAGE)].ram().bytes, within, into, done, count);
            done += count;
        }
    }

    @Override
    public void keepMarks() {
        marks = true;
        for (Page page : pages) {
            if (page.ram != null) {
                page.ram.keepMarks();
            }
        }
    }

    @Override
    public void clear() {
        for (Page page : pages) {
            page.ram = null;
        }
        touched = 0;
    }
}
