package polymetron.json;

import java.util.HashMap;
import java.util.Map;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/** Finds the line of the text on which a JSON pointer's value begins. */
final class Lines {
    private Lines() {}

    static Map<String, Integer> byPointer(String text) {
        Map<String, Integer> lines = new HashMap<>();
        try (JsonParser parser = Documents.MAPPER.createParser(Documents.withoutMark(text))) {
            for (JsonToken token = parser.nextToken(); token != null; token = parser.nextToken()) {
                if (token != JsonToken.END_ARRAY && token != JsonToken.END_OBJECT) {
                    String pointer = parser.streamReadContext().pathAsPointer(false).toString();
                    lines.putIfAbsent(pointer, parser.currentTokenLocation().getLineNr());
                }
            }
        } catch (JacksonException broken) {
            // What comes before the break has its lines all the same.
            return lines;
        }
        return lines;
    }
}
