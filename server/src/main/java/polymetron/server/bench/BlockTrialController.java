package polymetron.server.bench;

import jakarta.annotation.Nullable;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.bench.foreign.BlockTests;
import polymetron.bench.foreign.CompilerCheck;
import polymetron.bench.foreign.RegisterSelfTest;
import polymetron.bench.foreign.SynthesisedSize;
import polymetron.bench.machine.BenchException;
import polymetron.edit.RejectedEdit;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.server.store.Libraries;

/** What compilers say of a block that is being written, and what its HDL does, before it is kept. */
@RestController
final class BlockTrialController {
    private static final String NO_HDL = "There is no HDL yet.";
    private static final String NO_TESTS = "The block has no tests yet; add one to its files.";
    private static final String NO_TOOLS =
            "Verilator, a C++ compiler or the sandbox is missing on this machine.";

    private static final String NO_SYNTHESIS = "yosys or the sandbox is missing on this machine.";

    private final BenchModels models;
    private final Libraries libraries;
    private final CancellableWork work;

    BlockTrialController(BenchModels models, Libraries libraries, CancellableWork work) {
        this.models = models;
        this.work = work;
        this.libraries = libraries;
    }

    /**
     * @param missing why nothing was run; missing where it was
     * @param tools compilers that were run
     * @param sets sets of parameters that were tried: the defaults, and everything as low and as high as it can be
     */
    record CompiledView(
            @Nullable String missing,
            List<String> tools,
            int sets,
            List<CompilerCheck.Said> said) {}

    /**
     * Compiles the block.
     *
     * @param number what it can be cancelled by ({@link WorkController}); missing for what cannot
     */
    @PostMapping(
            value = "/api/library/blocks/compile",
            consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    CompiledView compile(
            @RequestBody byte[] document,
            @RequestParam(name = "work", required = false) @Nullable UUID number) {
        OwnBlock block = checked(document);
        if (block.hardware().isEmpty()) {
            return nothing(NO_HDL);
        }
        CompilerCheck check = models.models().compilers().orElse(null);
        if (check == null) {
            return nothing(NO_TOOLS);
        }
        CompilerCheck.Outcome outcome =
                work.run(number, () -> check.of(block, libraries.current().hardware()));
        return new CompiledView(null, outcome.tools(), outcome.sets(), outcome.said());
    }

    /**
     * @param missing why nothing was run; missing where it was
     * @param words registers of 32 bits that were tried, and parts of wider ones
     * @param accesses reads and writes that were done
     * @param different what the HDL does in another way than the registers say
     * @param left fields that are not compared, since the block itself gives or changes them
     */
    record SelfTestView(
            @Nullable String missing,
            int words,
            int accesses,
            List<RegisterSelfTest.Different> different,
            List<String> left) {}

    /** Tries the registers in the HDL. */
    @PostMapping(
            value = "/api/library/blocks/self-test",
            consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    SelfTestView selfTest(
            @RequestBody byte[] document,
            @RequestParam(name = "work", required = false) @Nullable UUID number) {
        OwnBlock block = checked(document);
        String missing =
                block.hardware().isEmpty()
                        ? NO_HDL
                        : models.models().isPossible() ? null : NO_TOOLS;
        if (missing != null) {
            return new SelfTestView(missing, 0, 0, List.of(), List.of());
        }
        try {
            RegisterSelfTest.Outcome outcome =
                    work.run(
                            number,
                            () ->
                                    new RegisterSelfTest(models.models())
                                            .of(block, libraries.current()));
            return new SelfTestView(
                    null, outcome.words(), outcome.accesses(), outcome.different(), outcome.left());
        } catch (BenchException cannot) {
            return new SelfTestView(cannot.getMessage(), 0, 0, List.of(), List.of());
        }
    }

    /**
     * @param missing why nothing was run; missing where it was
     * @param made what synthesis makes of the block with the defaults of its parameters
     * @param said what its definition says, which fits count with
     * @param memoryBits bits of memories in it, which are counted by themselves
     * @param withRegisters whether its registers and the end of the bus are in it
     */
    record BlockSizeView(
            @Nullable String missing,
            SynthesisedSize.Size made,
            SynthesisedSize.Size said,
            long memoryBits,
            boolean withRegisters) {}

    /** Measures the block by synthesis. */
    @PostMapping(
            value = "/api/library/blocks/size",
            consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    BlockSizeView size(
            @RequestBody byte[] document,
            @RequestParam(name = "work", required = false) @Nullable UUID number) {
        OwnBlock block = checked(document);
        SynthesisedSize sizes = models.models().sizes().orElse(null);
        if (block.hardware().isEmpty() || sizes == null) {
            return unmeasured(sizes == null ? NO_SYNTHESIS : NO_HDL);
        }
        try {
            SynthesisedSize.Outcome outcome =
                    work.run(number, () -> sizes.of(block, libraries.current()));
            return new BlockSizeView(
                    null,
                    outcome.made(),
                    outcome.said(),
                    outcome.memoryBits(),
                    outcome.withRegisters());
        } catch (BenchException cannot) {
            return unmeasured(cannot.getMessage());
        }
    }

    private static BlockSizeView unmeasured(String why) {
        SynthesisedSize.Size none = new SynthesisedSize.Size(0, 0, 0);
        return new BlockSizeView(why, none, none, 0, false);
    }

    /**
     * @param missing why no test was run; missing where they were
     * @param tests how each went
     * @param tried faults that were planted
     * @param noticed those with which a test failed
     * @param harmless those that are proved to make no difference
     * @param unnoticed the others
     * @param notPlanted why no faults were planted; empty where they were
     */
    record BlockTestsView(
            @Nullable String missing,
            List<BlockTests.Ran> tests,
            int tried,
            int noticed,
            int harmless,
            List<BlockTests.Unnoticed> unnoticed,
            String notPlanted) {}

    /** Runs the tests of the block, and plants faults that they have to notice. */
    @PostMapping(
            value = "/api/library/blocks/test",
            consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    BlockTestsView test(
            @RequestBody byte[] document,
            @RequestParam(name = "work", required = false) @Nullable UUID number) {
        OwnBlock block = checked(document);
        BlockTests tests = models.models().tests().orElse(null);
        if (block.hardware().isEmpty() || block.tests().isEmpty() || tests == null) {
            return untested(
                    tests == null ? NO_TOOLS : block.hardware().isEmpty() ? NO_HDL : NO_TESTS);
        }
        try {
            BlockTests.Outcome outcome =
                    work.run(number, () -> tests.of(block, libraries.current().hardware()));
            return new BlockTestsView(
                    null,
                    outcome.tests(),
                    outcome.tried(),
                    outcome.noticed(),
                    outcome.harmless(),
                    outcome.unnoticed(),
                    outcome.notPlanted());
        } catch (BenchException cannot) {
            return untested(cannot.getMessage());
        }
    }

    private static BlockTestsView untested(String why) {
        return new BlockTestsView(why, List.of(), 0, 0, 0, List.of(), "");
    }

    /** A block whose description has nothing wrong. */
    private OwnBlock checked(byte[] document) {
        OwnBlock block =
                OwnBlockDocument.read("block", new String(document, StandardCharsets.UTF_8));
        if (!OwnBlockChecks.of(block, libraries.current()).isEmpty()) {
            throw new RejectedEdit("", "what is found wrong with the block comes first");
        }
        return block;
    }

    private static CompiledView nothing(String why) {
        return new CompiledView(why, List.of(), 0, List.of());
    }
}
