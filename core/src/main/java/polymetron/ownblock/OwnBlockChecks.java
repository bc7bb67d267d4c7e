package polymetron.ownblock;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.Value;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlParameter;
import polymetron.hdl.HdlPort;
import polymetron.hdl.HdlReader;
import polymetron.hdl.HdlReading;
import polymetron.library.BlockType;
import polymetron.library.Capability;
import polymetron.library.Library;
import polymetron.library.Vlnv;
import polymetron.output.hardware.LogicPorts;
import polymetron.output.hardware.LogicPorts.LogicPort;

/**
 * What is wrong with a block of one's own beyond its form: names that are taken, HDL that is refused or cannot be read, and where
 * module and definition do not say the same.
 */
public final class OwnBlockChecks {
    private final OwnBlock block;
    private final BlockType type;
    private final Library library;
    private final List<BlockProblem> problems = new ArrayList<>();

    private OwnBlockChecks(OwnBlock block, Library library) {
        this.block = block;
        this.type = block.type();
        this.library = library;
    }

    /**
     * Everything that is wrong, definition first; empty for a block that can be used.
     *
     * @param library what else there is
     */
    public static List<BlockProblem> of(OwnBlock block, Library library) {
        OwnBlockChecks checks = new OwnBlockChecks(block, library);
        checks.identity();
        checks.problems.addAll(DefinitionNames.problems(block.type()));
        checks.clocking();
        checks.files();
        checks.hardware();
        checks.problems.addAll(TestFiles.problems(block));
        return List.copyOf(checks.problems);
    }

    private void say(String at, String what, Object... values) {
        problems.add(new BlockProblem(at, what.formatted(values)));
    }

    private void identity() {
        if (type.identity().vendor().equals(Vlnv.OURS)) {
            say(
                    "/definition/identity",
                    "%s is the vendor of the blocks that come with Polymetron; write your own",
                    Vlnv.OURS);
        }
        if (!type.provides().isEmpty()
                && type.provides().stream().anyMatch(OwnBlockChecks::needsModel)) {
            say(
                    "/definition/provides",
                    "harts, controllers and PLLs need a model on the bench, which a block of one's"
                            + " own cannot have; leave them out");
        }
    }

    /** Everything on a bus or with a stream follows a clock, and is reset. */
    private void clocking() {
        boolean follows = !type.busInterfaces().isEmpty() || !type.streams().isEmpty();
        if (follows && type.clocks().isEmpty()) {
            say("/definition/clocks", "a block with a bus interface or a stream needs a clock");
        }
        if (follows && type.resets().isEmpty() && type.resetOutputs().isEmpty()) {
            say("/definition/resets", "a block with a bus interface or a stream needs a reset");
        }
    }

    private static boolean needsModel(Capability role) {
        return role instanceof Capability.Hart
                || role instanceof Capability.Controller
                || role instanceof Capability.Pll;
    }

    private void files() {
        if (type.software() != null
                && type.software().driver() != null
                && !block.drivers().containsKey(type.software().driver())) {
            say(
                    "/definition/software/driver",
                    "there is no driver %s among the files; %s",
                    type.software().driver(),
                    block.drivers().isEmpty()
                            ? "add it"
                            : "there is " + String.join(", ", block.drivers().keySet()));
        }
        for (String driver : block.drivers().keySet()) {
            library.types().stream()
                    .filter(each -> !each.identity().isVersionOf(type.identity()))
                    .filter(each -> library.driverFiles(each.identity()).containsKey(driver))
                    .findFirst()
                    .ifPresent(
                            each ->
                                    say(
                                            "/drivers",
                                            "%s is the driver of %s; give it another name",
                                            driver,
                                            each.identity()));
        }
        if (type.hardware() == null) {
            return;
        }
        for (String file : block.hardware().keySet()) {
            if (library.hardware().common().containsKey(file)) {
                say("/hardware", "%s is a file of the library; give it another name", file);
            }
        }
        for (String file : type.hardware().files()) {
            if (!block.hardware().containsKey(file)) {
                say("/definition/hardware/files", "there is no file %s; add it", file);
            }
        }
    }

    private void hardware() {
        if (type.hardware() == null || block.hardware().isEmpty() || DefinitionNames.clash(type)) {
            return;
        }
        List<BlockProblem> refused = RefusedHdl.of(block.hardware());
        problems.addAll(refused);
        HdlReading reading = HdlReader.read(block.hardware());
        problems.addAll(VerilogWords.problems(reading));
        reading.problems()
                .forEach(each -> say(each.place(), "%s", VerilogWords.explained(each.what())));
        if (reading.problems().isEmpty()) {
            problems.addAll(Instances.problems(block.hardware(), reading));
        }
        Set<String> taken = takenModules();
        for (HdlModule module : reading.modules()) {
            if (taken.contains(module.name())) {
                say(
                        module.file() + ":" + module.line(),
                        "there is a module %s in the library or in another block; rename it",
                        module.name());
            }
        }
        Optional<HdlModule> top = reading.module(type.hardware().module());
        if (top.isEmpty()) {
            if (reading.problems().isEmpty()) {
                say(
                        "/definition/hardware/module",
                        "there is no module %s in the files%s",
                        type.hardware().module(),
                        reading.modules().isEmpty()
                                ? ""
                                : "; there is "
                                        + String.join(
                                                ", ",
                                                reading.modules().stream()
                                                        .map(HdlModule::name)
                                                        .toList()));
            }
            return;
        }
        if (!top.get().file().equals(top.get().name() + ".v")) {
            say(
                    top.get().file() + ":" + top.get().line(),
                    "module %s has to be in a file of its own name, %s.v",
                    top.get().name(),
                    top.get().name());
            return;
        }
        parameters(top.get());
        for (Map<String, String> setting : ParameterSets.of(type)) {
            ports(top.get(), setting);
            if (!problems.isEmpty()) {
                return;
            }
        }
    }

