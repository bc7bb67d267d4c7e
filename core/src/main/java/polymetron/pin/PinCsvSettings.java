package polymetron.pin;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.platform.PinSetting;

/**
 * The electrical columns of a pin table: standard, drive, slew, pull and termination. They are set for a whole port, so its
 * lines have to agree; an empty cell says nothing.
 */
final class PinCsvSettings {
    private final ElaboratedPlatform platform;
    private final List<String> header;
    private final Map<String, PinLine> known;
    private final List<String> problems;
    private final Map<String, Given> ports = new LinkedHashMap<>();

    private record Given(PinLine line, int number, PinSetting setting) {}

    PinCsvSettings(
            ElaboratedPlatform platform,
            List<String> header,
            Map<String, PinLine> known,
            List<String> problems) {
        this.platform = platform;
        this.header = header;
        this.known = known;
        this.problems = problems;
    }

    void line(int number, String port, List<String> cells) {
        PinLine line = known.get(port);
        if (line == null || line.ref() == null) {
            return;
        }
        PinSetting setting =
                new PinSetting(
                        standard(number, cell(cells, "standard")),
                        drive(number, cell(cells, "drive")),
                        word(number, cell(cells, "slew"), "slew", PinSetting.Slew.values()),
                        word(number, cell(cells, "pull"), "pull", PinSetting.Pull.values()),
                        word(
                                number,
                                cell(cells, "termination"),
                                "termination",
                                PinSetting.Termination.values()));
        if (setting.equals(PinSetting.USUAL)) {
            return;
        }
        String key = line.ref() + " " + line.signal();
        Given before = ports.putIfAbsent(key, new Given(line, number, setting));
        if (before != null && !before.setting().equals(setting)) {
            problems.add(
                    "line %s: %s is set otherwise than on line %s; the lines of a port are set together"
                            .formatted(number, port, before.number()));
        }
    }

    /**
     * One edit for each port that is to be set otherwise than it is with its new pins.
     *
     * @param pins edits that give pins first
     */
    List<Edit> edits(List<Edit> pins) {
        if (ports.isEmpty()) {
            return List.of();
        }
        ElaboratedPlatform after =
                pins.isEmpty()
                        ? platform
                        : new Elaborator(platform.library())
                                .elaborate(
                                        new Editor(platform.library())
                                                .apply(
                                                        platform.platform(),
                                                        new Edit.Several(null, pins)));
        Map<String, PinLine> lines = new LinkedHashMap<>();
        PinTable.of(after).lines().forEach(line -> lines.put(line.port(), line));
        List<Edit> edits = new ArrayList<>();
        for (Given given : ports.values()) {
            PinSetting is = lines.get(given.line().port()).setting();
            PinSetting to = given.setting();
            boolean same =
                    same(to.standard(), is.standard())
                            && same(to.drive(), is.drive())
                            && same(to.slew(), is.slew())
                            && same(to.pull(), is.pull())
                            && same(to.termination(), is.termination());
            if (!same) {
                edits.add(
                        new Edit.SetPins(
                                given.line().ref().block(),
                                given.line().ref().name(),
                                given.line().signal(),
                                to));
            }
        }
        return edits;
    }

    private static boolean same(Object to, Object is) {
        return to == null || Objects.equals(to, is);
    }

    private String cell(List<String> cells, String column) {
        int at = header.indexOf(column);
        return at < 0 || at >= cells.size() ? "" : cells.get(at).strip();
    }

    private String standard(int number, String text) {
        if (text.isEmpty()) {
            return null;
        }
        if (platform.device() != null && platform.device().standard(text).isEmpty()) {
            problems.add(
                    "line %s: %s has no I/O standard %s; it has %s"
                            .formatted(
                                    number,
                                    platform.device().name(),
                                    text,
                                    platform.device().standards().stream()
                                            .map(each -> each.name())
                                            .collect(Collectors.joining(", "))));
        }
        return text;
    }

    private Integer drive(int number, String text) {
        if (text.isEmpty()) {
            return null;
        }
        if (!text.matches("[0-9]{1,3}") || Integer.parseInt(text) < 1) {
            problems.add("line %s: a drive is a number of mA, not '%s'".formatted(number, text));
            return null;
        }
        return Integer.valueOf(text);
    }

    private <E> E word(int number, String text, String column, E[] words) {
        if (text.isEmpty()) {
            return null;
        }
        for (E word : words) {
            if (word.toString().equals(text)) {
                return word;
            }
        }
        problems.add(
                "line %s: a %s is %s, not '%s'"
                        .formatted(
                                number,
                                column,
                                Stream.of(words)
                                        .map(Object::toString)
                                        .collect(Collectors.joining(", ")),
                                text));
        return null;
    }
}
