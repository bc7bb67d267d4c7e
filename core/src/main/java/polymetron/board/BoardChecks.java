package polymetron.board;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import polymetron.edit.ParameterText;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.SizedOutward;
import polymetron.elaborate.SizedPort;
import polymetron.library.BlockType;
import polymetron.library.Board;
import polymetron.library.Device;
import polymetron.library.Direction;
import polymetron.library.Library;
import polymetron.library.ParameterType;
import polymetron.library.Surrounding;

/**
 * Checks a board against its device and the library: pins exist and are used once, voltages fit their bank, names are
 * unique, and the block types that are to drive a part really fit it.
 */
public final class BoardChecks {
    private final Library library;
    private final Board board;
    private final Device device;
    private final List<BoardProblem> problems = new ArrayList<>();
    private final Map<String, String> pinsTaken = new HashMap<>();
    private final Set<String> names = new HashSet<>();

    private BoardChecks(Library library, Board board) {
        this.library = library;
        this.board = board;
        this.device = library.deviceOf(board).orElse(null);
    }

    /** Everything that is wrong, in the order of the document; empty for a board that can be used. */
    public static List<BoardProblem> of(Library library, Board board) {
        BoardChecks checks = new BoardChecks(library, board);
        checks.check();
        return List.copyOf(checks.problems);
    }

    private void note(String at, String what, Object... values) {
        problems.add(new BoardProblem(at, what.formatted(values)));
    }

    private void check() {
        if (device == null) {
            note(
                    "/device",
                    "there is no device %s; there is %s",
                    board.device(),
                    String.join(", ", library.devices().stream().map(Device::name).toList()));
        }
        board.voltages().forEach(this::voltage);
        for (int at = 0; at < board.clocks().size(); at++) {
            Board.Clock clock = board.clocks().get(at);
            String place = "/clocks/" + at;
            unique(place, clock.name());
            pin(place + "/pin", clock.pin(), clock.standard(), clock.name());
            clockPin(place + "/pin", clock.pin());
        }
        for (int at = 0; at < board.resets().size(); at++) {
            Board.Reset reset = board.resets().get(at);
            unique("/resets/" + at, reset.name());
            pin("/resets/" + at + "/pin", reset.pin(), reset.standard(), reset.name());
        }
        for (int at = 0; at < board.parts().size(); at++) {
            part("/parts/" + at, board.parts().get(at));
        }
        for (int at = 0; at < board.surroundings().size(); at++) {
            surrounding("/surroundings/" + at, board.surroundings().get(at));
        }
    }

    private void surrounding(String at, Surrounding surrounding) {
        List<String> roles = Surrounding.ROLES.get(surrounding.kind());
        if (roles == null) {
            note(
                    at + "/kind",
                    "%s is no kind of surroundings; there is %s",
                    surrounding.kind(),
                    String.join(", ", new TreeSet<>(Surrounding.ROLES.keySet())));
            return;
        }
        surrounding
                .parts()
                .forEach(
                        (role, part) -> {
                            if (!roles.contains(role)) {
                                note(
                                        at + "/parts/" + role,
                                        "%s has no part in the role %s; there is %s",
                                        surrounding.kind(),
                                        role,
                                        String.join(", ", roles));
                            } else if (board.part(part).isEmpty()) {
                                note(at + "/parts/" + role, "the board has no part %s", part);
                            }
                        });
        long same =
                board.surroundings().stream()
                        .filter(each -> each.kind().equals(surrounding.kind()))
                        .count();
        if (same > 1) {
            note(at + "/kind", "%s is there more than once", surrounding.kind());
        }
    }

    private void voltage(String bank, String voltage) {
        if (device == null) {
            return;
        }
        List<String> banks = device.banks().stream().map(Device.Bank::name).toList();
        if (!banks.contains(bank)) {
            note(
                    "/voltages/" + bank,
                    "%s has no bank %s; it has %s",
                    device.name(),
                    bank,
                    String.join(", ", banks));
        } else if (!device.voltages().contains(voltage)) {
            note(
                    "/voltages/" + bank,
                    "no I/O standard of %s works at %s; there is %s",
                    device.name(),
                    voltage,
                    String.join(", ", device.voltages()));
        }
    }

    private void unique(String at, String name) {
        if (!names.add(name)) {
            note(at + "/name", "there is already something named %s on the board", name);
        }
    }

