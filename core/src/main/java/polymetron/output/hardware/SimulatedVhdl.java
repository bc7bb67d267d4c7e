package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import polymetron.elaborate.ElaboratedPlatform;

/** What the simulation's makefile does about VHDL: GHDL makes Verilog of it, since the simulators read nothing else. */
final class SimulatedVhdl {
    private static final String FILES =
            "FILES := $(addprefix ../hdl/,$(shell cat ../hdl/files.f))\n";
    private static final String IN_VHDL = "%.vhd %.vhdl";

    private SimulatedVhdl() {}

    /** The makefile as it is where no block has VHDL. */
    static String in(ElaboratedPlatform platform, String makefile) {
        Map<String, VhdlEntity> entities = new TreeMap<>();
        List<String> several = new ArrayList<>();
        platform.blocks().stream()
                .flatMap(block -> VhdlEntity.of(platform, block).stream())
                .forEach(
                        entity -> {
                            VhdlEntity before = entities.putIfAbsent(entity.name(), entity);
                            if (before != null && !before.generics().equals(entity.generics())) {
                                several.add(entity.name());
                            }
                        });
        if (entities.isEmpty()) {
            return makefile;
        }
        StringBuilder variables = new StringBuilder();
        StringBuilder rules = new StringBuilder();
        variables
                .append("ALL := $(addprefix ../hdl/,$(shell cat ../hdl/files.f))\n")
                .append("VHDL := $(filter %s,$(ALL))\n".formatted(IN_VHDL))
                .append("FILES := $(filter-out %s,$(ALL))".formatted(IN_VHDL));
        for (VhdlEntity entity : entities.values()) {
            String target = "build/" + entity.converted();
            variables.append(' ').append(target);
            rules.append("%s: $(VHDL)\n\tmkdir -p build\n".formatted(target));
            rules.append(
                    several.contains(entity.name())
                            ? "\t$(error %s is used with different generics, which one Verilog module cannot be; simulate with a tool that reads both languages)\n\n"
                                    .formatted(entity.name())
                            : "\t%s\n\n"
                                    .formatted(
                                            entity.command("../hdl/", "build/")
                                                    .replace("$", "$$")));
        }
        return makefile.replace(FILES, variables.append('\n'))
                .replace("build/iverilog: $(FILES)", rules + "build/iverilog: $(FILES)");
    }
}
