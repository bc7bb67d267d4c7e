package polymetron.server;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.springframework.boot.WebApplicationType;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The whole application on a free port over a throw-away database, and a client that speaks to it. */
public final class RunningServer implements AutoCloseable {
    private static final JsonMapper MAPPER = new JsonMapper();

    private final HttpClient client = HttpClient.newHttpClient();
    private final TestDatabase database;
    private final ConfigurableApplicationContext application;

    private RunningServer(TestDatabase database, ConfigurableApplicationContext application) {
        this.database = database;
        this.application = application;
    }

    /** An answer: its status and its body. */
    public record Answer(int status, byte[] bytes, HttpResponse<byte[]> response) {
        public String text() {
            return new String(bytes, StandardCharsets.UTF_8);
        }

        public JsonNode json() {
            return MAPPER.readTree(bytes);
        }
    }

    public static RunningServer start() throws IOException, InterruptedException {
        TestDatabase database = TestDatabase.start();
        try {
            return new RunningServer(
                    database,
                    new SpringApplicationBuilder(Application.class)
                            .web(WebApplicationType.SERVLET)
                            .run(
                                    "--server.port=0",
                                    "--spring.datasource.url=" + database.url(),
                                    "--spring.datasource.username=polymetron",
                                    "--spring.datasource.password="));
        } catch (RuntimeException failure) {
            database.close();
            throw failure;
        }
    }

    public TestDatabase database() {
        return database;
    }

    public int port() {
        return application.getEnvironment().getRequiredProperty("local.server.port", Integer.class);
    }

    public String address() {
        return "http://127.0.0.1:" + port();
    }

    public <T> T bean(Class<T> type) {
        return application.getBean(type);
    }

    public HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(URI.create(address() + path));
    }

    public HttpClient client() {
        return client;
    }

    public Answer get(String path) {
        return send(request(path).GET().build());
    }

    /** Posts a value, written as JSON. */
    public Answer post(String path, Object body) {
        return with("POST", path, body);
    }

    public Answer put(String path, Object body) {
        return with("PUT", path, body);
    }

    private Answer with(String method, String path, Object body) {
        return send(
                request(path)
                        .header("Content-Type", "application/json")
                        .method(
                                method,
                                HttpRequest.BodyPublishers.ofString(
                                        body instanceof String text
                                                ? text
                                                : MAPPER.writeValueAsString(body)))
                        .build());
    }

    public Answer upload(String path, byte[] body) {
        return send(
                request(path)
                        .header("Content-Type", "application/octet-stream")
                        .POST(HttpRequest.BodyPublishers.ofByteArray(body))
                        .build());
    }

    public Answer send(HttpRequest request) {
        try {
            HttpResponse<byte[]> response =
                    client.send(request, HttpResponse.BodyHandlers.ofByteArray());
            return new Answer(response.statusCode(), response.body(), response);
        } catch (IOException failure) {
            throw new java.io.UncheckedIOException(failure);
        } catch (InterruptedException end) {
            throw new IllegalStateException(end);
        }
    }

    /** Creates a platform from a recipe, or empty without one. */
    public String create(String name, String recipe) {
        Map<String, String> request =
                recipe == null
                        ? Map.of("name", name, "board", "polymetron:boards:foreland:1.0")
                        : Map.of(
                                "name",
                                name,
                                "board",
                                "polymetron:boards:foreland:1.0",
                                "recipe",
                                recipe);
        return post("/api/platforms", request).json().path("id").asString();
    }

    @Override
    public void close() throws IOException {
        application.close();
        database.close();
    }
}
