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

    private final RunningServer server;
    private final Random random = new Random(9457);
    private JsonNode api;

    AnyRequestTest(RunningServer server) {
        this.server = server;
    }

    @Test
    void isAnsweredOrRefusedWithAReason() throws Exception {
        api = JSON.readTree(Files.readString(Path.of("src/main/openapi/openapi.json")));
        String id = server.create("Anything", "station");
        Map<Integer, Integer> statuses = new TreeMap<>();
        for (int round = 0; round < 4; round++) {
            for (Map.Entry<String, JsonNode> path : api.path("paths").properties()) {
                for (String method : METHODS) {
                    JsonNode operation = path.getValue().path(method);
                    // The platform itself stays, and streams of events do not end.
                    boolean skipped =
                            operation.isMissingNode()
                                    || path.getKey().equals("/api/platforms/{id}")
                                            && method.equals("delete")
                                    || operation.toString().contains("text/event-stream");
                    if (!skipped) {
                        String address = address(path.getKey(), operation, id);
                        int status = ask(method, address, operation);
                        statuses.merge(status, 1, Integer::sum);
                    }
                }
            }
        }
        assertThat(statuses).as("some are right").containsKeys(200, 404, 422);
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
        assertThat(answer.status()).as(what + "\n" + answer.text()).isLessThan(500);
        if (answer.status() >= 400) {
            assertThat(answer.response().headers().firstValue("Content-Type"))
                    .as(what + "\n" + answer.text())
                    .hasValueSatisfying(
                            type -> assertThat(type).startsWith("application/problem+json"));
            assertThat(answer.json().path("detail").asString()).as(what).isNotBlank();
        }
        return answer.status();
    }

    private byte[] body(String type, JsonNode schema) {
        if (!type.contains("json")) {
            byte[] noise = new byte[random.nextInt(80)];
            random.nextBytes(noise);
            return noise;
        }
        if (random.nextInt(10) == 0) {
            return one(List.of("", "{", "null", "[1,2", "\u0001")).getBytes(StandardCharsets.UTF_8);
        }
        return JSON.writeValueAsBytes(value(schema, 0));
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
            default -> JSON.valueToTree(one(WORDS));
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
