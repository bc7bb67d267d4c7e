package polymetron.verilog;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A module of Verilog-2005 while it is built: ports, nets, assignments, instances and what happens at the clock. The text
 * comes from here only.
 */
public final class Module {
    /** Which way a port goes. */
    public enum Way {
        INPUT("input"),
        OUTPUT("output"),
        INOUT("inout");

        private final String word;

        Way(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    /** A port of the module. */
    public record Port(Way way, Net net) {}

    /** A net and what it always is; in the order of the module. */
    record Assignment(Net net, Expression value) {}

    /**
     * An instance of another module.
     *
     * @param inputs expressions by the names of input ports
     * @param outputs nets by the names of output ports; null leaves one open
     */
    record Instance(
            String module,
            String name,
            Map<String, String> parameters,
            Map<String, Expression> inputs,
            Map<String, Net> outputs) {}

    /** Nets that are not needed, or not all of them, named as such for a checker of unused nets. */
    record Unused(String name, Expression value) {}

    /** Variables, what they are after reset, and what happens else. */
    record Clocked(Net clock, Net reset, List<Statement> atReset, List<Statement> otherwise) {}

    private final String name;
    private final List<String> comments = new ArrayList<>();
    private final Map<String, Port> ports = new LinkedHashMap<>();
    private final Map<String, Net> wires = new LinkedHashMap<>();
    private final Map<String, Net> variables = new LinkedHashMap<>();
    private final List<Object> items = new ArrayList<>();

    public Module(String name) {
        this.name = name;
    }

    public String name() {
        return name;
    }

    /** A line of what the file says at its head. */
    public Module comment(String line) {
        comments.add(line);
        return this;
    }

    public Net input(String net, int bits) {
        return port(Way.INPUT, net, bits);
    }

    public Net output(String net, int bits) {
        return port(Way.OUTPUT, net, bits);
    }

    /** An output that the clock changes. */
    public Net outputVariable(String net, int bits) {
        Net made = output(net, bits);
        variables.put(net, made);
        return made;
    }

    public Net inout(String net, int bits) {
        return port(Way.INOUT, net, bits);
    }

    private Net port(Way way, String net, int bits) {
        Net made = new Net(net, bits);
        free(net);
        ports.put(net, new Port(way, made));
        return made;
    }

    public Net wire(String net, int bits) {
        Net made = new Net(net, bits);
        free(net);
        wires.put(net, made);
        return made;
    }

    /** A variable that the clock changes. */
    public Net variable(String net, int bits) {
        Net made = new Net(net, bits);
        free(net);
        variables.put(net, made);
        return made;
    }

    private void free(String net) {
        if (ports.containsKey(net) || wires.containsKey(net) || variables.containsKey(net)) {
            throw new IllegalArgumentException("%s has %s twice".formatted(name, net));
        }
    }

    public void assign(Net net, Expression value) {
        if (net.bits() != value.bits()) {
            throw new IllegalArgumentException(
                    "%s: %s has %s bits and is given %s: %s"
                            .formatted(name, net.name(), net.bits(), value.bits(), value.text()));
        }
        items.add(new Assignment(net, value));
    }

    /** A wire that always has a value. */
    public Net wire(String net, Expression value) {
        Net made = wire(net, value.bits());
        assign(made, value);
        return made;
    }

    public void instance(
            String module,
            String instance,
            Map<String, String> parameters,
            Map<String, Expression> inputs,
            Map<String, Net> outputs) {
        items.add(
                new Instance(
                        module,
                        instance,
                        new LinkedHashMap<>(parameters),
                        new LinkedHashMap<>(inputs),
                        new LinkedHashMap<>(outputs)));
    }

    /**
     * What happens at the rising edge of a clock.
     *
     * @param reset while it is 1, only the first statements happen
     */
    public void clocked(Net clock, Net reset, List<Statement> atReset, List<Statement> otherwise) {
        items.add(new Clocked(clock, reset, List.copyOf(atReset), List.copyOf(otherwise)));
    }

    /** Says that nets, or some of their bits, are not needed. */
    public void unused(String what, List<Expression> nets) {
        items.add(
                new Unused(
                        "unused_" + what,
                        Expression.concat(nets.toArray(Expression[]::new)).any()));
    }

    /** Names of its nets, ports among them. */
    public Set<String> nets() {
        Set<String> all = new LinkedHashSet<>(ports.keySet());
        all.addAll(wires.keySet());
        all.addAll(variables.keySet());
        return all;
    }

    public List<Port> ports() {
        return List.copyOf(ports.values());
    }

    /**
     * Moves instances into a module of their own, and puts an instance of it in their place. Nets keep their names: what is
     * only between them goes along, the rest are ports.
     *
     * @param instances names of those that move; none of them has pads
     * @return the new module
     */
    public Module grouped(String module, String instance, Set<String> instances) {
        Module group = new Module(module);
        List<Object> moved =
                items.stream()
                        .filter(
                                item ->
                                        item instanceof Instance one
                                                && instances.contains(one.name()))
                        .toList();
        Set<String> readInside = new HashSet<>();
        Set<String> drivenInside = new HashSet<>();
        for (Object item : moved) {
            Instance one = (Instance) item;
            one.inputs().values().forEach(each -> readInside.addAll(each.reads()));
            one.outputs().values().forEach(net -> drivenInside.add(net.name()));
        }
        int place = items.indexOf(moved.getFirst());
        items.removeAll(moved);
        group.items.addAll(moved);
        Set<String> readOutside = new HashSet<>(reads());
        ports.values().stream()
                .filter(port -> port.way() == Way.OUTPUT)
                .forEach(port -> readOutside.add(port.net().name()));
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        List<Net> all = new ArrayList<>(wires.values());
        ports.values().forEach(port -> all.add(port.net()));
        for (Net net : all) {
            boolean isDriven = drivenInside.contains(net.name());
            if (isDriven && readOutside.contains(net.name())) {
                outs.put(net.name(), group.output(net.name(), net.bits()));
            } else if (isDriven) {
                group.wire(net.name(), net.bits());
                wires.remove(net.name());
            } else if (readInside.contains(net.name())) {
                ins.put(net.name(), group.input(net.name(), net.bits()).read());
            }
        }
        items.add(place, new Instance(module, instance, Map.of(), ins, outs));
        return group;
    }

    Map<String, Net> wires() {
        return wires;
    }

    Map<String, Net> variables() {
        return variables;
    }

    List<Object> items() {
        return items;
    }

    /** Instances of other modules by their names, in their order. */
    public Map<String, String> instances() {
        Map<String, String> all = new LinkedHashMap<>();
        for (Object item : items) {
            if (item instanceof Instance instance) {
                all.put(instance.name(), instance.module());
            }
        }
        return all;
    }

    /** Modules that it has instances of, each once, in their order. */
    public List<String> uses() {
        return items.stream()
                .filter(Instance.class::isInstance)
                .map(item -> ((Instance) item).module())
                .distinct()
                .toList();
    }

    /** Names of the nets that it reads. */
    public List<String> reads() {
        List<String> read = new ArrayList<>();
        for (Object item : items) {
            switch (item) {
                case Assignment assignment -> read.addAll(assignment.value().reads());
                case Unused unused -> read.addAll(unused.value().reads());
                case Instance instance ->
                        instance.inputs().values().forEach(each -> read.addAll(each.reads()));
                case Clocked clocked -> {
                    read.add(clocked.clock().name());
                    if (!clocked.atReset().isEmpty()) {
                        read.add(clocked.reset().name());
                    }
                    reads(clocked.atReset(), read);
                    reads(clocked.otherwise(), read);
                }
                default -> throw new IllegalStateException(item.toString());
            }
        }
        return read;
    }

    private static void reads(List<Statement> statements, List<String> read) {
        for (Statement statement : statements) {
            switch (statement) {
                case Statement.Store store -> read.addAll(store.value().reads());
                case Statement.If choice -> {
                    read.addAll(choice.condition().reads());
                    reads(choice.then(), read);
                    reads(choice.otherwise(), read);
                }
            }
        }
    }

    /** Nets and inputs that nothing reads, beside those that say so of themselves. */
    List<Expression> unread() {
        List<Net> all = new ArrayList<>(wires.values());
        ports.values().stream()
                .filter(port -> port.way() == Way.INPUT)
                .forEach(port -> all.add(port.net()));
        variables.values().stream().filter(net -> !ports.containsKey(net.name())).forEach(all::add);
        Set<String> read = new HashSet<>(reads());
        return all.stream()
                .filter(net -> !read.contains(net.name()) && !net.name().startsWith("unused_"))
                .map(Net::read)
                .toList();
    }

    /** The file of the module. */
    public String text() {
        return new ModuleText(this).text();
    }

    /** What its file says at its head. */
    public List<String> comments() {
        return comments;
    }
}
