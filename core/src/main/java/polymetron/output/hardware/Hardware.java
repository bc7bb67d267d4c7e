package polymetron.output.hardware;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Pattern;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.hdl.HdlReader;
import polymetron.library.BlockType;
import polymetron.library.Vlnv;
import polymetron.output.HandoffFile;
import polymetron.output.HandoffNames;
import polymetron.text.Escape;
import polymetron.verilog.Module;
import polymetron.verilog.ModuleHeader;

/**
 * A platform as hardware: its Verilog files, or what of it cannot be built yet.
 *
 * @param top name of the top level
 * @param modules generated modules, each behind those that it uses, the top level last
 * @param files all files below {@code hdl/} and {@code sim/}; empty when something is not built
 * @param notBuilt what there is no hardware for yet
 */
public record Hardware(
        String top, List<Module> modules, List<HandoffFile> files, List<NotBuilt> notBuilt) {
    private static final String PREFIX = "polymetron";

    public static Hardware of(ElaboratedPlatform platform) {
        HandoffNames names = HandoffNames.of(platform);
        String top = topName(names.base());
        List<NotBuilt> missing = BuildChecks.of(platform);
        return missing.isEmpty()
                ? new Builder(platform, names, top).build()
                : new Hardware(top, List.of(), List.of(), missing);
    }

    /** Modules of the library begin with our name, so the top level does not. */
    private static String topName(String base) {
        String name = base.startsWith(PREFIX) ? "platform_" + base : base;
        return Keywords.isKeyword(name) ? name + "_top" : name;
    }

    /** The instance of a group; none of a block or bus has two underscores in a row. */
    static String groupInstance(String group) {
        return group + "__group";
    }

    /** Where a block is below the top level, as constraints name it. */
    public static String path(ElaboratedBlock block) {
        String name = Keywords.isKeyword(block.name()) ? block.name() + "__" : block.name();
        return block.block().group() == null
                ? name
                : groupInstance(block.block().group()) + "/" + name;
    }

    /** Modules of the library keep to one style; those that people write are read as what they are. */
    private static ModuleHeader header(
            BlockType type, SortedMap<String, String> files, String text) {
        return type.identity().vendor().equals(Vlnv.OURS)
                ? ModuleHeader.of(text)
                : HdlReader.read(files).module(type.hardware().module()).orElseThrow().header();
    }

    private static final class Builder {
        private final ElaboratedPlatform platform;
        private final HandoffNames names;
        private final String top;
        private final SortedMap<String, String> sources = new TreeMap<>();
        private final Map<String, Module> modules = new LinkedHashMap<>();
        private final InstanceNames instances = new InstanceNames();

        private Builder(ElaboratedPlatform platform, HandoffNames names, String top) {
            this.platform = platform;
            this.names = names;
            this.top = top;
        }

        private Hardware build() {
            Map<String, Module> parts = new LinkedHashMap<>();
            SortedMap<String, String> common = platform.library().hardware().common();
            for (ElaboratedBlock block : platform.blocks()) {
                if (OutsideLogic.is(block)) {
                    continue;
                }
                SortedMap<String, String> own =
                        platform.library().hardware().of(block.type().identity());
                sources.putAll(own);
                String file = block.type().hardware().module() + ".v";
                String text = own.getOrDefault(file, common.get(file));
                ModuleHeader behaviour = header(block.type(), own, text);
                instances.know(behaviour);
                List<Module> built =
                        BlockModule.of(
                                platform,
                                block,
                                behaviour,
                                names.fingerprint(),
                                top + "_" + block.name());
                built.forEach(this::add);
                parts.put(block.name(), built.getLast());
            }
            for (ElaboratedBus bus : platform.buses()) {
                if (bus.initiators().isEmpty()) {
                    continue;
                }
                List<Module> built = BusModule.of(platform, bus, BusModule.name(top, bus));
                built.forEach(this::add);
                parts.put(bus.name(), built.getLast());
                bus.initiators().forEach(each -> adapter(bus, each.block(), each.form(), parts));
                bus.placed().forEach(each -> adapter(bus, each.block(), each.form(), parts));
            }
            Module whole = TopModule.of(platform, top, parts, instances);
            // An instance cannot be called like a net beside it, and all nets are known only now.
            if (instances.know(whole.nets())) {
                whole = TopModule.of(platform, top, parts, instances);
            }
            groups(whole);
            add(whole);
            List<HandoffFile> files = new ArrayList<>();
            libraryFiles().forEach((name, text) -> files.add(file(name, "library", text)));
            for (Module module : modules.values()) {
                files.add(file(module.name() + ".v", "Verilog", module.text()));
            }
            StringBuilder list = new StringBuilder();
            files.stream()
                    .map(each -> each.path().substring(4))
                    .filter(name -> !name.endsWith("h"))
                    .forEach(name -> list.append(name).append('\n'));
            files.add(new HandoffFile("hdl/files.f", "list of the files", list.toString()));
            files.add(
                    new HandoffFile(
                            "hdl/" + top + ".vhd",
                            "component for VHDL",
                            VhdlComponent.of(modules.get(top), modules.get(top).comments())));
            files.add(new HandoffFile("hdl/LICENSE", "license of the files", License.TEXT));
            files.addAll(Simulation.files(platform, top, instances, libraryFiles().keySet()));
            return new Hardware(top, List.copyOf(modules.values()), List.copyOf(files), List.of());
        }

        /** A group is a module, with its blocks and what adapts them. */
        private void groups(Module whole) {
            Map<String, Set<String>> members = new TreeMap<>();
            for (ElaboratedBlock block : platform.blocks()) {
                if (block.block().group() != null) {
                    Set<String> names =
                            members.computeIfAbsent(
                                    block.block().group(), group -> new LinkedHashSet<>());
                    names.add(instances.of(block.name()));
                    block.shape()
                            .busInterfaces()
                            .forEach(
                                    form ->
                                            names.add(
                                                    block.name()
                                                            + "_"
                                                            + form.name()
                                                            + "__adapter"));
                }
            }
            members.forEach(
                    (group, names) ->
                            add(
                                    whole.grouped(
                                            top + "_" + group + "__group",
                                            groupInstance(group),
                                            names)));
        }

        private void adapter(
                ElaboratedBus bus,
                ElaboratedBlock block,
                SizedInterface form,
                Map<String, Module> parts) {
            if (bus.adaptersOf(new InterfaceRef(block.name(), form.name())).isEmpty()) {
                return;
            }
            String name = AdapterModule.name(top, block, form);
            Module module = AdapterModule.of(platform, bus, block, form, name);
            add(module);
            parts.put(name.substring(top.length() + 1), module);
        }

        private void add(Module module) {
            module.comment(
                            "%s: %s"
                                    .formatted(
                                            Escape.oneLine(platform.platform().name()),
                                            module.name()))
                    .comment(
                            "Platform fingerprint %s. Made by Polymetron; changes here are lost."
                                    .formatted(names.fingerprint()))
                    .comment("SPDX-License-Identifier: 0BSD");
            modules.put(module.name(), module);
            instances.know(module);
            if (module.name().equals(top)) {
                instances
                        .renamed()
                        .forEach(
                                (name, instance) ->
                                        module.comment(
                                                "%s is instance %s: its own name is taken in a module, or a word of the language."
                                                        .formatted(name, instance)));
            }
        }

        private static HandoffFile file(String name, String title, String text) {
            return new HandoffFile("hdl/" + name, title, text);
        }

        /** Files of the library that the modules use, and those that these use in turn. */
        private SortedMap<String, String> libraryFiles() {
            Map<String, String> byModule = new TreeMap<>();
            platform.library()
                    .hardware()
                    .common()
                    .forEach((name, text) -> byModule.put(name.replace(".v", ""), text));
            sources.forEach(
                    (name, text) -> {
                        if (name.endsWith(".v")) {
                            byModule.put(name.replace(".v", ""), text);
                        }
                    });
            Set<String> used = new LinkedHashSet<>();
            Deque<String> open = new ArrayDeque<>();
            modules.values().forEach(module -> open.addAll(module.uses()));
            while (!open.isEmpty()) {
                String name = open.pop();
                String text = byModule.get(name);
                if (text != null && used.add(name)) {
                    byModule.keySet().stream()
                            .filter(other -> !other.equals(name))
                            .filter(
                                    other ->
                                            Pattern.compile("\\b" + other + "\\b")
                                                    .matcher(text)
                                                    .find())
                            .forEach(open::add);
                }
            }
            SortedMap<String, String> files = new TreeMap<>();
            used.forEach(name -> files.put(name + ".v", byModule.get(name)));
            // Files of a person's own block need not be called like their modules.
            files.putAll(sources);
            return files;
        }
    }
}
