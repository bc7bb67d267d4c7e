package polymetron.ownblock;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.Value;
import polymetron.library.BlockType;
import polymetron.output.hardware.LogicPorts;
import polymetron.output.hardware.VhdlEntity;

/**
 * A block's module with one set of parameters, as a compiler is to look at it.
 *
 * @param text the set in words; empty for the defaults
 * @param parameters values of the module's parameters
 * @param entities VHDL that has to be made into Verilog before
 */
public record CompiledSet(
        String text, SortedMap<String, String> parameters, List<VhdlEntity> entities) {

    /** The defaults, and everything as low and as high as it can be. */
    public static List<CompiledSet> of(OwnBlock block) {
        List<CompiledSet> sets = new ArrayList<>();
        for (Map<String, String> set : ParameterSets.of(block.type())) {
            SortedMap<String, String> values = values(block.type(), set);
            sets.add(
                    new CompiledSet(
                            ParameterSets.text(set),
                            values,
                            VhdlEntity.of(block.hardware(), values)));
        }
        return sets;
    }

    private static SortedMap<String, String> values(BlockType type, Map<String, String> set) {
        Map<String, Value> known = LogicPorts.parameters(type, set);
        SortedMap<String, String> values = new TreeMap<>();
        for (Map.Entry<String, Expression> each : type.hardware().parameters().entrySet()) {
            try {
                Value value = each.getValue().evaluate(known);
                if (value instanceof Value.Bits) {
                    values.put(each.getKey(), value.asNumber().toString());
                }
            } catch (ExpressionException | ArithmeticException onlyOnAPlatform) {
                // Such as the clock: the module has its own default here.
                continue;
            }
        }
        return values;
    }
}