    private void pin(String at, String pin, String standard, String user) {
        String before = pinsTaken.putIfAbsent(pin, user);
        if (before != null) {
            note(at, "pin %s is already used by %s", pin, before);
        }
        if (device == null) {
            return;
        }
        Optional<Device.Bank> bank = device.bankOf(pin);
        if (bank.isEmpty()) {
            note(at, "%s has no pin %s", device.name(), pin);
            return;
        }
        if (bank.get().configurationPins().contains(pin)) {
            note(at, "pin %s is taken while %s is configured", pin, device.name());
        }
        Optional<Device.Standard> known = device.standard(standard);
        if (known.isEmpty()) {
            note(
                    at,
                    "%s has no I/O standard %s; it has %s",
                    device.name(),
                    standard,
                    String.join(
                            ", ", device.standards().stream().map(Device.Standard::name).toList()));
        } else if (!known.get().voltage().equals(bank.get().voltage())) {
            note(
                    at,
                    "%s needs %s, pin %s is in bank %s, which has %s",
                    standard,
                    known.get().voltage(),
                    pin,
                    bank.get().name(),
                    bank.get().voltage());
        }
    }

    private void clockPin(String at, String pin) {
        if (device == null) {
            return;
        }
        List<String> capable =
                device.banks().stream().flatMap(bank -> bank.clockPins().stream()).toList();
        if (!capable.isEmpty() && device.hasPin(pin) && !capable.contains(pin)) {
            note(at, "pin %s takes no clock; %s do", pin, String.join(", ", capable));
        }
    }

    private void part(String at, Board.Part part) {
        unique(at, part.name());
        Set<String> signals = new HashSet<>();
        for (int index = 0; index < part.signals().size(); index++) {
            Board.Signal signal = part.signals().get(index);
            String place = at + "/signals/" + index;
            if (!signals.add(signal.name())) {
                note(place + "/name", "%s has two signals named %s", part.name(), signal.name());
            }
            for (int line = 0; line < signal.pins().size(); line++) {
                pin(
                        place + "/pins/" + line,
                        signal.pins().get(line),
                        signal.standard(),
                        part.name() + "." + signal.name());
            }
        }
        for (int index = 0; index < part.drivers().size(); index++) {
            driver(at + "/drivers/" + index, part, part.drivers().get(index));
        }
    }

    private void driver(String at, Board.Part part, Board.Driver driver) {
        BlockType type = library.type(driver.type()).orElse(null);
        if (type == null) {
            note(at + "/type", "the library has no block type %s", driver.type());
            return;
        }
        int before = problems.size();
        for (Map.Entry<String, String> entry : new TreeMap<>(driver.parameters()).entrySet()) {
            parameter(at + "/parameters/" + entry.getKey(), type, entry);
        }
        if (problems.size() > before) {
            return;
        }
        BlockShape shape = new BlockShape(type, driver.parameters());
        shape.faults().forEach(fault -> note(at + "/parameters", "%s", fault.message()));
        SizedOutward outward = shape.outward(driver.outward()).orElse(null);
        if (outward == null) {
            note(
                    at + "/outward",
                    "%s has no outward interface %s with these parameters",
                    type.title(),
                    driver.outward());
        } else if (!outward.type().partKinds().contains(part.kind())) {
            note(
                    at + "/outward",
                    "%s.%s drives %s, not %s",
                    type.title(),
                    driver.outward(),
                    String.join(", ", outward.type().partKinds()),
                    part.kind());
        } else {
            fits(at, part, outward);
        }
    }

    private void parameter(String at, BlockType type, Map.Entry<String, String> entry) {
        ParameterType parameter = type.parameter(entry.getKey()).orElse(null);
        if (parameter == null) {
            note(at, "%s has no parameter %s", type.title(), entry.getKey());
            return;
        }
        try {
            ParameterText.check(parameter, entry.getValue());
        } catch (RejectedEdit wrong) {
            note(at, "%s", wrong.getMessage());
        }
    }

    private void fits(String at, Board.Part part, SizedOutward outward) {
        for (SizedPort port : outward.ports()) {
            Board.Signal signal = OutwardLink.signal(outward, port, part).orElse(null);
            if (signal == null) {
                note(
                        at,
                        "%s has no signal %s, which the block type needs",
                        part.name(),
                        port.name());
            } else if (signal.width() != port.width()) {
                note(
                        at,
                        "%s of the block type is %s wide, the part has %s lines",
                        port.name(),
                        port.width(),
                        signal.width());
            } else if (signal.direction() != Direction.BOTH
                    && signal.direction() != port.direction()) {
                note(
                        at,
                        "%s of the block type is %s, the part's is %s",
                        port.name(),
                        port.direction().words(),
                        signal.direction().words());
            }
        }
    }
}
