package polymetron.cli;

import picocli.CommandLine.Command;
import polymetron.bench.foreign.SynthesisedSize;
import polymetron.library.Library;
import polymetron.ownblock.OwnBlock;

/** How large a block is. */
@Command(
        name = "size",
        description =
                "Prints what synthesis makes of a block type with the defaults of its parameters,"
                        + " beside what its definition says.",
        mixinStandardHelpOptions = true)
final class MeasureBlockCommand extends BlockTrialCommand {
    @Override
    int trial(OwnBlock block, Library library) throws InterruptedException {
        SynthesisedSize sizes =
                RunCommand.models()
                        .sizes()
                        .orElseThrow(
                                () -> new BadInput("yosys, bubblewrap and prlimit are needed"));
        SynthesisedSize.Outcome outcome = sizes.of(block, library);
        print("lookup tables", outcome.made().lookupTables(), outcome.said().lookupTables());
        print("flip-flops", outcome.made().flipFlops(), outcome.said().flipFlops());
        print("multipliers", outcome.made().multipliers(), outcome.said().multipliers());
        if (outcome.memoryBits() > 0) {
            out().printf("%d bits of memory besides%n", outcome.memoryBits());
        }
        if (!outcome.withRegisters()) {
            out().println("made of its HDL alone, without registers and the end of the bus");
        }
        return 0;
    }

    private void print(String what, long made, long said) {
        out().printf("%-14s %d made, %d in the definition%n", what, made, said);
    }
}
