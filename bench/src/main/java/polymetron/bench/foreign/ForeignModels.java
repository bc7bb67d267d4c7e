package polymetron.bench.foreign;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import polymetron.bench.block.BlockModel;
import polymetron.bench.machine.OwnModels;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.library.Vlnv;
import polymetron.output.hardware.BlockHarness;

/**
 * Models of blocks that people have written, out of their HDL. They need Verilator, a C++ compiler, bubblewrap and prlimit, those
 * in VHDL also GHDL; without them, and for blocks that cannot be stepped alone, the description of the registers is what runs.
 */
public final class ForeignModels implements OwnModels {
    private final Optional<Sandbox> sandbox;
    private final VerilatedBuild build;
    private final Optional<CompilerCheck> compilers;
    private final Optional<SynthesisedSize> sizes;
    private final Optional<BlockTests> tests;

    /** Whether there is what makes Verilog of VHDL. */
    private final boolean canConvert = Files.isExecutable(Path.of("/usr/bin/ghdl"));

    /**
     * @param kept folder for what was built
     */
    public ForeignModels(Path kept) {
        boolean hasTools =
                Files.isExecutable(Path.of("/usr/bin/verilator"))
                        && Files.isExecutable(Path.of("/usr/bin/g++"));
        this.sandbox = hasTools ? Sandbox.find() : Optional.empty();
        this.build = sandbox.map(each -> new VerilatedBuild(each, kept)).orElse(null);
        this.sizes =
                (Files.isExecutable(Path.of("/usr/bin/yosys"))
                                ? Sandbox.find()
                                : Optional.<Sandbox>empty())
                        .map(each -> new SynthesisedSize(each, kept, canConvert));
        this.tests =
                sandbox.map(
                        each ->
                                new BlockTests(
                                        each, kept, Files.isExecutable(Path.of("/usr/bin/yosys"))));
        this.compilers = sandbox.map(each -> new CompilerCheck(each, kept, canConvert));
    }

    /** What looks at blocks with the compilers; empty where they or the sandbox are not there. */
    public Optional<CompilerCheck> compilers() {
        return compilers;
    }

    /** What measures blocks by synthesis; empty where yosys or the sandbox is not there. */
    public Optional<SynthesisedSize> sizes() {
        return sizes;
    }

    /** What runs the tests of blocks; empty where Verilator or the sandbox is not there. */
    public Optional<BlockTests> tests() {
        return tests;
    }

    /** Whether Verilog can be run here. */
    public boolean isPossible() {
        return sandbox.isPresent();
    }

    @Override
    public Optional<BlockModel> of(
            ElaboratedPlatform platform, ElaboratedBlock block, SizedInterface form) {
        if (sandbox.isEmpty() || block.type().identity().vendor().equals(Vlnv.OURS)) {
            return Optional.empty();
        }
        return BlockHarness.of(platform, block, form)
                .filter(harness -> harness.entities().isEmpty() || canConvert)
                .map(
                        harness -> {
                            StepperProcess process =
                                    new StepperProcess(
                                            sandbox.get(),
                                            build.folder(block.name(), harness),
                                            block.name(),
                                            harness.outputs().size());
                            return harness.streams().isEmpty()
                                    ? new VerilatedModel(block.name(), process, harness)
                                    : new VerilatedStreams(block.name(), process, harness);
                        });
    }
}
