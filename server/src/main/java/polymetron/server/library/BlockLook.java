package polymetron.server.library;

import java.util.List;
import java.util.Map;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.Register;
import polymetron.library.BlockType;
import polymetron.library.Library;
import polymetron.output.hardware.LogicPorts;
import polymetron.output.hardware.LogicPorts.LogicPort;
import polymetron.ownblock.BlockProblem;
import polymetron.ownblock.DefinitionNames;
import polymetron.ownblock.DriverSkeleton;
import polymetron.ownblock.LogicSkeleton;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.ownblock.TestSkeleton;

/**
 * What follows from a block while its author writes it.
 *
 * @param document the whole with open places filled, as it would be kept; empty where it cannot be read
 * @param problems what is wrong; empty for one that can be kept
 * @param registers its registers with the parameters at their defaults
 * @param ports what its module is connected with
 * @param parameters those of the block that its module has as well
 * @param skeleton a module to begin with
 * @param driver a driver to begin with
 * @param test a test to begin with
 */
record BlockLook(
        String document,
        List<BlockProblem> problems,
        List<RegisterBits> registers,
        List<ModulePort> ports,
        String module,
        List<String> parameters,
        String skeleton,
        String driverName,
        String driver,
        String testName,
        String test) {
    /** A register as its bits are drawn. */
    record RegisterBits(
            String name, long offset, int width, int count, int stride, List<FieldBits> fields) {}

    record FieldBits(String name, int low, int bits) {}

    record ModulePort(String name, String direction, int bits, boolean needed, String explains) {}

    static BlockLook unreadable(String at, String what) {
        return new BlockLook(
                "",
                List.of(new BlockProblem(at, what)),
                List.of(),
                List.of(),
                "",
                List.of(),
                "",
                "",
                "",
                "",
                "");
    }

    static BlockLook of(OwnBlock block, Library library) {
        BlockType type = block.type();
        String text = OwnBlockDocument.write(block);
        List<BlockProblem> problems = OwnBlockChecks.of(block, library);
        List<RegisterBits> registers =
                new BlockShape(type, Map.of()).registers().stream().map(BlockLook::bits).toList();
        if (DefinitionNames.clash(type)) {
            return new BlockLook(
                    text, problems, registers, List.of(), "", List.of(), "", "", "", "", "");
        }
        return new BlockLook(
                text,
                problems,
                registers,
                LogicPorts.of(type, Map.of()).stream().map(BlockLook::port).toList(),
                LogicSkeleton.moduleName(type),
                List.copyOf(LogicSkeleton.parameters(type)),
                LogicSkeleton.of(type),
                DriverSkeleton.fileName(type),
                DriverSkeleton.of(type),
                TestSkeleton.fileName(type),
                TestSkeleton.of(block));
    }

    private static RegisterBits bits(Register register) {
        return new RegisterBits(
                register.name(),
                register.offset(),
                register.width(),
                register.count(),
                register.stride(),
                register.fields().stream()
                        .map(field -> new FieldBits(field.name(), field.lowBit(), field.bits()))
                        .toList());
    }

    private static ModulePort port(LogicPort port) {
        return new ModulePort(
                port.name(), port.way().toString(), port.bits(), port.isNeeded(), port.explains());
    }
}
