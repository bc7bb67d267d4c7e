package polymetron.bench.foreign;

import java.nio.file.Path;

/** Models of own blocks with one folder for all tests: what Verilator brings along is compiled once for all of them. */
public final class SharedModels {
    private SharedModels() {}

    public static ForeignModels get() {
        return new ForeignModels(Path.of("target/models").toAbsolutePath());
    }
}
