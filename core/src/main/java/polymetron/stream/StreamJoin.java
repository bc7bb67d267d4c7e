package polymetron.stream;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import polymetron.edit.Edit;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.StreamLink;
import polymetron.library.BlockType;
import polymetron.library.ParameterType;
import polymetron.library.StreamPartType;
import polymetron.platform.Names;

/**
 * What it takes to lead a source to a sink: a splitter when the source already feeds another sink, a width adapter
 * when words differ in width, a crossing when the clocks differ.
 *
 * @param edits all of it, to be applied together
 * @param parts what is put between, in words; empty when both fit as they are
 */
public record StreamJoin(List<Edit> edits, List<String> parts) {

    /**
     * @throws RejectedEdit when nothing leads from the source to the sink; the message says why
     */
    public static StreamJoin of(StreamNet net, StreamEnd source, StreamEnd sink) {
        return new Planner(net).join(source, sink);
    }

    /** Why a source cannot be led to a sink; empty when it can. */
    public static Optional<String> obstacle(StreamNet net, StreamEnd source, StreamEnd sink) {
        try {
            of(net, source, sink);
            return Optional.empty();
        } catch (RejectedEdit rejected) {
            return Optional.of(rejected.getMessage());
        }
    }

    private static final class Planner {
        private final StreamNet net;
        private final List<String> made = new ArrayList<>();
        private final List<Edit> edits = new ArrayList<>();
        private final List<String> parts = new ArrayList<>();
        private String block;
        private String port;
        private String domain;

        private Planner(StreamNet net) {
            this.net = net;
        }

        private StreamJoin join(StreamEnd source, StreamEnd sink) {
            block = source.block().name();
            port = source.form().name();
            domain = source.domain() == null ? sink.domain() : source.domain();
            int width = source.form().dataWidth();
            StreamLink link = net.link(source);
            if (!link.isOpen() && sink.ref().equals(link.sinkRef())) {
                edits.add(new Edit.DisconnectStream(block, port));
            } else if (!link.isOpen()) {
                split(source, link);
            }
            widen(width, sink.form().dataWidth());
            cross(sink);
            connect(sink.block().name(), sink.form().name());
            return new StreamJoin(List.copyOf(edits), List.copyOf(parts));
        }

        private void connect(String sinkBlock, String sink) {
            edits.add(new Edit.ConnectStream(block, port, sinkBlock, sink));
        }

        /** Goes on from a free output of the splitter behind the source, or of a new one. */
        private void split(StreamEnd source, StreamLink link) {
            StreamPartType behind =
                    link.sinkBlock() == null ? null : link.sinkBlock().type().streamPart();
            if (behind != null && behind.sort() == StreamPartType.Sort.SPLITTER) {
                ElaboratedBlock splitter = link.sinkBlock();
                long outputs = splitter.shape().number(behind.outputs());
                Optional<StreamEnd> open =
                        net.openSources().stream()
                                .filter(end -> end.block() == splitter)
                                .findFirst();
                if (open.isEmpty() && outputs >= behind.sources().size()) {
                    throw new RejectedEdit(
                            "source",
                            "%s already feeds %s sinks, all that splitter %s can"
                                    .formatted(
                                            source.ref(),
                                            behind.sources().size(),
                                            splitter.name()));
                }
                block = splitter.name();
                port =
                        open.map(end -> end.form().name())
                                .orElseGet(() -> behind.sources().get((int) outputs));
                if (open.isEmpty()) {
                    edits.add(
                            new Edit.SetParameter(
                                    splitter.name(), behind.outputs(), "" + (outputs + 1)));
                }
                parts.add("one more output of splitter %s".formatted(splitter.name()));
                return;
            }
            BlockType type = part(StreamPartType.Sort.SPLITTER);
            StreamPartType form = type.streamPart();
            String name = name(type);
            edits.add(new Edit.DisconnectStream(block, port));
            insert(
                    type,
                    name,
                    Map.of(form.inWidth(), "" + source.form().dataWidth(), form.outputs(), "2"),
                    domain);
            parts.add("splitter %s".formatted(name));
            if (link.sink() != null) {
                edits.add(
                        new Edit.ConnectStream(
                                name,
                                form.sources().getFirst(),
                                link.sinkBlock().name(),
                                link.sink().name()));
            }
            block = name;
            port = form.sources().get(1);
        }

        private void widen(int from, int to) {
            if (from == to) {
                return;
            }
            if (from <= 0 || to <= 0 || Math.max(from, to) % Math.min(from, to) != 0) {
                throw new RejectedEdit(
                        "sink",
                        "no adapter makes %s-bit words of %s-bit words: one has to be a multiple of"
                                        .formatted(to, from)
                                + " the other");
            }
            BlockType type = part(StreamPartType.Sort.WIDTH);
            StreamPartType form = type.streamPart();
            String name = name(type);
            insert(type, name, Map.of(form.inWidth(), "" + from, form.outWidth(), "" + to), domain);
            parts.add("width adapter %s, %s → %s bit".formatted(name, from, to));
            port = form.sources().getFirst();
            block = name;
        }

        private void cross(StreamEnd sink) {
            if (domain == null || sink.domain() == null || domain.equals(sink.domain())) {
                return;
            }
            BlockType type = part(StreamPartType.Sort.CLOCK);
            StreamPartType form = type.streamPart();
            String name = name(type);
            insert(type, name, Map.of(form.inWidth(), "" + sink.form().dataWidth()), domain);
            edits.add(new Edit.SetDomain(name, form.sourceClock(), sink.domain()));
            edits.add(new Edit.SetDomain(name, form.sourceReset(), sink.domain()));
            parts.add("clock crossing %s, %s → %s".formatted(name, domain, sink.domain()));
            port = form.sources().getFirst();
            block = name;
        }

        /** Adds a part, in a domain, and leads the stream into it. */
        private void insert(
                BlockType type, String name, Map<String, String> parameters, String domainName) {
            for (String parameter : parameters.keySet()) {
                ParameterType form = type.parameter(parameter).orElseThrow();
                long value = Long.parseLong(parameters.get(parameter));
                long most = form.maximum() == null ? value : Long.parseLong("" + form.maximum());
                if (value > most) {
                    throw new RejectedEdit(
                            "sink",
                            "%s is at most %s %s, this would need %s"
                                    .formatted(form.title(), most, form.unit(), value));
                }
            }
            edits.add(new Edit.AddBlock(name, type.identity(), new LinkedHashMap<>(parameters)));
            if (domainName == null) {
                throw new RejectedEdit(
                        "sink",
                        "%s is needed in between, and neither end has a clock yet; connect the"
                                        .formatted(type.title().toLowerCase(Locale.ROOT))
                                + " clocks first");
            }
            edits.add(new Edit.SetDomain(name, type.clocks().getFirst().name(), domainName));
            edits.add(new Edit.SetDomain(name, type.resets().getFirst().name(), domainName));
            connect(name, type.streamPart().sink());
        }

        private String name(BlockType type) {
            List<String> taken = new ArrayList<>(made);
            net.platform().platform().blocks().forEach(each -> taken.add(each.name()));
            String name = Names.free(type.defaultName(), taken);
            made.add(name);
            return name;
        }

        private BlockType part(StreamPartType.Sort sort) {
            return net.platform()
                    .library()
                    .streamPart(sort)
                    .orElseThrow(
                            () ->
                                    new RejectedEdit(
                                            "sink",
                                            "the library has no stream part for %s"
                                                    .formatted(sort)));
        }
    }
}
