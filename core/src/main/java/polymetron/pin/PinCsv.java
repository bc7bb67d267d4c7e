package polymetron.pin;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.text.Csv;
import polymetron.text.TextWriter;

/**
 * The pin table as text of comma-separated values (RFC 4180), and back. The columns {@code port} and {@code pin} count;
 * others are for people and may be missing.
 *
 * @param edit what the text changes; null when nothing, or when it has problems
 * @param problems what is wrong, each with its line
 */
public record PinCsv(Edit edit, List<String> problems) {
    private static final int LONGEST = 1 << 20;
    private static final int MOST_PROBLEMS = 20;

    /**
     * The table of a platform, one row for each external line.
     *
     * @param fingerprint the platform's
     */
    public static String write(ElaboratedPlatform platform, String fingerprint) {
        TextWriter out = TextWriter.indentedBy("");
        out.line(
                "port,pin,bank,voltage,direction,standard,drive,slew,pull,termination,by,fingerprint");
        for (PinLine line : PinTable.of(platform).lines()) {
            out.line(
                    Csv.row(
                            line.port(),
                            line.pin(),
                            line.bank() == null ? null : line.bank().name(),
                            line.bank() == null ? null : line.bank().voltage(),
                            line.direction(),
                            line.standard(),
                            line.setting().drive(),
                            line.setting().slew(),
                            line.setting().pull(),
                            line.setting().termination(),
                            line.by(),
                            fingerprint));
        }
        return out.text();
    }

    /** Reads a table; lines of clocks, resets and board parts have to say what is so anyway. */
    public static PinCsv read(ElaboratedPlatform platform, String csv) {
        return new Reader(platform).read(csv);
    }

    private static final class Reader {
        private final ElaboratedPlatform platform;
        private final Map<String, PinLine> known = new LinkedHashMap<>();
        private final Map<String, Integer> portAt = new HashMap<>();
        private final Map<String, Integer> pinAt = new HashMap<>();
        private final Map<String, String> wanted = new HashMap<>();
        private final List<String> problems = new ArrayList<>();

        private Reader(ElaboratedPlatform platform) {
            this.platform = platform;
            PinTable.of(platform).lines().forEach(line -> known.put(line.port(), line));
        }

        private PinCsv read(String csv) {
            if (csv.length() > LONGEST) {
                return new PinCsv(null, List.of("the table is longer than 1 MiB"));
            }
            List<Csv.Row> rows = Csv.read(csv);
            List<String> header =
                    rows.isEmpty()
                            ? List.of()
                            : rows.getFirst().cells().stream().map(String::strip).toList();
            int port = header.indexOf("port");
            int pin = header.indexOf("pin");
            if (port < 0 || pin < 0) {
                return new PinCsv(
                        null,
                        List.of(
                                "line 1: the first line names the columns; port and pin are"
                                        + " needed"));
            }
            PinCsvSettings settings = new PinCsvSettings(platform, header, known, problems);
            for (Csv.Row row : rows.subList(1, rows.size())) {
                if (!row.isBlank() && problems.size() < MOST_PROBLEMS) {
                    settings.line(row.line(), row.cell(port), row.cells());
                    line(row.line(), row.cell(port), row.cell(pin));
                }
            }
            Edit edit = problems.isEmpty() ? edit(settings) : null;
            return problems.isEmpty()
                    ? new PinCsv(edit, List.of())
                    : new PinCsv(null, List.copyOf(problems));
        }

        private void line(int number, String port, String pin) {
            PinLine line = known.get(port);
            if (line == null) {
                wrong(
                        number,
                        "there is no port %s".formatted(port.isEmpty() ? "without a name" : port));
                return;
            }
            Integer before = portAt.putIfAbsent(port, number);
            if (before != null) {
                wrong(number, "%s has a pin on line %s already".formatted(port, before));
                return;
            }
            if (pin.isEmpty()) {
                return;
            }
            if (platform.device() != null && !platform.device().hasPin(pin)) {
                wrong(number, "%s has no pin %s".formatted(platform.device().name(), pin));
                return;
            }
            Integer other = pinAt.putIfAbsent(pin, number);
            if (other != null) {
                wrong(number, "pin %s is given on line %s already".formatted(pin, other));
                return;
            }
            if (pin.equals(line.pin())) {
                return;
            }
            if (line.byBoard()) {
                wrong(
                        number,
                        "%s is at %s by the board; give the port up there first"
                                .formatted(port, line.pin()));
                return;
            }
            wanted.put(port, pin);
        }

        private void wrong(int number, String what) {
            problems.add("line %s: %s".formatted(number, what));
        }

        /** One edit for each interface whose pins change; each of its lines needs a pin then. */
        private Edit edit(PinCsvSettings settings) {
            Map<InterfaceRef, TreeMap<String, List<String>>> pins = new LinkedHashMap<>();
            for (PinLine line : known.values()) {
                boolean changes =
                        line.ref() != null
                                && known.values().stream()
                                        .filter(each -> line.ref().equals(each.ref()))
                                        .anyMatch(each -> wanted.containsKey(each.port()));
                if (!changes) {
                    continue;
                }
                String pin = wanted.getOrDefault(line.port(), line.pin());
                if (pin == null) {
                    problems.add(
                            "%s has no pin; the lines of %s come together"
                                    .formatted(line.port(), line.ref()));
                    continue;
                }
                pins.computeIfAbsent(line.ref(), ref -> new TreeMap<>())
                        .computeIfAbsent(line.signal(), signal -> new ArrayList<>())
                        .add(pin);
            }
            List<Edit> edits = new ArrayList<>();
            pins.forEach(
                    (ref, ports) -> edits.add(new Edit.BindPins(ref.block(), ref.name(), ports)));
            edits.addAll(settings.edits(edits));
            return edits.isEmpty() ? null : new Edit.Several("take pins from a table", edits);
        }
    }
}
