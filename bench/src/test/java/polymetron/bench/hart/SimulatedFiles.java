package polymetron.bench.hart;

import java.util.List;
import java.util.stream.Stream;

/** Command lines of simulators. */
final class SimulatedFiles {
    private SimulatedFiles() {}

    static String[] command(String start, List<String> files) {
        return Stream.concat(Stream.of(start.split(" ")), files.stream()).toArray(String[]::new);
    }
}
