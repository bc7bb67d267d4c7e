package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Pattern;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.expression.Value;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlParameter;
import polymetron.hdl.HdlReader;
import polymetron.library.Vlnv;

/**
 * An entity in VHDL that a block's Verilog uses, with the values that its generics have in one block. Simulators that read Verilog
 * alone get it as GHDL synthesises it for these values: a module whose parameters are there by name only.
 *
 * @param files all VHDL files of the block
 * @param generics values by name
 */
public record VhdlEntity(String name, List<String> files, SortedMap<String, String> generics) {
    /** Those that Verilog files of a block name; what entities use among themselves GHDL finds. */
    static List<VhdlEntity> of(ElaboratedPlatform platform, ElaboratedBlock block) {
        SortedMap<String, String> own = platform.library().hardware().of(block.type().identity());
        return block.type().identity().vendor().equals(Vlnv.OURS)
                ? List.of()
                : of(own, BlockModule.parameters(platform, block));
    }

    /**
     * @param own files of a block by name
     * @param values values of the parameters of its module, as constants of Verilog
     */
    public static List<VhdlEntity> of(SortedMap<String, String> own, Map<String, String> values) {
        List<String> files = own.keySet().stream().filter(HdlReader::isVhdl).toList();
        if (files.isEmpty()) {
            return List.of();
        }
        List<VhdlEntity> used = new ArrayList<>();
        for (HdlModule module : HdlReader.read(own).modules()) {
            if (HdlReader.isVhdl(module.file()) && isNamed(module.name(), own)) {
                used.add(new VhdlEntity(module.name(), files, generics(module, values)));
            }
        }
        return used;
    }

    private static boolean isNamed(String entity, SortedMap<String, String> files) {
        Pattern word = Pattern.compile("\\b" + entity + "\\b");
        return files.entrySet().stream()
                .filter(file -> !HdlReader.isVhdl(file.getKey()))
                .anyMatch(file -> word.matcher(file.getValue()).find());
    }

    private static SortedMap<String, String> generics(
            HdlModule module, Map<String, String> values) {
        SortedMap<String, String> generics = new TreeMap<>();
        for (HdlParameter each : module.parameters()) {
            if (!each.isLocal()) {
                Optional.ofNullable(values.get(each.name()))
                        .map(VhdlEntity::decimal)
                        .or(() -> module.initial(each).map(Value::asNumber).map(Object::toString))
                        .ifPresent(value -> generics.put(each.name(), value));
            }
        }
        return generics;
    }

    private static String decimal(String constant) {
        return polymetron.expression.Expression.parse(constant)
                .evaluate(name -> null)
                .asNumber()
                .toString();
    }

    /** The file that it is converted to. */
    public String converted() {
        return name + "__vhdl.v";
    }

    /**
     * What a shell does to convert it.
     *
     * @param from folder of the VHDL files, which ends in a slash or is empty
     * @param to folder for what is made, likewise; it has to be there
     */
    public String command(String from, String to) {
        StringBuilder command = new StringBuilder();
        // Also what was written before VHDL had packages for arithmetic.
        String options = "--std=08 -fsynopsys -frelaxed" + (to.isEmpty() ? "" : " --workdir=" + to);
        command.append("ghdl -i %s".formatted(options));
        files.forEach(file -> command.append(' ').append(from).append(file));
        command.append(" && ghdl --synth %s --out=verilog".formatted(options));
        generics.forEach((generic, value) -> command.append(" -g%s=%s".formatted(generic, value)));
        String module = to + name + "__plain.v";
        command.append(" %s > %s".formatted(name, module));
        return command.append(
                        " && sed 's/^module %1$s$/module %1$s%2$s/' %3$s > %4$s"
                                .formatted(name, parameters(), module, to + converted()))
                .toString();
    }

    private String parameters() {
        if (generics.isEmpty()) {
            return "";
        }
        StringBuilder all = new StringBuilder();
        generics.forEach(
                (name, value) ->
                        all.append(all.isEmpty() ? "" : ", ")
                                .append("parameter %s = %s".formatted(name, value)));
        return " #(" + all + ")";
    }
}
