package polymetron.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import picocli.CommandLine;

/** The launcher hands every command on, and the documents use only commands that there are. */
final class LauncherTest {
    private static final Path HOME = Path.of("..");
    private static final Pattern CALL =
            Pattern.compile("(?m)^ *(?:\\$ |`)?\\./polymetron ([a-z]+)(?: +([a-z-]+))?");

    private final CommandLine line = CommandLineApplication.commands();

    /** The words of the launcher's cases: "new | check | export)". */
    private static Set<String> taken() throws IOException {
        return Files.readAllLines(HOME.resolve("polymetron")).stream()
                .map(String::strip)
                .filter(each -> each.matches("[a-z]+( \\| [a-z]+)*\\).*"))
                .flatMap(each -> Stream.of(each.substring(0, each.indexOf(')')).split(" \\| ")))
                .collect(Collectors.toCollection(TreeSet::new));
    }

    @Test
    void everyCommandIsTakenAndExplained() throws IOException {
        String usage = Files.readString(HOME.resolve("polymetron"));
        usage = usage.substring(usage.indexOf("usage()"), usage.indexOf("\nTEXT\n"));
        assertThat(taken()).containsAll(line.getSubcommands().keySet());
        for (String command : line.getSubcommands().keySet()) {
            assertThat(usage).containsPattern("(?m)^  " + command + " ");
        }
        for (String part : line.getSubcommands().get("block").getSubcommands().keySet()) {
            assertThat(usage).containsPattern("[ |]" + part + "[ ,]");
        }
    }

    @Test
    void documentsUseCommandsThatThereAre() throws IOException {
        Set<String> taken = taken();
        List<Path> documents;
        try (Stream<Path> below = Files.list(HOME.resolve("docs"))) {
            documents =
                    Stream.concat(Stream.of(HOME.resolve("README.md")), below)
                            .filter(each -> each.toString().endsWith(".md"))
                            .toList();
        }
        int calls = 0;
        for (Path document : documents) {
            for (var call : CALL.matcher(Files.readString(document)).results().toList()) {
                calls++;
                assertThat(taken).as("%s: %s", document, call.group()).contains(call.group(1));
                if (call.group(1).equals("block")) {
                    assertThat(line.getSubcommands().get("block").getSubcommands())
                            .as("%s: %s", document, call.group())
                            .containsKey(call.group(2));
                }
            }
        }
        assertThat(calls).isGreaterThan(15);
    }
}
