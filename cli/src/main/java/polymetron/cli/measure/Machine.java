package polymetron.cli.measure;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;

/** What the figures were measured on. */
final class Machine {
    private Machine() {}

    static String describe() {
        return """
        # Measurements

        Written by `./polymetron measure`; not by hand. Each figure stands beside an outside one that was measured in
        the same run: read the ratios, not the times.

        Machine: %s, %d processors; Java %s.
        """
                .formatted(
                        processor(), Runtime.getRuntime().availableProcessors(), Runtime.version());
    }

    private static String processor() {
        try {
            return Files.readAllLines(Path.of("/proc/cpuinfo")).stream()
                    .filter(line -> line.startsWith("model name"))
                    .map(line -> line.substring(line.indexOf(':') + 1).strip())
                    .findFirst()
                    .orElse(System.getProperty("os.arch"));
        } catch (IOException unknown) {
            return System.getProperty("os.arch");
        }
    }

    static String millis(double nanos) {
        return String.format(Locale.ROOT, "%.1f ms", nanos / 1e6);
    }

    static String ratio(double value) {
        return String.format(Locale.ROOT, "%.2f", value);
    }

    /** A row of a table: what was timed, both times and their ratio. */
    static String row(String what, Repeat.Pair pair) {
        return "| %s | %s | %s | %s |%n"
                .formatted(what, millis(pair.one()), millis(pair.other()), ratio(pair.ratio()));
    }
}
