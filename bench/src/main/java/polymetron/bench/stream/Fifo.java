package polymetron.bench.stream;

import java.util.Map;

/** Keeps words that come faster than they are taken. */
final class Fifo implements StreamElement {
    private final boolean packets;
    private final boolean lanes;
    private final WordFifo words;
    private final SinkPort in = new SinkPort();
    private final SourcePort out = new SourcePort();

    /**
     * @param packets whether it keeps the marks of packets
     * @param lanes whether it keeps which bytes count
     */
    Fifo(int depth, boolean packets, boolean lanes) {
        this.words = new WordFifo(depth);
        this.packets = packets;
        this.lanes = lanes;
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
        StreamWord word = in.arriving();
        words.edge(
                word == null
                        ? null
                        : new StreamWord(
                                word.bytes(), lanes ? word.keep() : null, packets && word.last()),
                out.isTaken());
        show();
    }

    private void show() {
        in.setReady(words.isReady());
        out.offer(words.head());
    }

    @Override
    public long quietFor() {
        return words.isStill() ? FOREVER : 0;
    }

    @Override
    public void resetStream() {
        words.clear();
        show();
    }
}
