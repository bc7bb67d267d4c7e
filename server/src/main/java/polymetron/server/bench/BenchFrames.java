package polymetron.server.bench;

import jakarta.annotation.Nullable;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import org.springframework.stereotype.Component;
import polymetron.bench.live.BenchState;
import polymetron.bench.live.LiveBench;
import polymetron.server.event.Topic;

/** What a bench shows, told as long as something changes; the console from the start. */
@Component
final class BenchFrames implements Topic {
    private final Benches benches;

    BenchFrames(Benches benches) {
        this.benches = benches;
    }

    /**
     * @param fresh whether the console begins here, because the bench was loaded or the stream has begun
     * @param load tells one loading of the bench from another
     */
    record FrameView(UUID platform, String load, boolean fresh, StateView state, String console) {}

    @Override
    public Watch watch(UUID platform) {
        return new Watch() {
            private boolean begun;
            @Nullable private String shown;
            private long position;
            @Nullable private BenchState before;

            @Override
            public void tellNews(Teller teller) throws IOException {
                Benches.Loaded loaded = benches.find(platform).orElse(null);
                String load = loaded == null ? null : loaded.load();
                boolean fresh = !Objects.equals(load, shown) || !begun;
                begun = true;
                shown = load;
                if (loaded == null) {
                    if (fresh) {
                        teller.tell("unloaded", Map.of("platform", platform));
                    }
                    return;
                }
                if (fresh) {
                    position = 0;
                }
                LiveBench bench = loaded.bench();
                LiveBench.Said said = bench.consoleSince(position);
                BenchState now = bench.state();
                position = said.end();
                if (fresh || said.bytes().length > 0 || !now.equals(before)) {
                    before = now;
                    teller.tell(
                            "frame",
                            new FrameView(
                                    platform,
                                    load,
                                    fresh,
                                    StateView.of(now),
                                    new String(said.bytes(), StandardCharsets.ISO_8859_1)));
                }
            }
        };
    }
}
