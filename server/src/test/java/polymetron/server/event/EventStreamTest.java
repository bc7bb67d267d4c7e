package polymetron.server.event;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.Shipped;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import tools.jackson.databind.JsonNode;

/** The one stream of a browser, and what can go wrong around it. */
@ExtendWith(OneServer.class)
final class EventStreamTest {
    private final RunningServer server;

    EventStreamTest(RunningServer server) {
        this.server = server;
    }

    private void rename(String id, long revision) {
        assertThat(
                        server.post(
                                        "/api/platforms/" + id + "/edits",
                                        Map.of(
                                                "revision",
                                                revision,
                                                "edit",
                                                Map.of(
                                                        "edit",
                                                        "rename-platform",
                                                        "name",
                                                        "Name " + revision)))
                                .status())
                .isEqualTo(200);
    }

    private static void isRevision(JsonNode event, String id, long revision) {
        assertThat(event.path("platform").asString()).isEqualTo(id);
        assertThat(event.path("revision").asLong()).isEqualTo(revision);
    }

    /** The next revision that is not said again: the database may tell of what was there already, a moment late. */
    private static JsonNode newer(Heard heard, List<String> before) throws Exception {
        JsonNode event = heard.next("revision");
        while (before.contains(event.toString())) {
            event = heard.next("revision");
        }
        return event;
    }

    @Test
    void tellsOfSeveralPlatformsFromTheNewestRevisionOn() throws Exception {
        String one = server.create("First of two", "station");
        String other = server.create("Second of two", null);
        rename(one, 1);
        try (Heard heard = Heard.from(server, "platform=" + one + "&platform=" + other)) {
            heard.next("hello");
            List<String> begun = new ArrayList<>();
            begun.add(heard.next("revision").toString());
            begun.add(heard.next("revision").toString());
            assertThat(begun)
                    .containsExactlyInAnyOrder(
                            "{\"platform\":\"%s\",\"revision\":2}".formatted(one),
                            "{\"platform\":\"%s\",\"revision\":1}".formatted(other));
            rename(other, 1);
            isRevision(newer(heard, begun), other, 2);
            rename(one, 2);
            isRevision(newer(heard, begun), one, 3);
            server.send(server.request("/api/platforms/" + one).DELETE().build());
            assertThat(heard.next("gone").path("platform").asString()).isEqualTo(one);
            server.post("/api/removed-platforms/" + one + "/bring-back", "{}");
            isRevision(heard.next("revision"), one, 3);
        }
    }

    @Test
    void aPlatformThatIsNotThereIsGoneFromTheBeginning() throws Exception {
        String missing = "00000000-0000-4000-8000-000000000000";
        try (Heard heard = Heard.from(server, "platform=" + missing)) {
            assertThat(heard.next("gone").path("platform").asString()).isEqualTo(missing);
        }
    }

    /** Whoever has a login may send on the channel. */
    @Test
    void nonsenseOnTheChannelEndsNothing() throws Exception {
        String id = server.create("Undisturbed", null);
        try (Heard heard = Heard.from(server, "platform=" + id)) {
            isRevision(heard.next("revision"), id, 1);
            for (String payload : List.of("", ":", "x", "x:1", id, id + ":", id + ":many")) {
                send("select pg_notify('polymetron_revision', '%s')".formatted(payload));
            }
            rename(id, 1);
            isRevision(heard.next("revision"), id, 2);
        }
        assertThat(server.get("/actuator/health").json().path("status").asString()).isEqualTo("UP");
    }

    /** As when an administrator ends the connection on which the server listens. */
    @Test
    void theListeningConnectionIsMadeAgain() throws Exception {
        String id = server.create("Heard again", null);
        try (Heard heard = Heard.from(server, "platform=" + id)) {
            isRevision(heard.next("revision"), id, 1);
            send(
                    "select pg_terminate_backend(pid) from pg_stat_activity where application_name"
                            + " = 'polymetron events'");
            rename(id, 1);
            isRevision(heard.next("revision"), id, 2);
        }
    }

    private void send(String statement) throws SQLException {
        try (Connection connection =
                        DriverManager.getConnection(server.database().url(), "polymetron", "");
                Statement sql = connection.createStatement()) {
            sql.execute(statement);
        }
    }

    @Test
    void aReaderThatReadsNothingDelaysNobody() throws Exception {
        String id = server.create("Read by some", null);
        List<Socket> slow = new ArrayList<>();
        try (Heard heard = Heard.from(server, "platform=" + id)) {
            for (int reader = 0; reader < 20; reader++) {
                slow.add(open(id));
            }
            isRevision(heard.next("revision"), id, 1);
            for (long revision = 1; revision <= 200; revision++) {
                rename(id, revision);
            }
            JsonNode last = heard.next("revision");
            while (last.path("revision").asLong() < 201) {
                last = heard.next("revision");
            }
        } finally {
            for (Socket socket : slow) {
                socket.close();
            }
        }
    }

    /** Takes the smallest window there is, and reads nothing. */
    private Socket open(String id) throws IOException {
        Socket socket = new Socket();
        socket.setReceiveBufferSize(1);
        socket.connect(new java.net.InetSocketAddress("127.0.0.1", server.port()));
        socket.getOutputStream()
                .write(
                        "GET /api/events?platform=%s HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n"
                                .formatted(id)
                                .getBytes(StandardCharsets.US_ASCII));
        return socket;
    }

    @Test
    void aBenchIsShownAsLongAsItIsThere() throws Exception {
        String id =
                server.upload(
                                "/api/platforms/import?name=ridge-station.json",
                                Shipped.file("demo/ridge-station.json"))
                        .json()
                        .path("id")
                        .asString();
        String platform = "/api/platforms/" + id;
        String program =
                server.upload(platform + "/programs?name=demo.elf", Shipped.demoProgram())
                        .json()
                        .path("id")
                        .asString();
        try (Heard heard = Heard.from(server, "bench=" + id)) {
            assertThat(heard.next("unloaded").path("platform").asString()).isEqualTo(id);
            server.post(platform + "/bench", Map.of("program", program));
            JsonNode first = heard.next("frame");
            assertThat(first.path("fresh").asBoolean()).isTrue();
            assertThat(first.path("state").path("mode").asString()).isEqualTo("paused");
            server.post(platform + "/bench/run", "{}");
            assertThat(heard.next("frame").path("fresh").asBoolean()).isFalse();
            server.post(platform + "/bench", Map.of("program", program));
            JsonNode again = heard.next("frame");
            while (!again.path("fresh").asBoolean()) {
                again = heard.next("frame");
            }
            assertThat(again.path("load")).isNotEqualTo(first.path("load"));
            server.send(server.request(platform + "/bench").DELETE().build());
            heard.next("unloaded");
        }
    }

    @Test
    void tooManyPlatformsAreRefused() {
        String query = "platform=00000000-0000-4000-8000-000000000000&".repeat(201);
        assertThat(server.get("/api/events?" + query).status()).isEqualTo(422);
    }
}
