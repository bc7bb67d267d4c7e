package polymetron.cli;

import picocli.CommandLine.Command;
import polymetron.bench.foreign.BlockTests;
import polymetron.library.Library;
import polymetron.ownblock.OwnBlock;

/** Tests that come with a block. */
@Command(
        name = "test",
        description =
                "Runs the tests of a block type in Verilator, then plants faults into its HDL, and"
                        + " prints which of them no test notices. Ends with 1 where a test fails.",
        mixinStandardHelpOptions = true)
final class TestBlockCommand extends BlockTrialCommand {
    @Override
    int trial(OwnBlock block, Library library) throws InterruptedException {
        if (block.tests().isEmpty()) {
            throw new BadInput("the block has no tests; put a file into \"tests\"");
        }
        BlockTests.Outcome outcome =
                RunCommand.models()
                        .tests()
                        .orElseThrow(BlockTrialCommand::toolsAreMissing)
                        .of(block, library.hardware());
        for (BlockTests.Ran each : outcome.tests()) {
            out().printf("%s %s%n", each.name(), each.passes() ? "passes" : "fails");
            each.said().lines().forEach(line -> out().println("  " + line));
        }
        if (outcome.notPlanted().isEmpty()) {
            out().printf(
                            "%d of %d planted faults noticed, %d more make no difference%n",
                            outcome.noticed(),
                            outcome.tried() - outcome.harmless(),
                            outcome.harmless());
            outcome.unnoticed()
                    .forEach(each -> out().println("  " + each.at() + ": " + each.what()));
        } else {
            out().println("no faults planted: " + outcome.notPlanted());
        }
        return outcome.tests().stream().allMatch(BlockTests.Ran::passes) ? 0 : 1;
    }
}
