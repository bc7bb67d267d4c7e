package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.output.handoff.RenamedLibrary;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;

/** The bench goes by what blocks are and by published register layouts, and not by the names that a definition gives. */
final class RenamedLibraryRunsTest {
    @Test
    void theDemoSaysTheSameWithOtherNamesInTheLibrary() {
        RenamedLibrary renamed = new RenamedLibrary();
        String before = said(Shipped.elaborate(Shipped.demo()));
        String after =
                said(new Elaborator(renamed.library()).elaborate(renamed.platform(Shipped.demo())));
        assertThat(before).contains("Ridge Station", "> ");
        assertThat(RenamedLibrary.withOldNames(after))
                .isEqualTo(RenamedLibrary.withOldNames(before));
    }

    private static String said(ElaboratedPlatform platform) {
        Machine machine = new Machine(platform);
        machine.load(ProgramImage.of(platform, ElfReader.read(Shipped.demoProgram()), (byte) 0));
        machine.run(machine.clockHz() / 2);
        return new String(machine.console().orElseThrow().takeSent(), StandardCharsets.US_ASCII);
    }
}
