package polymetron.server.event;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;
import tools.jackson.databind.JsonNode;

/**
 * Many editors on several platforms while many browsers look: every edit is taken, and every browser hears of the newest
 * revision. In the usual run with a part of them; with {@code -Dpolymetron.streams=500 -Dpolymetron.editors=200} all.
 */
@ExtendWith(OneServer.class)
final class ManyBrowsersTest {
    private static final int STREAMS = Integer.getInteger("polymetron.streams", 60);
    private static final int EDITORS = Integer.getInteger("polymetron.editors", 24);
    private static final int EDITS = 5;
    private static final int PLATFORMS = 8;

    private final RunningServer server;
    private final ConcurrentLinkedQueue<Long> nanos = new ConcurrentLinkedQueue<>();

    ManyBrowsersTest(RunningServer server) {
        this.server = server;
    }

    @Test
    void everybodyIsTold() throws Exception {
        List<String> ids = new ArrayList<>();
        for (int each = 0; each < PLATFORMS; each++) {
            ids.add(server.create("Looked at " + each, "station"));
        }
        List<Heard> browsers = new ArrayList<>();
        try {
            for (int each = 0; each < STREAMS; each++) {
                browsers.add(Heard.from(server, "platform=" + ids.get(each % PLATFORMS)));
            }
            long began = System.nanoTime();
            List<Future<?>> editors = new ArrayList<>();
            try (var people = Executors.newVirtualThreadPerTaskExecutor()) {
                for (int each = 0; each < EDITORS; each++) {
                    String id = ids.get(each % PLATFORMS);
                    String block = "extra" + each;
                    editors.add(people.submit(() -> edit(id, block)));
                }
            }
            for (Future<?> each : editors) {
                each.get();
            }
            double seconds = (System.nanoTime() - began) / 1e9;
            for (int each = 0; each < STREAMS; each++) {
                long newest = revision(ids.get(each % PLATFORMS));
                JsonNode heard = browsers.get(each).next("revision");
                while (heard.path("revision").asLong() < newest) {
                    heard = browsers.get(each).next("revision");
                }
            }
            List<Long> sorted = nanos.stream().sorted().toList();
            System.out.printf(
                    "%s editors, %s streams: %s edits in %.1f s; an edit took %.0f ms (median),"
                            + " %.0f ms (19 of 20)%n",
                    EDITORS,
                    STREAMS,
                    sorted.size(),
                    seconds,
                    sorted.get(sorted.size() / 2) / 1e6,
                    sorted.get(sorted.size() * 19 / 20) / 1e6);
        } finally {
            for (Heard each : browsers) {
                each.close();
            }
        }
    }

    private long revision(String id) {
        return server.get("/api/platforms/" + id).json().path("revision").asLong();
    }

    private void edit(String id, String block) {
        long seen = revision(id);
        List<Long> own = new ArrayList<>();
        for (int each = 0; each < EDITS; each++) {
            long start = System.nanoTime();
            Answer answer =
                    server.post(
                            "/api/platforms/" + id + "/edits",
                            Map.of(
                                    "revision",
                                    seen,
                                    "own",
                                    own,
                                    "edit",
                                    Map.of(
                                            "edit",
                                            "add-block",
                                            "name",
                                            block + "_" + each,
                                            "type",
                                            "polymetron:io:gpio:1.0")));
            nanos.add(System.nanoTime() - start);
            assertThat(answer.status()).as(answer.text()).isEqualTo(200);
            own.add(answer.json().path("revision").asLong());
        }
    }
}
