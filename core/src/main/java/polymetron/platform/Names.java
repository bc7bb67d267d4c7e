package polymetron.platform;

import java.text.Normalizer;
import java.util.Collection;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/** What things of a platform may be called: a name that is legal in C, Verilog and devicetree alike. */
public final class Names {
    public static final String RULE =
            "a name begins with a lower-case letter and goes on with lower-case letters, digits and"
                    + " single '_', at most 32 of them";
    private static final Pattern NAME = Pattern.compile("[a-z](?:_?[a-z0-9]+)*");

    private Names() {}

    /** Why a name is refused that is missing or does not keep to the rule. */
    public static String refusal(String name) {
        return name == null || name.isBlank()
                ? "the name is missing: " + RULE
                : "'%s' cannot be a name: %s".formatted(name, RULE);
    }

    public static boolean isName(String text) {
        return text != null && text.length() <= 32 && NAME.matcher(text).matches();
    }

    /** The wished name, or the first of {@code wish_2}, {@code wish_3}, … that is free. */
    public static String free(String wish, Collection<String> taken) {
        Set<String> known = taken instanceof Set<String> set ? set : new HashSet<>(taken);
        String name = wish;
        for (int number = 2; known.contains(name); number++) {
            name = wish + "_" + number;
        }
        return name;
    }

    /** A name made from a title: {@code Ridge Station} gives {@code ridge_station}, and an accent is left out. */
    public static String fromTitle(String title) {
        String letters =
                Normalizer.normalize(title, Normalizer.Form.NFKD)
                        .replaceAll("\\p{M}+", "")
                        .toLowerCase(Locale.ROOT)
                        .replaceAll("[^a-z0-9]+", "_")
                        .replaceAll("^[_0-9]+|_+$", "");
        String name = letters.isEmpty() ? "platform" : letters;
        return name.length() <= 32 ? name : name.substring(0, 32).replaceAll("_+$", "");
    }
}
