package polymetron.bench.stream;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import polymetron.Shipped;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.BlockModels;
import polymetron.bench.clock.ClockRatio;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.library.Vlnv;
import polymetron.platform.Platform;

/** One block between a source and sinks that do what a random generator says. */
final class StreamRig {
    private static final int LONGEST = 200_000;

    private final ElaboratedBlock block;
    private final List<StreamElement> elements;

    private StreamRig(ElaboratedBlock block, List<StreamElement> elements) {
        this.block = block;
        this.elements = elements;
    }

    /**
     * A block of the library.
     *
     * @param settings parameters with their values, such as {@code WIDTH=16 DEPTH=5}
     */
    static StreamRig of(String type, String settings) {
        Map<String, String> parameters = new TreeMap<>();
        for (String each : settings.split(" ")) {
            parameters.put(each.split("=")[0], each.split("=")[1]);
        }
        return of(type, parameters);
    }

    /** A block of the library; {@code software} may write its registers. */
    static StreamRig of(String type, Map<String, String> parameters) {
        Platform platform = Platform.empty("Rig", Vlnv.parse("polymetron:boards:terrace:1.0"));
        platform =
                new Editor(Shipped.LIBRARY)
                        .apply(
                                platform,
                                new Edit.AddBlock(
                                        "rig", Vlnv.parse("polymetron:" + type), parameters));
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        ElaboratedBlock block = elaborated.block("rig").orElseThrow();
        List<StreamElement> elements = StreamElements.of(block);
        for (SizedInterface form : block.shape().busInterfaces()) {
            BlockModel model =
                    BlockModels.create(elaborated, block, form, 100_000_000).orElse(null);
            if (model instanceof StreamElement element) {
                elements = List.of(element);
                model.reset();
            }
        }
        return new StreamRig(block, elements);
    }

    ElaboratedBlock block() {
        return block;
    }

    /** Registers of the block, where it has any. */
    BlockModel registers() {
        return (BlockModel) elements.getFirst();
    }

    /** What comes out of each source, for words that come in; empty streams are at rest. */
    Map<String, List<StreamWord>> through(List<StreamWord> words, long seed) {
        Random random = new Random(seed);
        StreamClock clock = new StreamClock(ClockRatio.SAME);
        elements.forEach(StreamElement::resetStream);
        elements.forEach(clock::add);
        Feeder feeder = new Feeder(words, random);
        clock.add(feeder);
        Map<String, List<StreamWord>> out = new java.util.TreeMap<>();
        for (StreamElement element : elements) {
            element.sinks().values().forEach(sink -> clock.connect(feeder.port, sink));
            element.sources()
                    .forEach(
                            (name, source) -> {
                                Taker taker = new Taker(random);
                                clock.add(taker);
                                clock.connect(source, taker.port);
                                out.put(name, taker.taken);
                            });
        }
        int quiet = 0;
        for (int edge = 0; edge < LONGEST && quiet < 2_000; edge++) {
            int before = out.values().stream().mapToInt(List::size).sum();
            clock.edge();
            boolean same = before == out.values().stream().mapToInt(List::size).sum();
            quiet = same && feeder.left.isEmpty() && feeder.port.offered() == null ? quiet + 1 : 0;
        }
        return out;
    }

    /** Offers words now and then. */
    private static final class Feeder implements StreamElement {
        private final SourcePort port = new SourcePort();
        private final Deque<StreamWord> left;
        private final Random random;

        Feeder(List<StreamWord> words, Random random) {
            left = new ArrayDeque<>(words);
            this.random = random;
        }

        @Override
        public Map<String, SourcePort> sources() {
            return Map.of("out", port);
        }

        @Override
        public void edge() {
            if (port.isTaken()) {
                port.offer(null);
            }
            if (port.offered() == null && random.nextInt(3) > 0) {
                port.offer(left.poll());
            }
        }

        @Override
        public long quietFor() {
            return 0;
        }

        @Override
        public void resetStream() {}
    }

    /** Takes words now and then. */
    private static final class Taker implements StreamElement {
        private final SinkPort port = new SinkPort();
        private final List<StreamWord> taken = new ArrayList<>();
        private final Random random;

        Taker(Random random) {
            this.random = random;
        }

        @Override
        public Map<String, SinkPort> sinks() {
            return Map.of("in", port);
        }

        @Override
        public void edge() {
            if (port.arriving() != null) {
                taken.add(port.arriving());
            }
            port.setReady(random.nextInt(3) > 0);
        }

        @Override
        public long quietFor() {
            return 0;
        }

        @Override
        public void resetStream() {}
    }
}
