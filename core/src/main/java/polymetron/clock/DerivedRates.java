package polymetron.clock;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedStream;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.Value;
import polymetron.library.RateType;
import polymetron.library.Vlnv;
import polymetron.stream.StreamNet;

/**
 * The rates that follow from clocks and parameters, as the block types' formulas say. The rate of a stream is carried on
 * from its source: a block without a formula for it hands on what comes in.
 */
public final class DerivedRates {
    private final ElaboratedPlatform platform;
    private StreamNet net;
    private final Map<InterfaceRef, Double> known = new HashMap<>();
    private final Map<Same, Double> equal = new HashMap<>();
    private final Set<InterfaceRef> passed = new HashSet<>();

    private DerivedRates(ElaboratedPlatform platform) {
        this.platform = platform;
    }

    /** All rates, by the names of their blocks. */
    public static List<Rate> of(ElaboratedPlatform platform) {
        DerivedRates rates = new DerivedRates(platform);
        List<Rate> all = new ArrayList<>();
        platform.blocks().stream()
                .filter(block -> !block.type().rates().isEmpty())
                .sorted(Comparator.comparing(ElaboratedBlock::name))
                .forEach(
                        block ->
                                block.type().rates().stream()
                                        .map(type -> rates.rate(block, type))
                                        .forEach(all::add));
        return all;
    }

    private Rate rate(ElaboratedBlock block, RateType type) {
        return new Rate(
                block.name(),
                type,
                type.wanted() == null ? Double.NaN : value(block, type.wanted()),
                value(block, type.obtained()));
    }

    /** What gives the same rate: blocks of one type and equal parameters on one clock, as long as no stream comes in. */
    private record Same(
            Vlnv type, Map<String, String> parameters, Expression formula, long clockHz) {}

    private double value(ElaboratedBlock block, Expression formula) {
        long clockHz = platform.frequencyHz(block);
        if (formula.names().contains("INPUT")) {
            return worked(block, formula, clockHz);
        }
        Same same = new Same(block.type().identity(), block.block().parameters(), formula, clockHz);
        Double found = equal.get(same);
        if (found == null) {
            found = worked(block, formula, clockHz);
            equal.put(same, found);
        }
        return found;
    }

    private double worked(ElaboratedBlock block, Expression formula, double clock) {
        double input = formula.names().contains("INPUT") ? inputOf(block) : Double.NaN;
        boolean missing =
                (clock == 0 && formula.names().contains("CLOCK"))
                        || (Double.isNaN(input) && formula.names().contains("INPUT"));
        if (missing) {
            return Double.NaN;
        }
        try {
            Map<String, Value> parameters = block.shape().parameters();
            Value value =
                    formula.evaluate(
                            (String name) ->
                                    switch (name) {
                                        case "CLOCK" -> new Value.Real(clock);
                                        case "INPUT" -> new Value.Real(input);
                                        default -> parameters.get(name);
                                    });
            return value instanceof Value.Real real
                    ? real.number()
                    : value.asNumber().doubleValue();
        } catch (ExpressionException undefined) {
            return Double.NaN;
        }
    }

    /** Rate of the stream that feeds a block's first sink; NaN when it has none. */
    private double inputOf(ElaboratedBlock block) {
        return block.shape().streams().stream()
                .filter(form -> !form.isSource())
                .findFirst()
                .flatMap(sink -> net().feeder(new InterfaceRef(block.name(), sink.name())))
                .map(link -> outputOf(link.block(), link.source()))
                .orElse(Double.NaN);
    }

    /** Only what has streams needs to know what feeds what. */
    private StreamNet net() {
        net = net == null ? new StreamNet(platform) : net;
        return net;
    }

    private double outputOf(ElaboratedBlock block, SizedStream source) {
        InterfaceRef ref = new InterfaceRef(block.name(), source.name());
        Double found = known.get(ref);
        if (found != null) {
            return found;
        }
        // A stream that comes back to itself has no rate of its own.
        if (!passed.add(ref)) {
            return Double.NaN;
        }
        double rate =
                block.type().rates().stream()
                        .filter(type -> source.name().equals(type.stream()))
                        .findFirst()
                        .map(type -> value(block, type.obtained()))
                        .orElseGet(() -> inputOf(block));
        known.put(ref, rate);
        return rate;
    }
}
