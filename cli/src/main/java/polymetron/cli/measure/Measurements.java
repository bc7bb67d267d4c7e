package polymetron.cli.measure;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/**
 * All measurements, one after the other, as ratios to something outside that is measured in the same run on the same
 * machine. A ratio says more than a time: it survives a change of machine.
 */
public final class Measurements {
    private Measurements() {}

    /** Measures and returns the report as Markdown. */
    public static String run(PrintWriter progress) throws Exception {
        Path folder = Files.createTempDirectory("polymetron-measure");
        try {
            StringBuilder report = new StringBuilder(Machine.describe());
            for (Measurement each :
                    List.of(
                            new CheckSpeed(),
                            new PlanSpeed(),
                            new SimulatorSpeed(folder),
                            new BenchSpeed(),
                            new HexSpeed(folder),
                            new HardwareSpeed(folder),
                            new OwnBlockSpeed(folder))) {
                progress.println("measuring: " + each.title());
                report.append("\n## ").append(each.title()).append("\n\n").append(each.measure());
            }
            return report.toString();
        } finally {
            delete(folder);
        }
    }

    private static void delete(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(file);
            }
        }
    }
}
