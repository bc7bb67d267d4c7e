package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.SizedStream;
import polymetron.output.hardware.BlockHarness.Line;
import polymetron.verilog.Expression;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/** The streams of a block that stands alone: a buffer for each, and behind it inputs and outputs of at most 64 bits. */
final class HarnessStreams {
    private static final int PART = 64;

    private final Module harness;
    private final Net clk;
    private final Net rst;
    private final List<SizedStream> streams;

    /** Nets to the block, by the names of its ports. */
    private final Map<String, Net> nets = new LinkedHashMap<>();

    HarnessStreams(Module harness, Net clk, Net rst, List<SizedStream> streams) {
        this.harness = harness;
        this.clk = clk;
        this.rst = rst;
        this.streams = streams;
    }

    /** Takes a port of the block that is one of a stream; false for any other. */
    boolean take(Module.Port port) {
        String name = port.net().name();
        for (SizedStream stream : streams) {
            for (String signal : StreamNets.SIGNALS) {
                if (name.equals(stream.name() + "_" + signal)) {
                    nets.put(name, harness.wire("stream_" + name, port.net().bits()));
                    return true;
                }
            }
        }
        return false;
    }

    Net net(String port) {
        return nets.get(port);
    }

    private Net net(SizedStream stream, String signal) {
        return nets.get(stream.name() + "_" + signal);
    }

    /**
     * Makes the buffers, with their inputs and outputs behind those that there are.
     *
     * @param inputs what the harness has by number; grows
     */
    List<HarnessStream> ends(List<Line> inputs, List<Line> outputs) {
        List<HarnessStream> ends = new ArrayList<>();
        for (SizedStream stream : streams) {
            if (net(stream, StreamNets.VALID) != null && net(stream, StreamNets.DATA) != null) {
                ends.add(
                        stream.isSource()
                                ? source(stream, inputs, outputs)
                                : sink(stream, inputs, outputs));
            }
        }
        return List.copyOf(ends);
    }

    /** What a word has, the highest bits first. */
    private List<Net> word(SizedStream stream) {
        List<Net> word = new ArrayList<>();
        for (String signal : List.of(StreamNets.LAST, StreamNets.KEEP, StreamNets.DATA)) {
            if (net(stream, signal) != null) {
                word.add(net(stream, signal));
            }
        }
        return word;
    }

    private HarnessStream end(SizedStream stream, int valid, int ready, int word, int parts) {
        return new HarnessStream(
                stream.name(),
                stream.isSource(),
                valid,
                ready,
                word,
                parts,
                stream.dataWidth(),
                net(stream, StreamNets.KEEP) != null,
                net(stream, StreamNets.LAST) != null);
    }

    private Net input(String name, int bits, List<Line> inputs) {
        Net net = harness.input("in" + inputs.size(), bits);
        inputs.add(new Line(name, bits));
        return net;
    }

    private Net output(String name, int bits, List<Line> outputs) {
        Net net = harness.output("out" + outputs.size(), bits);
        outputs.add(new Line(name, bits));
        return net;
    }

    /** Words from outside wait in the buffer for the block. */
    private HarnessStream sink(SizedStream stream, List<Line> inputs, List<Line> outputs) {
        int valid = inputs.size();
        Net given = input(stream.name() + ".valid", 1, inputs);
        int ready = outputs.size();
        Net takes = output(stream.name() + ".ready", 1, outputs);
        List<Net> word = word(stream);
        int bits = word.stream().mapToInt(Net::bits).sum();
        int first = inputs.size();
        List<Expression> parts = new ArrayList<>();
        for (int low = 0; low < bits; low += PART) {
            int wide = Math.min(PART, bits - low);
            parts.addFirst(input(stream.name() + ".word", wide, inputs).read());
        }
        Net in =
                harness.wire(
                        "into_" + stream.name(),
                        Expression.concat(parts.toArray(Expression[]::new)));
        Net out = harness.wire("word_" + stream.name(), bits);
        int low = 0;
        for (Net each : word.reversed()) {
            harness.assign(each, out.bits(low + each.bits() - 1, low));
            low += each.bits();
        }
        slice(stream, in, given, takes, out, net(stream, StreamNets.VALID), taken(stream));
        return end(stream, valid, ready, first, parts.size());
    }

    /** A sink that does not say whether it takes a word takes all. */
    private Net taken(SizedStream stream) {
        Net ready = net(stream, StreamNets.READY);
        return ready != null
                ? ready
                : harness.wire("takes_" + stream.name(), Expression.constant(1, 1));
    }

    /** Words of the block wait in the buffer; one that does not look whether they are taken loses those without room. */
    private HarnessStream source(SizedStream stream, List<Line> inputs, List<Line> outputs) {
        int valid = outputs.size();
        Net given = output(stream.name() + ".valid", 1, outputs);
        int ready = inputs.size();
        Net takes = input(stream.name() + ".ready", 1, inputs);
        List<Net> word = word(stream);
        Net in =
                harness.wire(
                        "word_" + stream.name(),
                        Expression.concat(word.stream().map(Net::read).toArray(Expression[]::new)));
        Net out = harness.wire("out_of_" + stream.name(), in.bits());
        int first = outputs.size();
        for (int low = 0; low < in.bits(); low += PART) {
            int wide = Math.min(PART, in.bits() - low);
            harness.assign(
                    output(stream.name() + ".word", wide, outputs), out.bits(low + wide - 1, low));
        }
        Net looked = net(stream, StreamNets.READY);
        Net room = looked != null ? looked : harness.wire("room_" + stream.name(), 1);
        slice(stream, in, net(stream, StreamNets.VALID), room, out, given, takes);
        return end(stream, valid, ready, first, outputs.size() - first);
    }

    private void slice(
            SizedStream stream,
            Net in,
            Net inValid,
            Net inReady,
            Net out,
            Net outValid,
            Net outReady) {
        Map<String, Expression> ins = new LinkedHashMap<>();
        ins.put("clk", clk.read());
        ins.put("rst", rst.read());
        ins.put("in", in.read());
        ins.put("in_valid", inValid.read());
        ins.put("out_ready", outReady.read());
        Map<String, Net> outs = new LinkedHashMap<>();
        outs.put("in_ready", inReady);
        outs.put("out", out);
        outs.put("out_valid", outValid);
        harness.instance(
                "polymetron_stream_slice",
                "buffer_" + stream.name(),
                Map.of("BITS", String.valueOf(in.bits())),
                ins,
                outs);
    }
}
