package polymetron.ownblock;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import polymetron.elaborate.BlockShape;
import polymetron.library.BlockType;
import polymetron.library.ParameterType;

/** Settings of a block's parameters with which it is looked at: the defaults, the lowest and the highest that are possible. */
final class ParameterSets {
    private ParameterSets() {}

    static List<Map<String, String>> of(BlockType type) {
        List<Map<String, String>> sets = new ArrayList<>(List.of(Map.of()));
        for (boolean highest : new boolean[] {false, true}) {
            Map<String, String> set = new TreeMap<>();
            for (ParameterType parameter : type.parameters()) {
                var limit = highest ? parameter.maximum() : parameter.minimum();
                if (limit != null) {
                    set.put(parameter.name(), limit.toString());
                }
            }
            boolean isPossible =
                    !set.isEmpty()
                            && new BlockShape(type, set).faults().isEmpty()
                            && !sets.contains(set);
            if (isPossible) {
                sets.add(set);
            }
        }
        return sets;
    }

    static String text(Map<String, String> set) {
        return set.entrySet().stream()
                .map(each -> each.getKey() + " = " + each.getValue())
                .collect(Collectors.joining(", "));
    }
}
