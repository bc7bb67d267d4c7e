package polymetron.bench.block;

import java.math.BigInteger;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import polymetron.bench.behaviour.Behaviour;
import polymetron.bench.stream.SteppedElement;
import polymetron.bench.stream.StreamWord;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;

/**
 * A block that works on samples, as the bench has it: its filters are compared with convolutions, and this compares hardware with
 * it. Source and sink are busy or not, it is switched off and on at any time, and other settings change while nothing is under way.
 */
public final class SampleBehaviour implements Behaviour {
    /** Cycles after which no sample is under way any more. */
    private static final int REST = 400;

    private final String module;
    private final int channels;
    private final int sampleBits;
    private final int taps;
    private final int coefficientBits;
    private final int shift;
    private final BlockModel model;
    private final RegisterBank bank;
    private final SteppedElement element;
    private final String source;

    /** The word that is offered until it is taken; null for none. */
    private Long offered;

    private boolean last;
    private int slowSource = 1;
    private int slowSink = 1;
    private int amplitude = 16;

    /** Coefficients of 1, and samples that are sums of few bits. */
    private boolean edges;

    /** Cycles between two times that it is switched off, on average. */
    private int calm = 300;

    /** Where registers are put at the next edge. */
    private Map<String, Long> put = Map.of();

    private int wordsLeft;
    private int rests;

    public SampleBehaviour(
            ElaboratedPlatform platform, ElaboratedBlock block, Map<String, Long> parameters) {
        module = block.type().hardware().module();
        channels = parameters.get("CHANNELS").intValue();
        sampleBits = parameters.get("SAMPLE").intValue();
        taps = parameters.getOrDefault("TAPS", 0L).intValue();
        coefficientBits = parameters.getOrDefault("COEFFICIENT", 0L).intValue();
        shift = parameters.getOrDefault("SHIFT", 1L).intValue();
        model =
                BlockModels.create(
                                platform,
                                block,
                                block.shape().busInterfaces().getFirst(),
                                1_000_000)
                        .orElseThrow();
        bank = ((BankModel) model).bank;
        StreamModel stream = (StreamModel) model;
        element = new SteppedElement(stream);
        source = stream.sources().keySet().iterator().next();
    }

    @Override
    public String module() {
        return module;
    }

    @Override
    public Map<String, Integer> registers() {
        return isDecimating() ? Map.of("samples", 13) : Map.of();
    }

    private boolean isDecimating() {
        return model instanceof DecimatingFilterModel;
    }

    @Override
    public Map<String, Long> put(Random random, int cycle) {
        Map<String, Long> now = put;
        put = Map.of();
        return now;
    }

    @Override
    public Map<String, Long> inputs(Random random, int cycle) {
        if (wordsLeft == 0 && offered == null && ++rests > REST) {
            rests = 0;
            calm = random.nextInt(4) == 0 ? 300 : 20_000;
            int rounds = 1 + random.nextInt(120);
            slowSource = 1 + random.nextInt(3) * random.nextInt(30);
            slowSink = 1 + random.nextInt(3) * random.nextInt(30);
            if (model instanceof DecimatingFilterModel filter && random.nextBoolean()) {
                // Rates that would take long, mostly beside powers of two, with a few samples
                // before a result.
                int power = 1 << random.nextInt(13);
                int rate =
                        power
                                + (random.nextInt(4) == 0
                                        ? random.nextInt(power)
                                        : random.nextInt(3) - 1);
                bank.field("RATE", "SAMPLES").put(rate);
                filter.rounds = Math.max(0, rate - 1 - random.nextInt(4));
                put = Map.of("samples", (long) filter.rounds);
                rounds = 8;
            } else {
                settings(random);
            }
            wordsLeft = channels * rounds;
        }
        if (offered == null && wordsLeft > 0 && random.nextInt(slowSource) == 0) {
            wordsLeft--;
            if (random.nextInt(40) == 0) {
                amplitude = 1 + random.nextInt(32);
            }
            offered = random.nextInt() >> 32 - amplitude & 0xFFFF_FFFFL;
            if (edges) {
                // Sums that lie where the last bit is rounded.
                int bit = 1 << random.nextInt(sampleBits - 2);
                int half = random.nextInt(2) << Math.max(0, shift - 1);
                offered = (random.nextBoolean() ? half - bit : half + bit) & 0xFFFF_FFFFL;
            }
            if (random.nextInt(16) == 0) {
                // The largest and the smallest sample, with other bits above.
                offered = (1L << sampleBits - 1) - random.nextInt(2);
            }
            last = random.nextInt(3) == 0;
        }
        Map<String, Long> in = new LinkedHashMap<>();
        in.put("in_tvalid", offered == null ? 0L : 1L);
        in.put("in_tdata", offered == null ? random.nextInt() & 0xFFFF_FFFFL : offered);
        in.put("in_tlast", last ? 1L : 0L);
        in.put(source + "_tready", random.nextInt(slowSink) == 0 ? 1L : 0L);
        boolean toggles = random.nextInt(enabled() ? calm : 50) == 0;
        if (toggles) {
            bank.field("CONTROL", "ENABLE").put(enabled() ? 0 : 1);
        }
        if (isDecimating() && random.nextInt(2000) == 0) {
            bank.field("RATE", "SAMPLES").put(random.nextInt(1 + random.nextInt(20)));
        }
        if (taps > 0 && random.nextInt(500) == 0) {
            bank.field("CONTROL", "BYPASS").put(random.nextInt(4) == 0 ? 1 : 0);
        }
        for (String each : settingNames()) {
            String[] names = each.split("\\.");
            in.put(names[0] + "_" + names[1], bank.field(names[0], names[1]).get());
        }
        return in;
    }

