package polymetron.bench.stream;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Map;

/**
 * A small FIFO between two clocks: a side sees how far the other one is two edges of its own clock later. Each side is an element
 * in its own clock.
 */
final class Crossing {
    private final int depth;
    private final Deque<StreamWord> words = new ArrayDeque<>();
    private final In in = new In();
    private final Out out = new Out();

    Crossing(int depth) {
        this.depth = depth;
        in.resetStream();
    }

    StreamElement in() {
        return in;
    }

    StreamElement out() {
        return out;
    }

    private void reset() {
        words.clear();
        in.next = 0;
        in.early = 0;
        in.seen = 0;
        in.on = 0;
        out.first = 0;
        out.early = 0;
        out.seen = 0;
        in.port.setReady(false);
        out.port.offer(null);
    }

    /** The side that words come in at. */
    private final class In implements StreamElement {
        private static final int ON = 2;

        private final SinkPort port = new SinkPort();
        private long next;
        private long early;
        private long seen;
        private int on;

        @Override
        public Map<String, SinkPort> sinks() {
            return Map.of("in", port);
        }

        @Override
        public void edge() {
            if (port.arriving() != null) {
                words.add(port.arriving());
                next++;
            }
            seen = early;
            early = out.first;
            on = Math.min(ON, on + 1);
            port.setReady(on == ON && next - seen < depth);
        }

        @Override
        public long quietFor() {
            return on == ON && seen == early && early == out.first ? FOREVER : 0;
        }

        @Override
        public void resetStream() {
            reset();
        }
    }

    /** The side that they go out at. */
    private final class Out implements StreamElement {
        private final SourcePort port = new SourcePort();
        private long first;
        private long early;
        private long seen;

        @Override
        public Map<String, SourcePort> sources() {
            return Map.of("out", port);
        }

        @Override
        public void edge() {
            if (port.isTaken()) {
                words.remove();
                first++;
            }
            seen = early;
            early = in.next;
            port.offer(first < seen ? words.peek() : null);
        }

        @Override
        public long quietFor() {
            return seen == early && early == in.next ? FOREVER : 0;
        }

        @Override
        public void resetStream() {
            reset();
        }
    }
}
