package polymetron.everything;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import polymetron.everything.DocumentFacts.Hart;
import polymetron.everything.DocumentFacts.Program;
import polymetron.everything.DocumentFacts.Target;
import tools.jackson.databind.JsonNode;

/** Every macro that the header of a program has to have, with its value, worked out from the document. */
final class ExpectedHeader {
    /** A fact about an interrupt: the number that software knows it by, and what sort of number it is. */
    record Interrupt(
            Target device, String source, String sort, long number, String sink, Long priority) {}

    private final DocumentFacts facts;
    private final Program program;
    private final Map<String, String> macros = new LinkedHashMap<>();

    ExpectedHeader(DocumentFacts facts, Program program) {
        this.facts = facts;
        this.program = program;
    }

    /** Name and value; numbers in decimal, texts in quotes. */
    Map<String, String> macros() {
        for (JsonNode domain : facts.platform.path("domains")) {
            String name = domain.path("name").asString();
            put("CLOCK_" + upper(name) + "_HZ", facts.hertz(name));
        }
        put("PLATFORM_HARTS", program.harts().size());
        for (int index = 0; index < program.harts().size(); index++) {
            put("PLATFORM_HART" + index + "_ID", program.harts().get(index).id());
        }
        Target console = console();
        if (console != null) {
            put("PLATFORM_CONSOLE_BASE", console.base());
        }
        for (Hart hart : program.harts()) {
            if (hart.index() == 0) {
                processor(hart);
            }
        }
        List<String> said = new ArrayList<>();
        for (Target target : program.targets()) {
            target(
                    target,
                    said.add(target.name()) && said.indexOf(target.name()) == said.size() - 1);
        }
        return macros;
    }

    private static String upper(String text) {
        return text.toUpperCase(Locale.ROOT);
    }

    private void put(String name, long value) {
        put(name, Long.toUnsignedString(value));
    }

    private void put(String name, String value) {
        String before = macros.put(name, value);
        if (before != null && !before.equals(value)) {
            throw new AssertionError("two things lead to " + name);
        }
    }

    private void processor(Hart hart) {
        String name = upper(hart.name());
        long hertz = facts.hertz(hart.block(), hart.role().path("hertz"));
        if (hertz > 0) {
            put(name + "_CLOCK_HZ", hertz);
        }
        for (Target timer : timers(null)) {
            if (timed(timer, hart) >= 0) {
                put(name + "_TIME_HZ", tickHz(timer));
            }
        }
        parameters(hart.block());
    }

    /** UARTs that the program reaches: on the board's console first, then by address. */
    Target console() {
        Target found = null;
        for (Target target : program.targets()) {
            if (console(target) != null) {
                boolean better = found == null || isOnBoard(target) && !isOnBoard(found);
                found = better ? target : found;
            }
        }
        return found;
    }

    JsonNode console(Target target) {
        return role(target, "console");
    }

    JsonNode role(Target target, String sort) {
        for (JsonNode each : facts.provides(target.block(), sort)) {
            if (each.path("registers").asString().equals(target.interfaceName())) {
                return each;
            }
        }
        return null;
    }

    private boolean isOnBoard(Target target) {
        Map<String, JsonNode> parts = DocumentFacts.byName(facts.board.path("parts"));
        for (JsonNode bound : target.block().path("outward")) {
            JsonNode part = parts.get(bound.path("part").asString(""));
            if (part != null && part.path("kind").asString().equals("serial-console")) {
                return true;
            }
        }
        return false;
    }

    private void target(Target target, boolean first) {
        String name = target.macro();
        put(name + "_BASE", target.base());
        put(name + "_SIZE", target.size());
        put(name + "_LAST", target.base() + target.size() - 1);
        boolean isOwn = program.harts().stream().anyMatch(hart -> hart.block() == target.block());
        if (first && !isOwn) {
            parameters(target.block());
        }
        buffer(target);
        if (target.isMemory()) {
            return;
        }
        JsonNode console = console(target);
        JsonNode timer = role(target, "machine-timer");
        boolean isInside = target.form().has("seenBy");
        JsonNode stated =
                console != null
                        ? console.path("hertz")
                        : timer != null ? timer.path("hertz") : target.form().path("none");
        long hertz = facts.hertz(target.block(), stated);
        if (hertz > 0 && (!isInside || !stated.isMissingNode())) {
            put(name + "_CLOCK_HZ", hertz);
        }
        if (console != null && hertz > 0) {
            long baud = facts.number(target.block(), console.path("baud"), 0);
            // PC16550D data sheet, 8.3: the divisor is the clock by 16 times the rate.
            long divisor = Math.round(hertz / (16.0 * baud));
            put(name + "_DIVISOR", Math.clamp(divisor, 1, 65_535));
        }
        if (timer != null) {
            timer(target, name);
        }
        controller(target, name);
        for (Interrupt interrupt : interrupts(target)) {
            interrupt(name, interrupt);
        }
        for (JsonNode register : facts.registers(target)) {
            register(target, name, register);
        }
    }

