package polymetron.ownblock;

import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a user's VHDL may not contain, because a simulator would do it with the rights of whoever runs it: files, foreign
 * subprograms, and what reaches the simulator itself (IEEE 1076-2008, 5.5, 16.5 and 20).
 */
final class RefusedVhdl {
    private static final Map<Pattern, String> REFUSED =
            Map.of(
                    Pattern.compile("\\bfile\\s+\\w+[\\w\\s,]*:"),
                    "a block reads and writes no files; put the values into a constant",
                    Pattern.compile("\\bfile_open\\b|\\btype\\s+\\w+\\s+is\\s+file\\b"),
                    "a block reads and writes no files; put the values into a constant",
                    Pattern.compile("\\btextio\\b|\\bstd_logic_textio\\b"),
                    "a block reads and writes no files; take the use clause out",
                    Pattern.compile("\\bforeign\\b|\\bvhpi\\w*\\b"),
                    "it calls code of another language",
                    Pattern.compile("\\bstd\\s*\\.\\s*env\\b"),
                    "a block does not reach the simulator; take the use clause out");

    private static final int MOST = 100;

    private RefusedVhdl() {}

    /** Adds what is refused in a file, with its line. */
    static void find(String name, String text, List<BlockProblem> problems) {
        String words = VhdlText.words(text);
        REFUSED.forEach(
                (pattern, why) -> {
                    Matcher found = pattern.matcher(words);
                    while (problems.size() < MOST && found.find()) {
                        problems.add(
                                new BlockProblem(
                                        "%s:%s".formatted(name, HdlText.line(words, found.start())),
                                        "%s is refused: %s"
                                                .formatted(
                                                        found.group()
                                                                .strip()
                                                                .replaceAll("\\s+", " "),
                                                        why)));
                    }
                });
    }
}