    /** Modules of the library, and of other blocks that people have written; versions of this one may have the same. */
    private Set<String> takenModules() {
        Set<String> taken = new TreeSet<>();
        // Each file of the library is one module of the same name.
        library.hardware().common().keySet().forEach(file -> taken.add(file.replace(".v", "")));
        for (BlockType other : library.types()) {
            if (!other.identity().isVersionOf(type.identity())) {
                library.hardware()
                        .of(other.identity())
                        .forEach(
                                (file, text) -> {
                                    taken.add(file.replaceFirst("\\..*", ""));
                                    if (!other.identity().vendor().equals(Vlnv.OURS)) {
                                        taken.addAll(HdlText.modules(file, text));
                                    }
                                });
            }
        }
        return taken;
    }

    private void parameters(HdlModule module) {
        Set<String> known = new TreeSet<>();
        for (HdlParameter each : module.parameters()) {
            if (!each.isLocal()) {
                known.add(each.name());
            }
        }
        for (String name : type.hardware().parameters().keySet()) {
            if (!known.contains(name)) {
                say(
                        "/definition/hardware/parameters/" + name,
                        "module %s has no parameter %s%s",
                        module.name(),
                        name,
                        known.isEmpty() ? "" : "; it has " + String.join(", ", known));
            }
        }
        for (HdlParameter each : module.parameters()) {
            if (!each.isLocal()
                    && each.value() == null
                    && !type.hardware().parameters().containsKey(each.name())) {
                say(
                        module.file() + ":" + each.line(),
                        "parameter %s has no default; set it in /definition/hardware/parameters",
                        each.name());
            }
        }
    }

    private void ports(HdlModule module, Map<String, String> setting) {
        List<LogicPort> expected = LogicPorts.of(type, setting);
        Map<String, LogicPort> byName = new LinkedHashMap<>();
        for (LogicPort port : expected) {
            byName.put(port.name(), port);
            LogicPorts.alsoCalled(port).forEach(other -> byName.putIfAbsent(other, port));
        }
        Map<String, Value> values = values(setting);
        for (HdlPort port : module.ports()) {
            LogicPort its = byName.get(port.name());
            String at = module.file() + ":" + port.line();
            if (its == null) {
                if (!LogicPorts.isOfBus(type, port.name())) {
                    say(
                            at,
                            "port %s is nothing that the definition has%s",
                            port.name(),
                            nearest(port.name(), byName.keySet()));
                }
            } else if (its.way() != port.way()) {
                say(at, "port %s has to be an %s", port.name(), its.way());
            } else if (!its.width().isEmpty()) {
                width(module, port, its, at, values, setting);
            }
        }
        Set<String> has = new TreeSet<>();
        module.ports().forEach(each -> has.add(each.name()));
        for (LogicPort port : expected) {
            boolean isThere =
                    has.contains(port.name())
                            || LogicPorts.alsoCalled(port).stream().anyMatch(has::contains);
            if (port.isNeeded() && !isThere) {
                say(
                        module.file() + ":" + module.line(),
                        "module %s needs an %s %s%s: %s",
                        module.name(),
                        port.way(),
                        port.bits() == 1 ? "" : "[%s:0] ".formatted(port.bits() - 1),
                        port.name(),
                        port.explains());
            }
        }
    }

    private void width(
            HdlModule module,
            HdlPort port,
            LogicPort its,
            String at,
            Map<String, Value> values,
            Map<String, String> setting) {
        try {
            int bits = module.bits(port, values);
            if (bits != its.bits()) {
                say(
                        at,
                        "port %s has %s bits%s, and the definition says %s",
                        port.name(),
                        bits,
                        setting.isEmpty() ? "" : " with " + ParameterSets.text(setting),
                        its.bits());
            }
        } catch (IllegalArgumentException unknown) {
            say(at, "port %s: %s", port.name(), unknown.getMessage());
        }
    }

    /** Values of the module's parameters on a block with some parameters. */
    private Map<String, Value> values(Map<String, String> setting) {
        Map<String, Value> known = LogicPorts.parameters(type, setting);
        Map<String, Value> values = new LinkedHashMap<>();
        for (Map.Entry<String, Expression> each : type.hardware().parameters().entrySet()) {
            try {
                values.put(each.getKey(), each.getValue().evaluate(known));
            } catch (ExpressionException | ArithmeticException unknown) {
                // What is only known on a platform, such as the clock, has the module's own default
                // here.
                continue;
            }
        }
        return values;
    }

    private static String nearest(String name, Set<String> known) {
        return known.stream()
                .filter(each -> each.equalsIgnoreCase(name) || each.endsWith("_" + name))
                .findFirst()
                .map("; it has %s"::formatted)
                .orElse("");
    }
}