    private void parameters(JsonNode block) {
        String name = block.path("name").asString();
        for (JsonNode parameter : facts.type(block).path("parameters")) {
            String suffix = parameter.path("macro").asString(null);
            if (suffix == null) {
                continue;
            }
            String macro = upper(name) + "_" + suffix;
            String value = facts.constants.text(name, parameter.path("name").asString());
            switch (parameter.path("form").asString()) {
                case "choice" -> put(macro + "_" + upper(value), 1);
                case "text" -> put(macro, "\"" + value + "\"");
                // Lists of numbers are empty here: what is missing is 0.
                case "numbers" -> put(macro, value.isEmpty() ? 0 : Long.parseLong(value));
                case "real" ->
                        put(macro + "_MICROVOLTS", Math.round(Double.parseDouble(value) * 1e6));
                default -> put(macro, Long.parseLong(value));
            }
        }
    }

    /** Where the program sees a buffer that the block writes by itself, when its parameters settle that. */
    private void buffer(Target target) {
        for (JsonNode buffer : facts.provides(target.block(), "buffer")) {
            if (!facts.isThere(target.block(), buffer.path("when"))) {
                continue;
            }
            long base = facts.number(target.block(), buffer.path("base"), 0);
            for (Target memory : facts.seen(target.block(), buffer.path("writer").asString())) {
                if (!memory.isMemory()
                        || base < memory.base()
                        || base >= memory.base() + memory.size()) {
                    continue;
                }
                for (Target own : program.targets()) {
                    if (own.isMemory() && own.block() == memory.block()) {
                        put(
                                target.blockMacro() + "_BUFFER_ADDRESS",
                                own.base() + base - memory.base());
                    }
                }
            }
        }
    }

    // --- timers and controllers ----------------------------------------------------------------

    /** Machine timers of the platform, seen or not. */
    private List<Target> timers(String unused) {
        List<Target> found = new ArrayList<>();
        for (JsonNode block : facts.blocks()) {
            for (JsonNode timer : facts.provides(block, "machine-timer")) {
                JsonNode form =
                        DocumentFacts.form(facts.type(block), timer.path("registers").asString());
                found.add(new Target(block, facts.type(block), form, 0, 0, ""));
            }
        }
        return found;
    }

    private long tickHz(Target timer) {
        JsonNode role = role(timer, "machine-timer");
        return facts.hertz(timer.block(), role.path("hertz"))
                / facts.number(timer.block(), role.path("divider"), 1);
    }

    /** Number of the compare register of a hart; -1 when the timer does not serve it. */
    int timed(Target timer, Hart hart) {
        return served(timer, hart, "timer");
    }

    /** Number of the software interrupt of a hart; -1 when the timer has none for it. */
    int signalled(Target timer, Hart hart) {
        return served(timer, hart, "software");
    }

    private int served(Target timer, Hart hart, String line) {
        JsonNode role = role(timer, "machine-timer");
        if (!role.has("lines")) {
            return timer.block() == hart.block() ? hart.index() : -1;
        }
        for (int index = 0; index < role.path("lines").size(); index++) {
            String source = role.path("lines").get(index).path(line).asString();
            JsonNode wire = timer.block().path("interrupts").path(source);
            boolean isHere =
                    wire.path("block").asString("").equals(hart.name())
                            && hart.index() == 0
                            && wire.path("sink")
                                    .asString("")
                                    .equals(hart.role().path("lines").path(line).asString("?"));
            if (isHere) {
                return index;
            }
        }
        return -1;
    }

    private void timer(Target target, String name) {
        if (tickHz(target) > 0) {
            put(name + "_TICK_HZ", tickHz(target));
        }
        for (Hart hart : program.harts()) {
            int timed = served(target, hart, "timer");
            int signalled = served(target, hart, "software");
            if (timed >= 0) {
                put("%s_HART%s_MTIMECMP_INDEX".formatted(name, hart.id()), timed);
            }
            if (signalled >= 0) {
                put("%s_HART%s_MSIP_INDEX".formatted(name, hart.id()), signalled);
            }
        }
    }

