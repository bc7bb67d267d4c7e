package polymetron.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import polymetron.AnyPlatforms;
import polymetron.Shipped;
import polymetron.platform.Platform;

/** Whether generated sentences agree in number: two wires go, one wire goes. */
final class SentencesTest {
    private static final int PLATFORMS = 400;

    private static final String NUMBERS = "(?:[2-9]|[1-9]\\d+|two|three|four|several|both|these)";

    private static final List<Pattern> WRONG =
            Stream.of(
                            "\\b"
                                    + NUMBERS
                                    + " (?:\\w+ )?\\w+s(?: of \\w+)?"
                                    + " (?:is|has|goes|does|was|needs|takes|lies)\\b",
                            "\\b(?:lines|outputs|inputs|chips|pins) of \\w+"
                                    + " (?:is|has|goes|needs)\\b",
                            "\\b(?:1|one) (?:\\w+ )?\\w+[^s\\W] (?:are|have|were|need|lie)\\b",
                            "(?<![.,\\d\\w:-])1"
                                + " (?!s\\b|bus\\b|ms\\b|address\\b|class\\b|access\\b)[a-z]+[^s\\W]s\\b",
                            "\\b"
                                    + NUMBERS
                                    + " (?:block|target|initiator|pin|line|cycle|wire|input|source|clock)\\b(?!-)",
                            "\\ba (?:[aeio]|u(?!ni|se|sb|art|sual))[a-z]",
                            "\\ban [bcdfgjkpqtvwz][a-z]",
                            "\\b(\\w+) \\1\\b",
                            "  ",
                            " [,.;:]",
                            "\\bnull\\b|%s|%d|\\{\\}")
                    .map(each -> Pattern.compile(each, Pattern.CASE_INSENSITIVE))
                    .toList();

    @Test
    void theyAgreeInNumber() {
        Set<String> sentences = new TreeSet<>();
        Set<String> rules = new TreeSet<>();
        for (int seed = 1; seed <= PLATFORMS; seed++) {
            AnyPlatforms any = new AnyPlatforms(seed);
            Platform platform = seed % 2 == 0 ? any.broken() : any.worked();
            for (Finding each : Checks.run(Shipped.elaborate(platform))) {
                rules.add(each.rule());
                sentences.add(each.what());
                sentences.add(each.why());
                each.fixes().forEach(fix -> sentences.add(fix.label()));
            }
        }
        assertThat(rules).hasSizeGreaterThan(20);
        assertThat(sentences.stream().filter(SentencesTest::isWrong).collect(Collectors.toList()))
                .isEmpty();
    }

    private static boolean isWrong(String sentence) {
        return WRONG.stream().anyMatch(each -> each.matcher(sentence).find());
    }

    /** The patterns find what they are for. */
    @Test
    void whatIsWrongIsFound() {
        assertThat(
                        List.of(
                                "two wires of console goes nowhere",
                                "1 targets overlap",
                                "3 target overlap",
                                "one target have no address",
                                "a input is open",
                                "an block is open",
                                "lines of lamps goes to no pin",
                                "the the bus"))
                .allMatch(SentencesTest::isWrong);
    }
}
