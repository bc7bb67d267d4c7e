package polymetron.ownblock;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlParameter;
import polymetron.hdl.HdlPort;
import polymetron.hdl.HdlReader;
import polymetron.hdl.HdlReading;
import polymetron.output.hardware.Keywords;

/** Names of VHDL that are words of Verilog: the module around an entity is Verilog and has to write them. */
final class VerilogWords {
    private static final Pattern UNREADABLE = Pattern.compile("'(\\w+)' cannot be read here");

    private VerilogWords() {}

    /** What cannot be read, with the reason where it is most likely a name. */
    static String explained(String problem) {
        Matcher word = UNREADABLE.matcher(problem);
        return word.matches() && Keywords.isOfSystemVerilog(word.group(1))
                ? "%s: it is a word of SystemVerilog, as which all files are read; a name has to be another"
                        .formatted(problem)
                : problem;
    }

    static List<BlockProblem> problems(HdlReading reading) {
        List<BlockProblem> problems = new ArrayList<>();
        for (HdlModule entity : reading.modules()) {
            if (HdlReader.isVhdl(entity.file())) {
                Stream.of(
                                Stream.of(entity.name()),
                                entity.parameters().stream().map(HdlParameter::name),
                                entity.ports().stream().map(HdlPort::name))
                        .flatMap(names -> names)
                        .filter(Keywords::isKeyword)
                        .forEach(
                                name ->
                                        problems.add(
                                                new BlockProblem(
                                                        "%s:%s"
                                                                .formatted(
                                                                        entity.file(),
                                                                        entity.line()),
                                                        "%s in entity %s is a word of Verilog; rename it"
                                                                .formatted(name, entity.name()))));
            }
        }
        return problems;
    }
}