    /** Number of the context that leads to a hart; -1 when none does. */
    int context(Target controller, Hart hart) {
        JsonNode role = role(controller, "interrupt-controller");
        if (!role.has("contexts")) {
            return controller.block() == hart.block() ? hart.index() : -1;
        }
        Map<String, JsonNode> ports = DocumentFacts.byName(controller.type().path("interrupts"));
        int context = 0;
        for (JsonNode source : role.path("contexts")) {
            if (!facts.isThere(controller.block(), ports.get(source.asString()).path("when"))) {
                continue;
            }
            JsonNode wire = controller.block().path("interrupts").path(source.asString());
            boolean isHere =
                    wire.path("block").asString("").equals(hart.name())
                            && hart.index() == 0
                            && wire.path("sink")
                                    .asString("")
                                    .equals(
                                            hart.role()
                                                    .path("lines")
                                                    .path("external")
                                                    .asString("?"));
            if (isHere) {
                return context;
            }
            context++;
        }
        return -1;
    }

    private void controller(Target target, String name) {
        if (role(target, "interrupt-controller") == null) {
            return;
        }
        for (Hart hart : program.harts()) {
            int context = context(target, hart);
            if (context >= 0) {
                put("%s_HART%s_CONTEXT".formatted(name, hart.id()), context);
            }
        }
    }

    // --- interrupts ----------------------------------------------------------------------------

    /** The connected interrupts of a device, whoever takes them. */
    List<Interrupt> interrupts(Target device) {
        List<Interrupt> found = new ArrayList<>();
        for (JsonNode port : device.type().path("interrupts")) {
            String source = port.path("name").asString();
            JsonNode wire = device.block().path("interrupts").path(source);
            boolean isConnected =
                    port.path("end").asString().equals("source")
                            && facts.isThere(device.block(), port.path("when"))
                            && wire.has("block");
            if (isConnected) {
                found.add(wired(device, source, wire));
            }
        }
        JsonNode console = console(device);
        if (console != null && console.has("source")) {
            found.add(
                    new Interrupt(
                            device,
                            "irq",
                            "PLIC_SOURCE",
                            facts.number(device.block(), console.path("source"), 0),
                            device.name(),
                            null));
        }
        return found;
    }

    private Interrupt wired(Target device, String source, JsonNode wire) {
        String sinkBlock = wire.path("block").asString();
        String sink = wire.path("sink").asString();
        long input = wire.path("input").asLong();
        Long priority = wire.has("priority") ? wire.path("priority").asLong() : null;
        JsonNode block = facts.block(sinkBlock);
        for (JsonNode controller : facts.provides(block, "interrupt-controller")) {
            if (controller.path("inputs").asString().equals(sink)) {
                return new Interrupt(device, source, "PLIC_SOURCE", input, sinkBlock, priority);
            }
        }
        JsonNode lines = facts.provides(block, "hart").getFirst().path("lines");
        // Causes of the Privileged ISA, table "mcause after trap".
        long cause =
                sink.equals(lines.path("external").asString())
                        ? 11
                        : sink.equals(lines.path("timer").asString())
                                ? 7
                                : sink.equals(lines.path("software").asString()) ? 3 : input;
        return new Interrupt(device, source, "CAUSE", cause, sinkBlock, priority);
    }

    private void interrupt(String name, Interrupt interrupt) {
        String macro = name + "_" + upper(interrupt.source());
        if (interrupt.sort().equals("PLIC_SOURCE")) {
            put(macro + "_PLIC_SOURCE", interrupt.number());
            for (Target target : program.targets()) {
                if (target.name().equals(interrupt.sink())
                        && role(target, "interrupt-controller") != null) {
                    put(macro + "_PLIC_BASE", target.base());
                }
            }
        } else if (program.harts().stream()
                .anyMatch(hart -> hart.name().equals(interrupt.sink()))) {
            put(macro + "_CAUSE", interrupt.number());
        }
        if (interrupt.priority() != null) {
            put(macro + "_PRIORITY", interrupt.priority());
        }
    }

    // --- registers -----------------------------------------------------------------------------

    private void register(Target target, String name, JsonNode register) {
        String macro = name + "_" + register.path("name").asString();
        long offset = facts.number(target.block(), register.path("offset"), 0);
        long count = facts.number(target.block(), register.path("count"), 1);
        int width = register.path("width").asInt(32);
        if (count > 1) {
            put(macro + "_OFFSET(%s)".formatted(register.path("first").asInt(0)), offset);
            put(macro + "_COUNT", count);
        } else {
            put(macro + "_OFFSET", offset);
        }
        facts.fields(target, register)
                .forEach(
                        (field, bits) -> {
                            if (bits[1] < width) {
                                long mask = (bits[1] >= 64 ? -1L : (1L << bits[1]) - 1) << bits[0];
                                put(macro + "_" + field + "_MASK", mask);
                                put(macro + "_" + field + "_SHIFT", bits[0]);
                            }
                        });
    }
}
