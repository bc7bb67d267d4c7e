package polymetron.library;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.Value;
import polymetron.json.DocumentText;

/**
 * The settings of parameters at which a definition is tried: the defaults, and each parameter at both ends of its limits and
 * with each of its choices. What is wrong with a formula shows there before it shows anywhere between.
 */
final class ParameterSettings {
    /** Parameters that differ from their defaults, and the values that all of them have then. */
    record Setting(Map<String, String> chosen, Map<String, Value> values) {
        /** The setting for a sentence: {@code with WIDTH = 1}, or nothing for the defaults. */
        String words() {
            return chosen.isEmpty()
                    ? ""
                    : new TreeMap<>(chosen)
                            .entrySet().stream()
                                    .map(each -> each.getKey() + " = " + each.getValue())
                                    .collect(Collectors.joining(", ", " with ", ""));
        }
    }

    private ParameterSettings() {}

    /**
     * @throws polymetron.json.DocumentException when the defaults are not within their own limits
     */
    static List<Setting> of(BlockType type, DocumentText text) {
        ParameterValues.Outcome usual = ParameterValues.of(type, Map.of());
        for (ParameterFault fault : usual.faults()) {
            int at = type.parameters().indexOf(fault.parameter());
            throw text.wrong("/parameters/" + at + "/initial", fault.message());
        }
        List<Setting> settings = new ArrayList<>();
        settings.add(new Setting(Map.of(), usual.values()));
        for (ParameterType parameter : type.parameters()) {
            for (String end : ends(parameter, usual.values())) {
                Map<String, String> chosen = Map.of(parameter.name(), end);
                ParameterValues.Outcome outcome = ParameterValues.of(type, chosen);
                if (outcome.faults().isEmpty()) {
                    settings.add(new Setting(chosen, outcome.values()));
                }
            }
        }
        return settings;
    }

    private static List<String> ends(ParameterType parameter, Map<String, Value> values) {
        return switch (parameter.form()) {
            case BOOLEAN -> List.of("0", "1");
            case CHOICE -> parameter.choices().stream().map(ParameterType.Choice::value).toList();
            case TEXT, NUMBERS, REAL -> List.of();
            case INTEGER, ADDRESS, SIZE -> limits(parameter, values);
        };
    }

    private static List<String> limits(ParameterType parameter, Map<String, Value> values) {
        List<String> ends = new ArrayList<>();
        for (Expression limit : new Expression[] {parameter.minimum(), parameter.maximum()}) {
            if (limit != null) {
                try {
                    ends.add(limit.evaluate(values).asNumber().toString());
                } catch (ExpressionException wrong) {
                    // It is reported where the expression stands.
                    continue;
                }
            }
        }
        return ends;
    }
}
