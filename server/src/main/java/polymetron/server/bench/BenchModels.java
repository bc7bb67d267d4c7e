package polymetron.server.bench;

import java.nio.file.Path;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import polymetron.bench.foreign.ForeignModels;

/** Models of blocks that people have written; what was built is kept in a folder, and can be thrown away. */
@Component
class BenchModels {
    private final ForeignModels models;

    BenchModels(@Value("${polymetron.models}") String folder) {
        this.models = new ForeignModels(Path.of(folder));
    }

    ForeignModels models() {
        return models;
    }
}
