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
import polymetron.bench.foreign.CompilerCheck;
import polymetron.bench.foreign.ForeignModels;
import polymetron.bench.foreign.RegisterSelfTest;
import polymetron.bench.foreign.SynthesisedSize;
import polymetron.bench.machine.BenchException;
import polymetron.library.Library;
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
        mixinStandardHelpOptions = true)
final class BlockCommand {
    @Spec private CommandSpec spec;

    private PrintWriter out() {
        return spec.commandLine().getOut();
    }

    private int print(List<BlockProblem> problems) {
        for (BlockProblem each : problems) {
            out().printf("%s%s%n", each.at().isEmpty() ? "" : each.at() + ": ", each.what());
        }
        if (problems.isEmpty()) {
            out().println("nothing is wrong");
        }
        out().flush();
        return problems.isEmpty() ? 0 : CommandLineApplication.FINDINGS;
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
            name = "compile",
            description =
                    "Prints what Verilator and GHDL say of a block type's HDL, with up to three"
                            + " sets of its parameters.",
            mixinStandardHelpOptions = true)
    int compile(
            @Parameters(paramLabel = "BLOCK.json", description = "the block type's document")
                    Path file)
            throws IOException, InterruptedException {
        OwnBlock block = OwnBlocks.read(file);
        Library library = LibraryLoader.load();
        List<BlockProblem> problems = OwnBlockChecks.of(block, library);
        if (!problems.isEmpty()) {
            return print(problems);
        }
        CompilerCheck check =
                RunCommand.models().compilers().orElseThrow(BlockCommand::toolsAreMissing);
        List<CompilerCheck.Said> said = check.of(block, library.hardware()).said();
        for (CompilerCheck.Said each : said) {
            out().printf(
                            "%s%s: %s%s%n",
                            each.at().isEmpty() ? "" : each.at() + ": ",
                            each.isError() ? "error" : "warning",
                            each.what(),
                            each.with().isEmpty() ? "" : " (with " + each.with() + ")");
        }
        if (said.isEmpty()) {
            out().println("nothing is wrong");
        }
        out().flush();
        return said.stream().anyMatch(CompilerCheck.Said::isError)
                ? CommandLineApplication.FINDINGS
                : 0;
    }

    @Command(
            name = "self-test",
            description =
                    "Tries the registers of a block type in its HDL, and prints what they do in"
                            + " another way than they are described.",
            mixinStandardHelpOptions = true)
    int selfTest(
            @Parameters(paramLabel = "BLOCK.json", description = "the block type's document")
                    Path file)
            throws IOException {
        OwnBlock block = OwnBlocks.read(file);
        Library library = LibraryLoader.load();
        List<BlockProblem> problems = OwnBlockChecks.of(block, library);
        if (!problems.isEmpty()) {
            return print(problems);
        }
        if (block.hardware().isEmpty()) {
            throw new BadInput("%s has no HDL yet".formatted(file));
        }
        ForeignModels models = RunCommand.models();
        if (!models.isPossible()) {
            throw toolsAreMissing();
        }
        RegisterSelfTest.Outcome outcome;
        try {
            outcome = new RegisterSelfTest(models).of(block, library);
        } catch (BenchException cannot) {
            throw new BadInput(cannot.getMessage());
        }
        for (RegisterSelfTest.Different each : outcome.different()) {
            out().printf("%s at 0x%X: %s%n", each.register(), each.offset(), each.what());
        }
        if (!outcome.left().isEmpty()) {
            out().printf(
                            "not compared, since the block gives or changes them: %s%n",
                            String.join(", ", outcome.left()));
        }
        out().printf(
                        "%d accesses to %d %s of registers: %s%n",
                        outcome.accesses(),
                        outcome.words(),
                        outcome.words() == 1 ? "word" : "words",
                        outcome.different().isEmpty()
                                ? "as described"
                                : outcome.different().size() + " different");
        out().flush();
        return outcome.different().isEmpty() ? 0 : CommandLineApplication.FINDINGS;
    }

    @Command(
            name = "size",
            description =
                    "Prints what synthesis makes of a block type with the defaults of its"
                            + " parameters, beside what its definition says.",
            mixinStandardHelpOptions = true)
    int size(
            @Parameters(paramLabel = "BLOCK.json", description = "the block type's document")
                    Path file)
            throws IOException, InterruptedException {
        OwnBlock block = OwnBlocks.read(file);
        Library library = LibraryLoader.load();
        List<BlockProblem> problems = OwnBlockChecks.of(block, library);
        if (!problems.isEmpty()) {
            return print(problems);
        }
        if (block.hardware().isEmpty()) {
            throw new BadInput("%s has no HDL yet".formatted(file));
        }
        SynthesisedSize sizes =
                RunCommand.models()
                        .sizes()
                        .orElseThrow(
                                () -> new BadInput("yosys, bubblewrap and prlimit are needed"));
        SynthesisedSize.Outcome outcome;
        try {
            outcome = sizes.of(block, library);
        } catch (BenchException cannot) {
            throw new BadInput(cannot.getMessage());
        }
        print("lookup tables", outcome.made().lookupTables(), outcome.said().lookupTables());
        print("flip-flops", outcome.made().flipFlops(), outcome.said().flipFlops());
        print("multipliers", outcome.made().multipliers(), outcome.said().multipliers());
        if (outcome.memoryBits() > 0) {
            out().printf("%d bits of memory besides%n", outcome.memoryBits());
        }
        if (!outcome.withRegisters()) {
            out().println("made of its HDL alone, without registers and the end of the bus");
        }
        out().flush();
        return 0;
    }

    private void print(String what, long made, long said) {
        out().printf("%-14s %d made, %d in the definition%n", what, made, said);
    }

    private static BadInput toolsAreMissing() {
        return new BadInput(
                "verilator, g++, bubblewrap and prlimit are needed, and a system that lets them"
                        + " make namespaces");
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
                                new OwnBlock(block.type(), block.definition(), hardware, drivers)));
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
