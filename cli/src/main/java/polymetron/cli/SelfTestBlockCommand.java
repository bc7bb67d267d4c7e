package polymetron.cli;

import picocli.CommandLine.Command;
import polymetron.bench.foreign.ForeignModels;
import polymetron.bench.foreign.RegisterSelfTest;
import polymetron.library.Library;
import polymetron.ownblock.OwnBlock;

/** Whether a block's registers do what they are described to do. */
@Command(
        name = "self-test",
        description =
                "Tries the registers of a block type in its HDL, and prints what they do in"
                        + " another way than they are described.",
        mixinStandardHelpOptions = true)
final class SelfTestBlockCommand extends BlockTrialCommand {
    @Override
    int trial(OwnBlock block, Library library) {
        ForeignModels models = RunCommand.models();
        if (!models.isPossible()) {
            throw toolsAreMissing();
        }
        RegisterSelfTest.Outcome outcome = new RegisterSelfTest(models).of(block, library);
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
        return outcome.different().isEmpty() ? 0 : CommandLineApplication.FINDINGS;
    }
}
