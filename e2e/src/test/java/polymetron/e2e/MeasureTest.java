package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.BufferedReader;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import polymetron.platform.LargeDocument;
import polymetron.server.RunningServer;
import tools.jackson.databind.json.JsonMapper;

/**
 * Measures what needs the whole application: an edit until every browser is told, and how fluently a large picture
 * moves. Part of {@code ./polymetron measure}; writes its part of the report into the file that the property names.
 */
@EnabledIfSystemProperty(named = "polymetron.measure", matches = ".+")
final class MeasureTest extends BrowserTest {
    private static final int ROUNDS = 40;
    private static final int WARM_UP = 60;

    private final StringBuilder report = new StringBuilder();

    MeasureTest(RunningServer server) {
        super(server);
    }

    @Test
    void report() throws Exception {
        edits();
        frames();
        Files.writeString(Path.of(System.getProperty("polymetron.measure")), report);
    }

    private String importLarge(int blocks) {
        return server.upload(
                        "/api/platforms/import?name=large.json",
                        LargeDocument.of(blocks).getBytes(StandardCharsets.UTF_8))
                .json()
                .get("id")
                .stringValue();
    }

    /** Tells the time at which each new revision reaches a listening browser. */
    private BlockingQueue<Long> listen(String id) throws Exception {
        HttpResponse<InputStream> stream =
                server.client()
                        .send(
                                server.request("/api/events?platform=" + id).GET().build(),
                                HttpResponse.BodyHandlers.ofInputStream());
        BlockingQueue<Long> told = new ArrayBlockingQueue<>(1000);
        BufferedReader lines =
                new BufferedReader(new InputStreamReader(stream.body(), StandardCharsets.UTF_8));
        // First comes what is newest already.
        String begun = lines.readLine();
        while (begun != null && !begun.startsWith("event:revision")) {
            begun = lines.readLine();
        }
        Thread.ofVirtual()
                .start(
                        () ->
                                lines.lines()
                                        .filter(line -> line.startsWith("event:revision"))
                                        .forEach(line -> told.add(System.nanoTime())));
        return told;
    }

    private void edits() throws Exception {
        JsonMapper mapper = new JsonMapper();
        report.append("\n## One edit, until every browser is told\n\n")
                .append(
                        "| blocks | answered | told | JSON parse of the document | ratio (told)"
                                + " |\n")
                .append("|---:|---:|---:|---:|---:|\n");
        for (int blocks : List.of(25, 300, 1000)) {
            String id = importLarge(blocks);
            String text = LargeDocument.of(blocks);
            BlockingQueue<Long> told = listen(id);
            double[] answered = new double[ROUNDS];
            double[] heard = new double[ROUNDS];
            double[] parsed = new double[ROUNDS];
            for (int round = -WARM_UP; round < ROUNDS; round++) {
                String edit =
                        """
                        {"revision": %d, "edit": {"edit": "set-parameter", "block": "port12",
                         "parameter": "WIDTH", "value": "%d"}}
                        """
                                .formatted(round + WARM_UP + 1, 1 + (round & 7));
                long start = System.nanoTime();
                int status = server.post("/api/platforms/" + id + "/edits", edit).status();
                long end = System.nanoTime();
                Long news = told.poll(10, TimeUnit.SECONDS);
                if (status != 200 || news == null) {
                    throw new IllegalStateException("edit %s: %s".formatted(round, status));
                }
                long parse = System.nanoTime();
                mapper.readTree(text);
                long parseEnd = System.nanoTime();
                if (round >= 0) {
                    answered[round] = end - start;
                    heard[round] = Math.max(end, news) - start;
                    parsed[round] = parseEnd - parse;
                }
            }
            report.append(
                    String.format(
                            Locale.ROOT,
                            "| %d | %.1f ms | %.1f ms | %.2f ms | %.1f |%n",
                            blocks,
                            at(answered, 0.5),
                            at(heard, 0.5),
                            at(parsed, 0.5),
                            at(heard, 0.5) / at(parsed, 0.5)));
        }
        report.append(
                "\n"
                    + "One edit over HTTP: read the newest document, apply, store, notify, and the"
                    + " event at a listening client. Reading\n"
                    + "and checking for the picture comes with the next request and is in the table"
                    + " above.\n");
    }

    /** A percentile in milliseconds. */
    private static double at(double[] nanos, double part) {
        double[] sorted = nanos.clone();
        Arrays.sort(sorted);
        return sorted[(int) Math.min(sorted.length - 1, part * sorted.length)] / 1e6;
    }

    private void frames() {
        report.append(
                        "\n"
                            + "## Frames while the picture is moved, in headless Chromium without a"
                            + " GPU\n\n")
                .append(
                        "| blocks | median frame | 95 of 100 frames | select a block until it is"
                                + " drawn | ratio of the medians to 8 blocks |\n")
                .append("|---:|---:|---:|---:|---:|\n");
        double small = 0;
        for (int blocks : List.of(8, 300)) {
            Page page = browser.open("/p/" + importLarge(blocks) + "/compose");
            assertThat(card(page, "console")).isVisible();
            page.waitForTimeout(1000);
            double[] frames = millis(page, PAN);
            double[] selections = millis(page, SELECT);
            double median = at(frames, 0.5);
            small = small == 0 ? median : small;
            report.append(
                    String.format(
                            Locale.ROOT,
                            "| %d | %.1f ms | %.1f ms | %.1f ms | %.2f |%n",
                            blocks,
                            median,
                            at(frames, 0.95),
                            at(selections, 0.5),
                            median / small));
        }
        report.append("\nAim: no input waits more than 50 ms at 300 blocks.\n");
    }

    private static double[] millis(Page page, String script) {
        List<?> values = (List<?>) page.evaluate(script);
        return values.stream().mapToDouble(each -> ((Number) each).doubleValue() * 1e6).toArray();
    }

    private static final String PAN =
            """
            async () => {
                const frame = document.querySelector('[aria-label="Picture of the platform"]')
                const times = []
                let last = performance.now()
                for (let at = 0; at < 150; at++) {
                    frame.scrollTop = (at % 75) * 40
                    await new Promise(requestAnimationFrame)
                    const now = performance.now()
                    times.push(now - last)
                    last = now
                }
                return times.slice(10)
            }
            """;

    private static final String SELECT =
            """
            async () => {
                const cards = [...document.querySelectorAll('[data-block]')].slice(0, 30)
                const times = []
                for (const card of cards) {
                    const start = performance.now()
                    card.click()
                    await new Promise(requestAnimationFrame)
                    await new Promise((done) => setTimeout(done))
                    times.push(performance.now() - start)
                    await new Promise((done) => setTimeout(done, 120))
                }
                return times
            }
            """;
}
