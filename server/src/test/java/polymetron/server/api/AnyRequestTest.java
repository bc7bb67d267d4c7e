package polymetron.server.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.Shipped;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Requests made by chance from the description of the API, right and wrong: none makes the server fail, and each that is
 * refused is answered by a problem document (RFC 9457) that says why.
 */
@ExtendWith(OneServer.class)
final class AnyRequestTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final List<String> METHODS = List.of("get", "post", "put", "patch", "delete");

    /** As they stand in an address, so that some are wrongly encoded. */
    private static final List<String> WORDS =
            List.of(
                    "",
                    "x",
                    "-1",
                    "0",
                    "1",
                    "99999999999999999999",
                    "0x",
                    "0x1000_2000",
                    "0x1_0000_0000_0000_0000",
                    "%00",
                    "%C3%28",
                    "..%2F..%2Fetc",
                    "cpu.data",
                    "cpu",
                    "lamps",
                    "system",
                    "NaN",
                    "1e999",
                    "SIZE",
                    "irq",
                    "main",
                    "%F0%9F%92%A5",
                    "polymetron:io:gpio:1.0",
                    "polymetron:boards:foreland:1.0",
                    "a".repeat(2000));

    /** What only a body can say: in JSON these are escaped, and come to the server as they are. */
    private static final List<String> UNUSUAL =
            List.of(
                    "\u0000",
                    "a\u0000b",
                    "\u202Egnp.exe",
                    "\uFEFFname",
                    "\uD800",
                    "two\nlines",
                    "\r\nSet-Cookie: x",
                    "\u2028",
                    " ",
                    "*/ #error /*",
                    "\"); DROP TABLE platform; --",
                    "${7*7}",
                    "../../../etc/passwd",
                    "ä".repeat(100));

    private static final int REQUESTS = Integer.getInteger("polymetron.requests", 1500);

    private final RunningServer server;
    private final Random random = new Random(Long.getLong("polymetron.seed", 9457));
    private final List<String> wrong = new ArrayList<>();
    private JsonNode api;

    AnyRequestTest(RunningServer server) {
        this.server = server;
    }

    @Test
    void isAnsweredOrRefusedWithAReason() throws Exception {
        api = JSON.readTree(Files.readString(Path.of("src/main/openapi/openapi.json")));
        String id = server.create("Anything", "station");
        Map<Integer, Integer> statuses = new TreeMap<>();
        List<Operation> operations = operations();
        for (int number = 0; number < REQUESTS; number++) {
            // Each of them at least once, then any.
            Operation operation =
                    number < operations.size() ? operations.get(number) : one(operations);
            if (number % 500 == 499) {
                id = server.create("Anything", "station");
            }
            statuses.merge(
                    ask(
                            operation.method(),
                            address(operation.path(), operation.described(), id),
                            operation.described()),
                    1,
                    Integer::sum);
        }
        System.out.println("answers by status: " + statuses);
        assertThat(wrong).isEmpty();
        assertThat(statuses).as("some are right").containsKeys(200, 404, 422);
    }

    private record Operation(String method, String path, JsonNode described) {}

    private List<Operation> operations() {
        List<Operation> all = new ArrayList<>();
        for (Map.Entry<String, JsonNode> path : api.path("paths").properties()) {
            for (String method : METHODS) {
                JsonNode described = path.getValue().path(method);
                // The platform itself stays, and streams of events do not end.
                boolean skipped =
                        described.isMissingNode()
                                || path.getKey().equals("/api/platforms/{id}")
                                        && method.equals("delete")
                                || described.toString().contains("text/event-stream");
                if (!skipped) {
                    all.add(new Operation(method, path.getKey(), described));
                }
            }
        }
        return all;
    }

    private String address(String path, JsonNode operation, String id) {
        String address = path;
        List<String> query = new ArrayList<>();
        for (JsonNode parameter : operation.path("parameters")) {
            String name = parameter.path("name").asString();
            boolean isId = name.equals("id") && random.nextInt(8) > 0;
            String value = isId ? id : one(WORDS);
            if (parameter.path("in").asString().equals("path")) {
                address = address.replace("{" + name + "}", value.isEmpty() ? "x" : value);
            } else if (random.nextInt(7) > 0) {
                query.add(name + "=" + value);
            }
        }
        return address.replaceAll("\\{[^}]*}", "x")
                + (query.isEmpty() ? "" : "?" + String.join("&", query));
    }

    private int ask(String method, String address, JsonNode operation) {
        byte[] body = new byte[0];
        HttpRequest.Builder request =
                HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + server.port() + address));
        request.header("Origin", "http://127.0.0.1:" + server.port());
        for (Map.Entry<String, JsonNode> content :
                operation.path("requestBody").path("content").properties()) {
            request.header("Content-Type", content.getKey());
            body = body(content.getKey(), content.getValue().path("schema"));
        }
        request.method(
                method.toUpperCase(java.util.Locale.ROOT),
                HttpRequest.BodyPublishers.ofByteArray(body));
        Answer answer = server.send(request.build());
        String what = method + " " + address + " " + new String(body, StandardCharsets.UTF_8);
        boolean explains =
                answer.status() < 400
                        || answer.response()
                                        .headers()
                                        .firstValue("Content-Type")
                                        .orElse("")
                                        .startsWith("application/problem+json")
                                && !answer.json().path("detail").asString().isBlank();
        if (answer.status() >= 500 || !explains) {
            wrong.add(answer.status() + " " + answer.text() + " to " + what);
        }
        return answer.status();
    }

    private byte[] body(String type, JsonNode schema) {
        if (!type.contains("json")) {
            return file();
        }
        if (random.nextInt(10) == 0) {
            return one(List.of("", "{", "null", "[1,2", "\u0001", "[".repeat(5000)))
                    .getBytes(StandardCharsets.UTF_8);
        }
        byte[] text = JSON.writeValueAsBytes(value(schema, 0));
        return random.nextInt(20) == 0
                ? joined("\uFEFF".getBytes(StandardCharsets.UTF_8), text)
                : text;
    }

    /** Something like the files that are taken, hardly ever right. */
    private byte[] file() {
        if (random.nextInt(4) == 0) {
            byte[] noise = new byte[random.nextInt(80)];
            random.nextBytes(noise);
            return noise;
        }
        byte[] file =
                switch (random.nextInt(4)) {
                    case 0 -> Shipped.file("demo/first-steps.json").clone();
                    case 1 -> Shipped.demoProgram().clone();
                    case 2 ->
                            "\uFEFFpin,signal\r\n\r\nP1,lamps\n,,\n\""
                                    .getBytes(StandardCharsets.UTF_8);
                    default ->
                            (one(UNUSUAL) + "\n\n" + one(WORDS) + ";" + one(UNUSUAL) + "\n")
                                    .getBytes(StandardCharsets.UTF_8);
                };
        for (int flips = random.nextInt(4); flips > 0; flips--) {
            file[random.nextInt(file.length)] = (byte) random.nextInt(256);
        }
        return file;
    }

    private static byte[] joined(byte[] one, byte[] other) {
        byte[] both = java.util.Arrays.copyOf(one, one.length + other.length);
        System.arraycopy(other, 0, both, one.length, other.length);
        return both;
    }

    /** A value of a schema, now and then of another form. */
    private JsonNode value(JsonNode schema, int depth) {
        if (schema.has("$ref")) {
            String name = schema.path("$ref").asString().replaceAll(".*/", "");
            return value(api.path("components").path("schemas").path(name), depth + 1);
        }
        if (random.nextInt(8) == 0 || depth > 6) {
            return one(
                    List.of(
                            JSON.nullNode(),
                            JSON.valueToTree("x"),
                            JSON.valueToTree(-1),
                            JSON.createArrayNode(),
                            JSON.createObjectNode()));
        }
        if (schema.has("oneOf")) {
            return value(
                    schema.path("oneOf").get(random.nextInt(schema.path("oneOf").size())), depth);
        }
        if (schema.path("enum").isArray()) {
            return schema.path("enum").get(random.nextInt(schema.path("enum").size()));
        }
        return switch (type(schema)) {
            case "object" -> object(schema, depth);
            case "array" -> {
                ArrayNode array = JSON.createArrayNode();
                for (int at = random.nextInt(3); at > 0; at--) {
                    array.add(value(schema.path("items"), depth + 1));
                }
                yield array;
            }
            case "integer", "number" -> JSON.valueToTree(one(List.of(0L, 1L, -1L, 32L, 1L << 62)));
            case "boolean" -> JSON.valueToTree(random.nextBoolean());
            default -> JSON.valueToTree(one(random.nextInt(5) == 0 ? UNUSUAL : WORDS));
        };
    }

    private String type(JsonNode schema) {
        JsonNode type = schema.path("type");
        return type.isArray() ? type.get(0).asString() : type.asString("");
    }

    private JsonNode object(JsonNode schema, int depth) {
        ObjectNode object = JSON.createObjectNode();
        for (Map.Entry<String, JsonNode> property : schema.path("properties").properties()) {
            if (random.nextInt(7) > 0) {
                object.set(property.getKey(), value(property.getValue(), depth + 1));
            }
        }
        return object;
    }

    private <T> T one(List<T> values) {
        return values.get(random.nextInt(values.size()));
    }
}
