package polymetron.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.library.Board;

final class BoardChecksTest {
    private static List<String> problems(String from, String to) {
        String text =
                new String(Shipped.file("boards/sluice.json"), StandardCharsets.UTF_8)
                        .replace(from, to);
        Board board = BoardDocument.read("sluice.json", text);
        return BoardChecks.of(Shipped.LIBRARY, board).stream()
                .map(each -> each.at() + ": " + each.what())
                .toList();
    }

    @Test
    void surroundingsNameKnownKindsRolesAndParts() {
        assertThat(problems("none", "none")).isEmpty();
        assertThat(problems("\"lock-chamber\"", "\"weir\""))
                .containsExactly(
                        "/surroundings/0/kind: weir is no kind of surroundings; there is battery,"
                                + " lock-chamber");
        assertThat(problems("\"drives\":", "\"motors\":"))
                .containsExactly(
                        "/surroundings/0/parts/motors: lock-chamber has no part in the role motors;"
                                + " there is drives, encoder, ends, gauges");
        assertThat(problems("\"drives\": \"gate_drives\"", "\"drives\": \"winches\""))
                .containsExactly("/surroundings/0/parts/drives: the board has no part winches");
        assertThat(
                        problems(
                                "\"surroundings\": [",
                                "\"surroundings\": [{\"kind\": \"lock-chamber\", \"title\":"
                                        + " \"another\", \"parts\": {}},"))
                .contains("/surroundings/0/kind: lock-chamber is there more than once");
    }
}
