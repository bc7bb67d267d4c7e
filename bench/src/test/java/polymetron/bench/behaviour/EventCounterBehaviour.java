package polymetron.bench.behaviour;

import static polymetron.bench.behaviour.Registers.any;
import static polymetron.bench.behaviour.Registers.bit;
import static polymetron.bench.behaviour.Registers.isSet;
import static polymetron.bench.behaviour.Registers.named;
import static polymetron.bench.behaviour.Registers.once;
import static polymetron.bench.behaviour.Registers.word;

import java.util.Map;
import java.util.Random;
import java.util.TreeMap;

/** Counts words and packets, and the words of the last whole gate time. */
final class EventCounterBehaviour implements Behaviour {
    private final long gateCycles;
    private long words;
    private long packets;
    private long rate;
    private long inGate;
    private long gate;

    EventCounterBehaviour(long gateCycles) {
        this.gateCycles = gateCycles;
    }

    @Override
    public String module() {
        return "polymetron_event_counter";
    }

    @Override
    public Map<String, Integer> registers() {
        return new TreeMap<>(
                Map.of(
                        "COUNT_WORDS", 32,
                        "PACKETS_PACKETS", 32,
                        "RATE_WORDS", 32,
                        "in_gate", 32,
                        "gate", 32));
    }

    @Override
    public Map<String, Long> inputs(Random random, int cycle) {
        return named(
                "in_tdata", random.nextLong() & 0xFF,
                "in_tvalid", bit(!once(random, 3)),
                "in_tlast", bit(once(random, 3)),
                "CONTROL_ENABLE", bit(!once(random, 8)),
                "CONTROL_CLEAR_pulse", bit(once(random, 500)));
    }

    @Override
    public Map<String, Long> put(Random random, int cycle) {
        if (!once(random, 6)) {
            return Map.of();
        }
        words = any(random, 32);
        packets = any(random, 32);
        rate = any(random, 32);
        inGate = any(random, 32);
        gate = once(random, 2) ? gateCycles - 1 : any(random, 32) % gateCycles;
        return named(
                "COUNT_WORDS", words,
                "PACKETS_PACKETS", packets,
                "RATE_WORDS", rate,
                "in_gate", inGate,
                "gate", gate);
    }

    @Override
    public Map<String, Long> step(Map<String, Long> in) {
        Map<String, Long> out =
                named(
                        "in_tready", 1,
                        "COUNT_WORDS", words,
                        "PACKETS_PACKETS", packets,
                        "RATE_WORDS", rate);
        if (isSet(in, "CONTROL_CLEAR_pulse")) {
            words = 0;
            packets = 0;
        }
        if (++gate == gateCycles) {
            gate = 0;
            rate = inGate;
            inGate = 0;
        }
        if (isSet(in, "in_tvalid") && isSet(in, "CONTROL_ENABLE")) {
            words = word(words + 1);
            packets = word(packets + in.get("in_tlast"));
            inGate = word(inGate + 1);
        }
        return out;
    }

    @Override
    public void reset() {
        words = 0;
        packets = 0;
        rate = 0;
        inGate = 0;
        gate = 0;
    }
}
