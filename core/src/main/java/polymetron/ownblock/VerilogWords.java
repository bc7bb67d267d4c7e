package polymetron.ownblock;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlParameter;
import polymetron.hdl.HdlPort;
import polymetron.hdl.HdlReader;
import polymetron.hdl.HdlReading;
import polymetron.output.hardware.Keywords;

/** Names of VHDL that are words of Verilog: the module around an entity is Verilog and has to write them. */
final class VerilogWords {
    private VerilogWords() {}

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
