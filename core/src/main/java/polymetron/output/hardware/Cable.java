package polymetron.output.hardware;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.verilog.Expression;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/** The connections of an instance while they are gathered. */
final class Cable {
    private final Module module;
    private final String instance;
    private final Map<String, Expression> ins = new LinkedHashMap<>();
    private final Map<String, Net> outs = new LinkedHashMap<>();
    private final Map<String, String> parameters = new LinkedHashMap<>();

    Cable(Module module, String instance) {
        this.module = module;
        this.instance = instance;
    }

    Cable in(String port, Expression value) {
        ins.put(port, value);
        return this;
    }

    Cable in(String port, Net net) {
        return in(port, net.read());
    }

    Cable out(String port, Net net) {
        outs.put(port, net);
        return this;
    }

    Cable parameter(String name, long value) {
        parameters.put(name, Long.toString(value));
        return this;
    }

    /**
     * All signals of an interface. What is not there is 0 for an input (all bytes for a read), and leads nowhere for an output.
     *
     * @param prefix of the ports of the instance
     * @param drives whether the instance drives what an initiator drives
     */
    Cable connect(
            List<Signal> signals,
            String prefix,
            Map<String, Net> nets,
            boolean drives,
            int addressBits,
            int dataBits) {
        for (Signal signal : signals) {
            Net net = nets.get(signal.name());
            String port = prefix + signal.name();
            int bits = signal.bits(addressBits, dataBits);
            if (signal.fromInitiator() != drives) {
                in(
                        port,
                        net != null
                                ? net.read()
                                : Expression.constant(
                                        bits, signal.width() == Signal.Width.BYTES ? -1L : 0));
            } else {
                out(port, net != null ? net : module.wire("unused_" + instance + "_" + port, bits));
            }
        }
        return this;
    }

    void to(String ofModule) {
        module.instance(ofModule, instance, parameters, ins, outs);
    }
}
