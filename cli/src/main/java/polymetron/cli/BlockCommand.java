package polymetron.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import polymetron.library.LibraryLoader;
import polymetron.ownblock.BlockFromHdl;
import polymetron.ownblock.BlockProblem;
import polymetron.ownblock.DefinitionNames;
import polymetron.ownblock.DriverSkeleton;
import polymetron.ownblock.HdlProposal;
import polymetron.ownblock.LogicSkeleton;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.ownblock.RegisterImport;

/** Block types of one's own. */
@Command(
        name = "block",
        description = "Checks, begins and makes block types of one's own.",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            CompileBlockCommand.class,
            SelfTestBlockCommand.class,
            TestBlockCommand.class,
            MeasureBlockCommand.class
        },
        mixinStandardHelpOptions = true)
final class BlockCommand {
    @Spec private CommandSpec spec;

    private PrintWriter out() {
        return spec.commandLine().getOut();
    }

    private int print(List<BlockProblem> problems) {
        return OwnBlocks.print(out(), problems);
    }

    @Command(
            name = "check",
            description = "Prints what is wrong with a block type.",
            mixinStandardHelpOptions = true)
    int check(
            @Parameters(paramLabel = "BLOCK.json", description = "the block type's document")
                    Path file)
            throws IOException {
        return print(OwnBlockChecks.of(OwnBlocks.read(file), LibraryLoader.load()));
    }

    @Command(
            name = "begin",
            description =
                    "Adds a module and a driver to begin with, where there are none, and fills open"
                            + " places.",
            mixinStandardHelpOptions = true)
    int begin(
            @Parameters(paramLabel = "BLOCK.json", description = "the block type's document")
                    Path file,
            @Option(
                            names = "--out",
                            paramLabel = "FILE",
                            required = true,
                            description = "file to write")
                    Path to)
            throws IOException {
        OwnBlock block = OwnBlocks.read(file);
        if (DefinitionNames.clash(block.type())) {
            return print(OwnBlockChecks.of(block, LibraryLoader.load()));
        }
        SortedMap<String, String> hardware = new TreeMap<>(block.hardware());
        SortedMap<String, String> drivers = new TreeMap<>(block.drivers());
        if (hardware.isEmpty()) {
            hardware.put(
                    LogicSkeleton.moduleName(block.type()) + ".v", LogicSkeleton.of(block.type()));
        }
        if (drivers.isEmpty()) {
            String named = block.type().software().driver();
            drivers.put(
                    named == null ? DriverSkeleton.fileName(block.type()) : named,
                    DriverSkeleton.of(block.type()));
        }
        // Read again: the definition names the files that are new.
        OwnBlock whole =
                OwnBlockDocument.read(
                        String.valueOf(file.getFileName()),
                        OwnBlockDocument.write(
                                new OwnBlock(
                                        block.type(),
                                        block.definition(),
                                        hardware,
                                        drivers,
                                        block.tests())));
        Inputs.write(to, OwnBlockDocument.write(whole).getBytes(StandardCharsets.UTF_8));
        return print(OwnBlockChecks.of(whole, LibraryLoader.load()));
    }

    @Command(
            name = "from-hdl",
            description =
                    "Makes a block type from Verilog or VHDL files, and prints the role of each"
                            + " port.",
            mixinStandardHelpOptions = true)
    int fromHdl(
            @Parameters(
                            paramLabel = "FILE",
                            arity = "1..*",
                            description = "Verilog or VHDL, and what it includes")
                    List<Path> paths,
            @Option(
                            names = "--module",
                            paramLabel = "NAME",
                            description = "the module; the one that no other uses without it")
                    String module,
            @Option(
                            names = "--vendor",
                            paramLabel = "NAME",
                            defaultValue = "own",
                            description = "first part of the identity")
                    String vendor,
            @Option(
                            names = "--out",
                            paramLabel = "BLOCK.json",
                            required = true,
                            description = "file to write")
                    Path to)
            throws IOException {
        SortedMap<String, String> files = new TreeMap<>();
        for (Path path : paths) {
            files.put(String.valueOf(path.getFileName()), Inputs.text(path));
        }
        BlockFromHdl found = BlockFromHdl.of(files, module, vendor);
        if (found.block() == null || !found.problems().isEmpty()) {
            return print(found.problems());
        }
        for (HdlProposal.Reason each : found.reasons()) {
            out().printf(
                            "%-24s %-32s %s%n",
                            each.port(),
                            each.became().isEmpty() ? "unassigned" : each.became(),
                            each.why());
        }
        Inputs.write(to, OwnBlockDocument.write(found.block()).getBytes(StandardCharsets.UTF_8));
        return print(OwnBlockChecks.of(found.block(), LibraryLoader.load()));
    }

    @Command(
            name = "registers",
            description = "Prints the registers of a table (CSV or tabs) as a definition has them.",
            mixinStandardHelpOptions = true)
    int registers(
            @Parameters(paramLabel = "TABLE.csv", description = "a row for each field") Path table)
            throws IOException {
        out().print(RegisterImport.read(Inputs.text(table)));
        out().flush();
        return 0;
    }
}
