package polymetron.everything;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads the macros of a header, and writes a program that holds them against other values. */
final class HeaderText {
    private static final Pattern DEFINE =
            Pattern.compile("^#define ([A-Za-z_0-9]+)(\\([a-z]+\\))? (.*)$", Pattern.MULTILINE);

    private HeaderText() {}

    /** The header's macros but those by which it is written. */
    static Map<String, String> macros(String header) {
        Map<String, String> macros = new LinkedHashMap<>();
        Matcher matcher = DEFINE.matcher(header);
        while (matcher.find()) {
            String name = matcher.group(1);
            boolean isOwn = name.matches("PLATFORM_(U|ULL|CHECK|NAME|FINGERPRINT(_HIGH|_LOW)?)");
            if (!isOwn) {
                macros.put(name, matcher.group(3));
            }
        }
        return macros;
    }

    /** The name of a macro without its argument. */
    static String name(String macro) {
        return macro.replaceAll("\\(.*", "");
    }

    /** A program that a compiler accepts when every macro has its value. */
    static String asserts(String header, Map<String, String> expected) {
        StringBuilder text = new StringBuilder();
        // Every header of the standard library that a program may want beside this one.
        for (String standard :
                new String[] {
                    "limits", "stdint", "stddef", "stdbool", "float", "stdarg", "iso646"
                }) {
            text.append("#include <%s.h>\n".formatted(standard));
        }
        text.append("#include \"%s\"\n".formatted(header));
        text.append(
                "#ifdef __cplusplus\n"
                        + "#define IS static_assert\n"
                        + "#else\n"
                        + "#define IS _Static_assert\n"
                        + "#endif\n");
        expected.forEach(
                (macro, value) -> {
                    if (value.matches("-?\\d+")) {
                        text.append(
                                "IS((unsigned long long)(%s) == %sull, \"%s\");\n"
                                        .formatted(macro, value, macro));
                    } else {
                        text.append(
                                "IS(sizeof %s == sizeof %s, \"%s\");\n"
                                        .formatted(macro, value, macro));
                    }
                });
        return text.append("extern int nothing;\n").toString();
    }
}