    private boolean enabled() {
        return bank.field("CONTROL", "ENABLE").isSet();
    }

    private List<String> settingNames() {
        return switch (module) {
            case "polymetron_fir_filter" -> List.of("CONTROL.ENABLE", "CONTROL.BYPASS");
            case "polymetron_decimating_filter" -> List.of("CONTROL.ENABLE", "RATE.SAMPLES");
            default -> List.of("CONTROL.ENABLE", "THRESHOLD.RATIO", "RELEASE.RATIO");
        };
    }

    private void settings(Random random) {
        switch (module) {
            case "polymetron_fir_filter" -> {
                int size = 1 + random.nextInt(coefficientBits);
                edges = random.nextInt(3) > 0;
                for (int tap = 0; tap < taps; tap++) {
                    if (edges) {
                        long ones = (1L << coefficientBits) - 1;
                        bank.row("COEFFICIENT", tap, "VALUE").put(random.nextInt(3) - 1 & ones);
                        continue;
                    }
                    bank.row("COEFFICIENT", tap, "VALUE")
                            .put(random.nextInt() >> 32 - size & (1L << coefficientBits) - 1);
                }
            }
            case "polymetron_decimating_filter" ->
                    bank.field("RATE", "SAMPLES").put(random.nextInt(1 + random.nextInt(20)));
            default -> {
                long now = bank.field("RATIO", "RATIO").get();
                bank.field("THRESHOLD", "RATIO").put(near(random, now));
                bank.field("RELEASE", "RATIO").put(near(random, now));
            }
        }
    }

    private static long near(Random random, long ratio) {
        return random.nextInt(3) == 0
                ? random.nextInt() >>> 16 + random.nextInt(16)
                : Math.clamp(ratio + random.nextInt(9) - 4, 0, 0xFFFF);
    }

    @Override
    public Map<String, BigInteger> wide() {
        if (taps == 0) {
            return Map.of();
        }
        BigInteger all = BigInteger.ZERO;
        for (int tap = taps - 1; tap >= 0; tap--) {
            all =
                    all.shiftLeft(coefficientBits)
                            .or(BigInteger.valueOf(bank.row("COEFFICIENT", tap, "VALUE").get()));
        }
        return Map.of("COEFFICIENT_VALUE", all);
    }

    @Override
    public Map<String, Long> step(Map<String, Long> in) {
        Map<String, Long> out = new LinkedHashMap<>();
        boolean isReady = element.isReady();
        StreamWord gives = element.offered();
        out.put("in_tready", isReady ? 1L : 0);
        out.put(source + "_tvalid", gives == null ? 0L : 1);
        if (gives != null) {
            out.put(source + "_tdata", Integer.toUnsignedLong(gives.low()));
            out.put(source + "_tlast", gives.last() ? 1L : 0);
        }
        if (module.equals("polymetron_threshold_trigger")) {
            for (String each : List.of("STATUS.ON", "STATUS.CHANNEL", "RATIO.RATIO")) {
                String[] names = each.split("\\.");
                out.put(names[0] + "_" + names[1], bank.field(names[0], names[1]).get());
            }
        }
        element.edge(
                offered == null ? null : StreamWord.of(offered.intValue(), last),
                in.get(source + "_tready") != 0);
        if (offered != null && isReady) {
            offered = null;
        }
        switch (module) {
            case "polymetron_fir_filter" -> happened(out, "STATUS", "CLIPPED");
            case "polymetron_threshold_trigger" -> {
                happened(out, "PENDING", "ON");
                happened(out, "PENDING", "OFF");
            }
            default -> {}
        }
        return out;
    }

    /** What the block sets at the edge it says in the cycle before. */
    private void happened(Map<String, Long> out, String register, String field) {
        out.put(register + "_" + field + "_set", bank.field(register, field).get());
        bank.field(register, field).put(0);
    }

    @Override
    public void reset() {
        model.reset();
        offered = null;
        wordsLeft = 0;
        edges = false;
        rests = 0;
    }
}
