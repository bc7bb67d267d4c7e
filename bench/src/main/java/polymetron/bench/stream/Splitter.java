package polymetron.bench.stream;

import java.util.LinkedHashMap;
import java.util.Map;

/** Gives each word to several sinks, and goes on when all have it. */
final class Splitter implements StreamElement {
    private final SinkPort in = new SinkPort();
    private final Map<String, SourcePort> outs = new LinkedHashMap<>();
    private final boolean[] taken;
    private final Slice slice = new Slice();

    Splitter(int outputs) {
        taken = new boolean[outputs];
        for (int at = 0; at < outputs; at++) {
            outs.put("out" + at, new SourcePort());
        }
        resetStream();
    }

    @Override
    public Map<String, SinkPort> sinks() {
        return Map.of("in", in);
    }

    @Override
    public Map<String, SourcePort> sources() {
        return outs;
    }

    @Override
    public void edge() {
        int at = 0;
        boolean all = slice.head() != null;
        for (SourcePort out : outs.values()) {
            taken[at] |= out.isTaken();
            all &= taken[at++];
        }
        slice.edge(in.arriving(), all);
        if (all) {
            java.util.Arrays.fill(taken, false);
        }
        show();
    }

    private void show() {
        in.setReady(slice.isReady());
        int at = 0;
        for (SourcePort out : outs.values()) {
            out.offer(taken[at++] ? null : slice.head());
        }
    }

    @Override
    public long quietFor() {
        return FOREVER;
    }

    @Override
    public void resetStream() {
        slice.clear();
        java.util.Arrays.fill(taken, false);
        show();
    }
}
