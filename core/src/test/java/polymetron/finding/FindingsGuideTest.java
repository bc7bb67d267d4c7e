package polymetron.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;

/** docs/findings.md is made from the rules; {@code ./polymetron generate} writes it again. */
final class FindingsGuideTest {
    private static final Path GUIDE = Path.of("../docs/findings.md");

    private static String guide() {
        List<Rule> rules = Checks.rules();
        StringBuilder out = new StringBuilder("# Findings\n\n");
        out.append("Made from the rules by `./polymetron generate`; not by hand. ")
                .append(rules.size())
                .append(
                        " rules, in the order of the\n"
                            + "steps of the job that they stand in the way of. A warning or note"
                            + " can be accepted with a reason;")
                .append(" an error cannot.\n\n")
                .append(
                        "| step | rule | grade | what it looks for | why it matters |\n"
                                + "|---|---|---|---|---|\n");
        for (Rule rule : rules) {
            out.append(
                    "| %s | `%s` | %s | %s | %s |\n"
                            .formatted(
                                    Checks.step(rule.id()),
                                    rule.id(),
                                    rule.grade(),
                                    rule.title(),
                                    rule.explanation()));
        }
        return out.toString();
    }

    @Test
    void theGuideIsWhatTheRulesSay() throws IOException {
        if (Boolean.getBoolean("polymetron.generate")) {
            Files.writeString(GUIDE, guide());
        }
        assertThat(Files.readString(GUIDE)).isEqualTo(guide());
    }
}
