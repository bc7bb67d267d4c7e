package polymetron.server.event;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import polymetron.server.RunningServer;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A stream of events and what has come on it. */
public final class Heard implements AutoCloseable {
    private static final int PATIENCE_SECONDS = 20;

    /** One event. */
    public record Event(String name, JsonNode data) {}

    private final HttpResponse<InputStream> response;
    private final BlockingQueue<Event> events = new LinkedBlockingQueue<>();

    private Heard(HttpResponse<InputStream> response) {
        this.response = response;
    }

    public static Heard from(RunningServer server, String query)
            throws IOException, InterruptedException {
        Heard heard =
                new Heard(
                        server.client()
                                .send(
                                        server.request("/api/events?" + query).build(),
                                        HttpResponse.BodyHandlers.ofInputStream()));
        Thread.ofVirtual().start(heard::listen);
        return heard;
    }

    private void listen() {
        JsonMapper mapper = new JsonMapper();
        try (BufferedReader reader =
                new BufferedReader(
                        new InputStreamReader(response.body(), StandardCharsets.UTF_8))) {
            String name = "";
            for (String line = reader.readLine(); line != null; line = reader.readLine()) {
                if (line.startsWith("event:")) {
                    name = line.substring(6);
                } else if (line.startsWith("data:")) {
                    events.add(new Event(name, mapper.readTree(line.substring(5))));
                }
            }
        } catch (IOException | UncheckedIOException end) {
            // The test has heard enough.
        }
        events.add(new Event("end", mapper.createObjectNode()));
    }

    /** The next event of a name; others before it are passed over. */
    public JsonNode next(String name) throws InterruptedException {
        while (true) {
            Event event = events.poll(PATIENCE_SECONDS, TimeUnit.SECONDS);
            if (event == null || event.name().equals("end") && !name.equals("end")) {
                throw new AssertionError("no event " + name + " came; instead " + event);
            }
            if (event.name().equals(name)) {
                return event.data();
            }
        }
    }

    @Override
    public void close() throws IOException {
        response.body().close();
    }
}
