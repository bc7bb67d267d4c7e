package polymetron.everything;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Values of a definition's expressions, worked out by a Verilog simulator: all expressions of a platform in one run. The
 * expressions are constant expressions of IEEE 1800, so the simulator says what they mean.
 */
final class VerilogConstants {
    private static final Pattern NAME = Pattern.compile("(?<![\\w$'.\"])[A-Z][A-Z0-9_]*(?!\\w)");
    private final Path folder;
    private final Map<String, Map<String, String>> parameters = new LinkedHashMap<>();
    private final Map<String, List<String>> wanted = new LinkedHashMap<>();
    private Map<String, String> values;

    VerilogConstants(Path folder) {
        this.folder = folder;
    }

    /** Gives a block its parameters, each an expression or a text in quotes, and its clock. */
    void block(String name, Map<String, String> expressions) {
        parameters.put(name, expressions);
        wanted.put(name, new ArrayList<>());
    }

    void want(String block, String expression) {
        if (!isOfList(expression)) {
            wanted.get(block).add(expression);
        }
    }

    /** A whole number that an expression of a block gives. */
    long number(String block, String expression) {
        String text = text(block, expression);
        return text.contains(".") || text.contains("e")
                ? (long) Double.parseDouble(text)
                : Long.parseLong(text);
    }

    /** A number of a list, which is no function of Verilog: the first one. */
    private static final String ITEM = "$item(";

    private static boolean isOfList(String expression) {
        return expression.startsWith(ITEM);
    }

    boolean isTrue(String block, String expression) {
        return number(block, expression) != 0;
    }

    String text(String block, String expression) {
        if (values == null) {
            values = run();
        }
        if (isOfList(expression)) {
            String list = text(block, expression.substring(ITEM.length(), expression.indexOf(',')));
            return list.isEmpty() ? "0" : list.split(",")[0].strip();
        }
        String value = values.get(block + "\n" + expression);
        if (value == null) {
            throw new IllegalStateException(block + ": not requested: " + expression);
        }
        return value;
    }

    private Map<String, String> run() {
        StringBuilder text = new StringBuilder();
        List<String> order = new ArrayList<>();
        int block = 0;
        for (Map.Entry<String, Map<String, String>> each : parameters.entrySet()) {
            text.append("module b%s;\n".formatted(block));
            for (Map.Entry<String, String> parameter : sorted(each.getValue())) {
                text.append(
                        "localparam %s = %s;\n"
                                .formatted(parameter.getKey(), verilog(parameter.getValue())));
            }
            text.append("initial begin #%s;\n".formatted(block + 1));
            for (String expression : wanted.get(each.getKey())) {
                boolean isText = each.getValue().getOrDefault(expression, "").startsWith("\"");
                boolean isReal = isReal(expression, each.getValue());
                text.append(
                        "$display(\"%s\", %s);\n"
                                .formatted(
                                        isText ? "%0s" : isReal ? "%g" : "%0d",
                                        verilog(expression)));
                order.add(each.getKey() + "\n" + expression);
            }
            text.append("end\nendmodule\n");
            block++;
        }
        text.append("module top;\n");
        for (int index = 0; index < block; index++) {
            text.append("b%s i%s();\n".formatted(index, index));
        }
        text.append("endmodule\n");
        return read(order, text.toString());
    }

    /** Whether a parameter is a fraction: only those are looked up by name. */
    private static boolean isReal(String expression, Map<String, String> parameters) {
        return parameters.getOrDefault(expression, "").matches("[0-9]+\\.[0-9]+|.*_REAL");
    }

    private Map<String, String> read(List<String> order, String text) {
        try {
            Files.writeString(folder.resolve("constants.v"), text);
            shell("iverilog", "-g2012", "-s", "top", "-o", "constants", "constants.v");
            String[] lines = shell("vvp", "-n", "constants").split("\n", -1);
            Map<String, String> found = new HashMap<>();
            for (int index = 0; index < order.size(); index++) {
                found.put(order.get(index), lines[index].strip());
            }
            return found;
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }

    private String shell(String... command) throws IOException {
        Path log = folder.resolve("log");
        Process process =
                new ProcessBuilder(command)
                        .directory(folder.toFile())
                        .redirectErrorStream(true)
                        .redirectOutput(log.toFile())
                        .start();
        try {
            if (!process.waitFor(60, TimeUnit.SECONDS) || process.exitValue() != 0) {
                throw new AssertionError(
                        String.join(" ", command)
                                + ":\n"
                                + Files.readString(log, StandardCharsets.ISO_8859_1));
            }
        } catch (InterruptedException end) {
            throw new IllegalStateException(end);
        }
        return Files.readString(log, StandardCharsets.ISO_8859_1);
    }

    /** Each after those that it refers to. */
    private static List<Map.Entry<String, String>> sorted(Map<String, String> all) {
        Map<String, String> left = new LinkedHashMap<>(all);
        List<Map.Entry<String, String>> sorted = new ArrayList<>();
        while (!left.isEmpty()) {
            int before = left.size();
            for (Map.Entry<String, String> each : List.copyOf(left.entrySet())) {
                Matcher names = NAME.matcher(each.getValue());
                boolean ready = true;
                while (names.find()) {
                    ready &= !left.containsKey(names.group()) || each.getValue().startsWith("\"");
                }
                if (ready) {
                    sorted.add(each);
                    left.remove(each.getKey());
                }
            }
            if (left.size() == before) {
                throw new IllegalStateException("parameters refer to each other: " + left);
            }
        }
        return sorted;
    }

    /** Hexadecimal as people write it becomes hexadecimal of the standard; wide decimals get their width. */
    private static String verilog(String expression) {
        String hex = expression.replaceAll("\\b0x([0-9A-Fa-f_]+)", "64'h$1");
        return hex.startsWith("\"")
                ? hex
                : hex.replaceAll("(?<![\\w.'])(\\d{10,})(?![\\w.'])", "64'd$1");
    }
}
