package polymetron.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** Generated text keeps its form whatever the values in it are. */
final class GeneratedTextTest {
    private static final String SIGNS = "ab,\"\n\r |*/\\?;\t\u202E\u0000é";

    private static String text(Random random) {
        StringBuilder text = new StringBuilder();
        for (int at = random.nextInt(8); at > 0; at--) {
            text.append(SIGNS.charAt(random.nextInt(SIGNS.length())));
        }
        return text.toString();
    }

    /** RFC 4180: what is written is what is read, with quotes, commas and ends of lines inside. */
    @RepeatedTest(200)
    void tablesOfValuesComeBack(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        List<List<String>> rows = new ArrayList<>();
        StringBuilder csv = new StringBuilder(random.nextBoolean() ? "\uFEFF" : "");
        for (int at = 0; at < 1 + random.nextInt(4); at++) {
            List<String> row = List.of("x" + text(random), text(random), text(random));
            rows.add(row);
            csv.append(Csv.row(row.toArray())).append(random.nextBoolean() ? "\n" : "\r\n");
        }
        assertThat(Csv.read(csv.toString()).stream().map(Csv.Row::cells)).isEqualTo(rows);
    }

    @Test
    void rowsSayOnWhichLineTheyBegin() {
        List<Csv.Row> rows = Csv.read("a,b\n\"one\ntwo\",3\r\n\nlast");
        assertThat(rows.stream().map(Csv.Row::line)).containsExactly(1, 2, 4, 5);
        assertThat(rows.get(1).cell(0)).isEqualTo("one\ntwo");
        assertThat(rows.get(3).cell(7)).isEmpty();
        assertThat(rows.get(2).isBlank()).isTrue();
    }

    @RepeatedTest(200)
    void nothingEndsWhatItStandsIn(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        String value = text(random);
        assertThat(Escape.c(value))
                .doesNotContain("\"", "\\", "*/", "/*", "??", "\n", "\r", "\u0000");
        String row = table(value);
        assertThat(row.replace("\\|", "").chars().filter(sign -> sign == '|').count()).isEqualTo(3);
        assertThat(row.lines()).hasSize(1);
    }

    private static String table(String value) {
        TextWriter out = TextWriter.indentedBy("");
        MarkdownTable.of("one", ">two").row(value, 7).write(out);
        return out.text().lines().skip(2).reduce("", (all, line) -> all + line);
    }

    @Test
    void linesKnowHowDeepTheyAre() {
        String text =
                TextWriter.indentedBy("  ")
                        .open("begin %s", 1)
                        .line("a  ")
                        .blank()
                        .columns(List.of(List.of("x", "1"), List.of("longer", "22")))
                        .lines("two\n\nlines")
                        .close("end")
                        .text();
        assertThat(text)
                .isEqualTo(
                        """
                        begin 1
                          a

                          x      1
                          longer 22
                          two

                          lines
                        end
                        """);
    }
}
