package polymetron.bench.block;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Function;
import java.util.function.ToIntFunction;
import polymetron.bench.hart.DirectMemory;
import polymetron.bench.stream.SinkPort;
import polymetron.bench.stream.SourcePort;

/** Moves data between memory and streams, each direction on its own. */
public final class DmaModel extends StreamModel implements MemoryMover {
    private final DmaChannel send;
    private final DmaChannel receive;
    private final Map<String, SinkPort> sinks = new LinkedHashMap<>();
    private final Map<String, SourcePort> sources = new LinkedHashMap<>();

    /**
     * @param channels {@code both}, {@code send} or {@code receive}
     * @param bursts most accesses of a burst of each side; 1 where its bus has none
     * @param bytes bytes of a word
     * @param depth words of each direction that wait
     */
    DmaModel(
            RegisterBank bank,
            String channels,
            ToIntFunction<String> bursts,
            int bytes,
            int depth,
            boolean hasRing) {
        super(bank);
        send =
                channels.equals("receive")
                        ? null
                        : new DmaChannel(
                                bank,
                                "SEND",
                                false,
                                bytes,
                                depth,
                                bursts.applyAsInt("reads"),
                                hasRing);
        receive =
                channels.equals("send")
                        ? null
                        : new DmaChannel(
                                bank,
                                "RECEIVE",
                                true,
                                bytes,
                                depth,
                                bursts.applyAsInt("writes"),
                                hasRing);
        if (send != null) {
            sources.put("to_stream", send.out());
        }
        if (receive != null) {
            sinks.put("from_stream", receive.in());
        }
        clear();
    }

    DmaChannel send() {
        return send;
    }

    DmaChannel receive() {
        return receive;
    }

    @Override
    public void connect(Function<String, DirectMemory> memories) {
        if (send != null) {
            send.connect(memories.apply("reads"));
        }
        if (receive != null) {
            receive.connect(memories.apply("writes"));
        }
    }

    @Override
    public Map<String, SinkPort> sinks() {
        return sinks;
    }

    @Override
    public Map<String, SourcePort> sources() {
        return sources;
    }

    @Override
    public void edge() {
        if (send != null) {
            send.edge();
        }
        if (receive != null) {
            receive.edge();
        }
    }

    @Override
    public long quietFor() {
        return Math.min(
                send == null ? FOREVER : send.quietFor(),
                receive == null ? FOREVER : receive.quietFor());
    }

    @Override
    public void skip(long edges) {
        if (send != null) {
            send.skip(edges);
        }
        if (receive != null) {
            receive.skip(edges);
        }
    }

    @Override
    public void resetStream() {
        if (send != null) {
            send.clear();
        }
        if (receive != null) {
            receive.clear();
        }
    }
}
