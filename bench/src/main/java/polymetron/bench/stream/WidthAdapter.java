package polymetron.bench.stream;

import java.util.Arrays;
import java.util.Map;

/** Packs narrow words into wide ones, or cuts wide words up, the lowest bytes first. */
final class WidthAdapter implements StreamElement {
    private final int narrow;
    private final int parts;
    private final boolean packs;
    private final SinkPort in = new SinkPort();
    private final SourcePort out = new SourcePort();
    private final Slice slice = new Slice();
    private int place;

    /** The wide word that is being packed, and whether it can go. */
    private byte[] bytes;

    private boolean[] keep;
    private StreamWord whole;

    /**
     * @param inBytes bytes of a word that comes in
     * @param outBytes bytes of a word that goes out
     */
    WidthAdapter(int inBytes, int outBytes) {
        narrow = Math.min(inBytes, outBytes);
        parts = Math.max(inBytes, outBytes) / narrow;
        packs = inBytes < outBytes;
        resetStream();
    }

    @Override
    public Map<String, SinkPort> sinks() {
        return Map.of("in", in);
    }

    @Override
    public Map<String, SourcePort> sources() {
        return Map.of("out", out);
    }

    @Override
    public void edge() {
        StreamWord head = slice.head();
        boolean takes;
        if (packs) {
            takes = head != null && (whole == null || out.isTaken());
            if (out.isTaken()) {
                whole = null;
            }
            if (takes) {
                pack(head);
            }
        } else {
            takes = out.isTaken() && !more(head);
            place = takes ? 0 : place + (out.isTaken() ? 1 : 0);
        }
        slice.edge(in.arriving(), takes);
        show();
    }

    private void pack(StreamWord word) {
        if (place == 0) {
            bytes = new byte[narrow * parts];
            keep = new boolean[narrow * parts];
        }
        System.arraycopy(word.bytes(), 0, bytes, place * narrow, narrow);
        for (int at = 0; at < narrow; at++) {
            keep[place * narrow + at] = word.keeps(at);
        }
        place++;
        if (place == parts || word.last()) {
            whole = new StreamWord(bytes, keep, word.last());
            place = 0;
        }
    }

    /** Whether a byte behind the part at work counts. */
    private boolean more(StreamWord word) {
        for (int at = (place + 1) * narrow; at < parts * narrow; at++) {
            if (word.keeps(at)) {
                return true;
            }
        }
        return false;
    }

    private void show() {
        in.setReady(slice.isReady());
        if (packs) {
            out.offer(whole);
            return;
        }
        StreamWord head = slice.head();
        out.offer(head == null ? null : cut(head));
    }

    private StreamWord cut(StreamWord word) {
        int from = place * narrow;
        return new StreamWord(
                Arrays.copyOfRange(word.bytes(), from, from + narrow),
                word.keep() == null ? null : Arrays.copyOfRange(word.keep(), from, from + narrow),
                word.last() && !more(word));
    }

    @Override
    public long quietFor() {
        return packs && slice.head() != null && whole == null ? 0 : FOREVER;
    }

    @Override
    public void resetStream() {
        slice.clear();
        place = 0;
        whole = null;
        show();
    }
}
