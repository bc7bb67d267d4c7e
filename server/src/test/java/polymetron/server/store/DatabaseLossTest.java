package polymetron.server.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;

/** The database dies in the middle of editing and comes back: what was acknowledged is there. */
final class DatabaseLossTest {
    @Test
    void nothingAcknowledgedIsLost() throws Exception {
        try (RunningServer server = RunningServer.start()) {
            String id = server.create("Survivor", "station");
            AtomicLong acknowledged = new AtomicLong(1);
            AtomicLong refused = new AtomicLong();
            Thread editing =
                    Thread.ofPlatform()
                            .start(
                                    () -> {
                                        while (refused.get() == 0 && acknowledged.get() < 5_000) {
                                            Answer answer = rename(server, id, acknowledged.get());
                                            if (answer.status() == 200) {
                                                acknowledged.incrementAndGet();
                                            } else {
                                                refused.set(answer.status());
                                            }
                                        }
                                    });
            while (acknowledged.get() < 20) {
                Thread.sleep(1);
            }
            server.database().kill();
            editing.join();
            assertThat(refused.get()).as("storage cannot be reached").isEqualTo(503);
            Answer down = rename(server, id, acknowledged.get());
            assertThat(down.status()).isEqualTo(503);
            assertThat(down.json().path("detail").asString()).contains("not stored");

            server.database().up();
            Answer back = server.get("/api/platforms/" + id);
            for (int wait = 0; back.status() != 200 && wait < 100; wait++) {
                Thread.sleep(100);
                back = server.get("/api/platforms/" + id);
            }
            long stored = back.json().path("revision").asLong();
            // The edit that was under way may have been stored without its answer getting out.
            assertThat(stored).isBetween(acknowledged.get(), acknowledged.get() + 1);
            assertThat(back.json().path("name").asString()).isEqualTo("Survivor " + (stored - 1));
            assertThat(rename(server, id, stored).status()).isEqualTo(200);
        }
    }

    private static Answer rename(RunningServer server, String id, long revision) {
        return server.post(
                "/api/platforms/" + id + "/edits",
                Map.of(
                        "revision",
                        revision,
                        "edit",
                        Map.of("edit", "rename-platform", "name", "Survivor " + revision)));
    }
}
