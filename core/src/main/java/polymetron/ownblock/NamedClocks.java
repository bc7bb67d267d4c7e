package polymetron.ownblock;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * Which of the clocks of a module something belongs to, by words of their names: {@code axis_aclk} is that of {@code s_axis_tdata}
 * and of {@code axis_aresetn}, {@code s_axi_aclk} that of {@code s_axi_awaddr}. Of several the one with most words.
 */
final class NamedClocks {
    private static final String CLOCK = "_?[aphs]?(clk|clock)(_i|_in)?\\d?$";

    /** Words of each clock without the one that says that it is one, by its name in the block. */
    private final Map<String, List<String>> words = new LinkedHashMap<>();

    private final Map<String, String> ports = new HashMap<>();

    /**
     * @param port the module's
     * @param name what the block calls it
     */
    void add(String port, String name) {
        ports.put(name, port);
        words.put(name, words(port.toLowerCase(Locale.ROOT).replaceFirst(CLOCK, "")));
    }

    private static List<String> words(String name) {
        List<String> words = new ArrayList<>();
        for (String each : name.toLowerCase(Locale.ROOT).split("_")) {
            if (!each.isEmpty()) {
                words.add(each);
            }
        }
        return words;
    }

    boolean areSeveral() {
        return words.size() > 1;
    }

    List<String> names() {
        return List.copyOf(words.keySet());
    }

    /**
     * The clock of what has this name or begins so: the one whose words are all in it, else one that has none, else the first.
     */
    String of(String name) {
        Set<String> its = new HashSet<>(words(name));
        String best = null;
        for (Map.Entry<String, List<String>> each : words.entrySet()) {
            boolean fits = its.containsAll(each.getValue());
            if (fits && (best == null || each.getValue().size() > words.get(best).size())) {
                best = each.getKey();
            }
        }
        return best == null ? words.keySet().iterator().next() : best;
    }

    /** What is said of something beside its role: nothing where there is no choice. */
    String said(String name) {
        if (!areSeveral()) {
            return "";
        }
        List<String> words = this.words.get(of(name));
        boolean isNamed = !words.isEmpty() && words(name).containsAll(words);
        return "; in %s, %s"
                .formatted(
                        ports.get(of(name)),
                        isNamed ? "which is named like it" : "as no clock is named like it");
    }
}
