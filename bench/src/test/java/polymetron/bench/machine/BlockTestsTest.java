package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.bench.foreign.BlockTests;
import polymetron.bench.foreign.SharedModels;
import polymetron.ownblock.BlockFromHdl;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.ownblock.OwnBlockExamples;
import polymetron.ownblock.TestSkeleton;

/** Tests of blocks of one's own are run, and it is seen how much they notice. */
final class BlockTestsTest {
    private static final String THOROUGH = "step_coder_test.sv";

    private BlockTests tests;

    @BeforeEach
    void find() {
        assumeThat(SharedModels.get().tests()).isPresent();
        tests = SharedModels.get().tests().orElseThrow();
    }

    private static String text(String file) throws IOException {
        try (var in = BlockTestsTest.class.getResourceAsStream("/foreign/" + file)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** The coder with one test. */
    private static OwnBlock coder(String test) throws IOException {
        TreeMap<String, String> files = new TreeMap<>();
        files.put("step_coder.v", text("step_coder.v"));
        files.put(THOROUGH, test);
        BlockFromHdl found = BlockFromHdl.of(files, null, "bellworks");
        assertThat(found.problems()).isEmpty();
        assertThat(found.module()).isEqualTo("step_coder");
        assertThat(found.block().tests()).containsOnlyKeys(THOROUGH);
        assertThat(found.block().hardware()).doesNotContainKey(THOROUGH);
        assertThat(OwnBlockChecks.of(found.block(), Shipped.LIBRARY)).isEmpty();
        return found.block();
    }

    private BlockTests.Outcome of(OwnBlock block) throws InterruptedException {
        return tests.of(block, Shipped.LIBRARY.hardware());
    }

    @Test
    void aThoroughTestNoticesNearlyAll() throws IOException, InterruptedException {
        BlockTests.Outcome outcome = of(coder(text(THOROUGH)));
        assertThat(outcome.notPlanted()).isEmpty();
        assertThat(outcome.tests()).allMatch(BlockTests.Ran::passes);
        assertThat(outcome.tried()).isGreaterThan(30);
        assertThat(outcome.noticed() + outcome.harmless() + outcome.unnoticed().size())
                .isEqualTo(outcome.tried());
        assertThat((double) outcome.noticed())
                .isGreaterThan(0.9 * (outcome.tried() - outcome.harmless()));
        assertThat(of(coder(text(THOROUGH)))).isEqualTo(outcome);
    }

    @Test
    void oneThatLooksAtLittleNoticesLittle() throws IOException, InterruptedException {
        BlockTests.Outcome outcome =
                of(
                        coder(
                                text(THOROUGH)
                                        .replace(
                                                "data !== given - previous",
                                                "data[0] !== (given[0] ^ previous[0])")));
        assertThat(outcome.tests()).allMatch(BlockTests.Ran::passes);
        assertThat(outcome.noticed()).isPositive();
        assertThat(outcome.unnoticed())
                .hasSizeGreaterThan(outcome.tried() / 2)
                .allMatch(each -> each.at().matches("step_coder\\.v:\\d+"));
    }

    @Test
    void theTestToBeginWithPassesAndLooksAtNothing() throws InterruptedException {
        OwnBlock chime = OwnBlockDocument.read("chime", OwnBlockExamples.chime());
        TreeMap<String, String> begun = new TreeMap<>();
        begun.put(TestSkeleton.fileName(chime.type()), TestSkeleton.of(chime));
        OwnBlock block =
                new OwnBlock(
                        chime.type(), chime.definition(), chime.hardware(), chime.drivers(), begun);
        assertThat(OwnBlockChecks.of(block, Shipped.LIBRARY)).isEmpty();
        assertThat(OwnBlockDocument.read("chime", OwnBlockDocument.write(block)).tests())
                .isEqualTo(begun);
        BlockTests.Outcome outcome = of(block);
        assertThat(outcome.tests()).allMatch(BlockTests.Ran::passes);
        // Its module has nothing but outputs at rest.
        assertThat(outcome.notPlanted()).contains("nothing in module bellworks_chime");
    }

    /** Parameters, modules within modules, and ports that the definition has and the module has not. */
    @Test
    void theTestToBeginWithReachesAllOfABlock() throws InterruptedException {
        OwnBlock counter =
                OwnBlockDocument.read(
                        "press-counter",
                        new String(
                                Shipped.file("demo/blocks/press-counter.json"),
                                StandardCharsets.UTF_8));
        TreeMap<String, String> begun = new TreeMap<>();
        begun.put("counter_test.v", TestSkeleton.of(counter));
        BlockTests.Outcome outcome =
                of(
                        new OwnBlock(
                                counter.type(),
                                counter.definition(),
                                counter.hardware(),
                                counter.drivers(),
                                begun));
        assertThat(outcome.tests()).allMatch(BlockTests.Ran::passes);
        assertThat(outcome.notPlanted()).isEmpty();
        assertThat(outcome.noticed()).isZero();
        assertThat(outcome.unnoticed()).anyMatch(each -> each.at().startsWith("press_counter.v:"));
    }

    /** A module can leave out what it does not need. */
    @Test
    void theTestToBeginWithNeedsNoClock() throws InterruptedException {
        TreeMap<String, String> files = new TreeMap<>();
        files.put("m.v", "module m (input clk, input a, output b); assign b = !a; endmodule\n");
        OwnBlock made = BlockFromHdl.of(files, null, "bellworks").block();
        TreeMap<String, String> hardware = new TreeMap<>();
        hardware.put(
                "m_fitted.v", "module m_fitted (input a, output b); assign b = !a; endmodule\n");
        OwnBlock block = new OwnBlock(made.type(), made.definition(), hardware, made.drivers());
        TreeMap<String, String> begun = new TreeMap<>();
        begun.put("m_test.v", TestSkeleton.of(block));
        assertThat(
                        of(new OwnBlock(
                                        made.type(),
                                        made.definition(),
                                        hardware,
                                        made.drivers(),
                                        begun))
                                .tests())
                .singleElement()
                .matches(BlockTests.Ran::passes);
    }

    @Test
    void oneThatFailsSaysWhere() throws IOException, InterruptedException {
        BlockTests.Outcome outcome =
                of(coder(text(THOROUGH).replace("given - previous", "given + previous")));
        assertThat(outcome.tests())
                .singleElement()
                .satisfies(
                        each -> {
                            assertThat(each.passes()).isFalse();
                            assertThat(each.said()).contains(THOROUGH, " instead of ");
                        });
        assertThat(outcome.notPlanted()).contains("pass first");
    }

    @Test
    void oneThatNeverEndsIsEnded() throws IOException, InterruptedException {
        BlockTests.Outcome outcome = of(coder(text(THOROUGH).replace("$finish", "words <= 5")));
        assertThat(outcome.tests())
                .singleElement()
                .matches(each -> !each.passes() && each.said().contains("does not end"));
    }

    @Test
    void whatCannotBeTriedIsSaid() throws IOException, InterruptedException {
        String test = text(THOROUGH);
        OwnBlock other = coder(test.replace("step_coder coder", "step_coder #(.WIDTH(64)) coder"));
        assertThat(of(other).notPlanted()).contains("WIDTH is 64", "defaults");
        OwnBlock broken = coder(test.replace("words = 0", "words = nothing"));
        assertThatThrownBy(() -> of(broken))
                .isInstanceOf(BenchException.class)
                .hasMessageContaining(THOROUGH)
                .hasMessageContaining("nothing");
        OwnBlock block = coder(test);
        TreeMap<String, String> commands = new TreeMap<>(block.tests());
        commands.put(THOROUGH, test.replace("$finish", "$system(\"true\")"));
        assertThat(
                        OwnBlockChecks.of(
                                new OwnBlock(
                                        block.type(),
                                        block.definition(),
                                        block.hardware(),
                                        block.drivers(),
                                        commands),
                                Shipped.LIBRARY))
                .anyMatch(
                        each -> each.at().startsWith(THOROUGH) && each.what().contains("$system"));
    }
}
