package polymetron.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.hardware.DecodeProof;
import polymetron.output.hardware.Hardware;
import polymetron.output.hardware.NotBuilt;

/** Proves with yosys and z3 that the address decode of the hardware is that of the platform. */
@Command(
        name = "prove",
        description = "Proves that the address decode of the hardware is what Addresses shows.",
        mixinStandardHelpOptions = true)
final class ProveCommand implements Callable<Integer> {
    @Spec private CommandSpec spec;

    @Mixin private OwnBlocks blocks;

    @Parameters(paramLabel = "PLATFORM.json", description = "the platform document")
    private Path file;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        PrintWriter err = spec.commandLine().getErr();
        ElaboratedPlatform platform = Inputs.platform(file, blocks);
        if (CheckCommand.refuses(platform, err)) {
            return CommandLineApplication.FINDINGS;
        }
        Hardware hardware = Hardware.of(platform);
        for (NotBuilt each : hardware.notBuilt()) {
            err.printf("no hardware: %s: %s%n", each.subject(), each.why());
        }
        if (!hardware.notBuilt().isEmpty()) {
            return CommandLineApplication.FINDINGS;
        }
        boolean isProved = true;
        for (DecodeProof proof : DecodeProof.of(platform, hardware)) {
            Path folder = Files.createTempDirectory("polymetron-proof");
            try {
                String answer = solve(proof, hardware, folder);
                boolean holds = answer.startsWith("unsat");
                isProved &= holds;
                out.printf(
                        "%s: %s%n",
                        proof.bus(), holds ? "proved" : "wrong, for example:\n" + answer);
            } finally {
                remove(folder);
            }
        }
        out.flush();
        return isProved ? 0 : CommandLineApplication.FINDINGS;
    }

    private static String solve(DecodeProof proof, Hardware hardware, Path folder)
            throws IOException, InterruptedException {
        for (var each : hardware.files()) {
            if (proof.decodes().contains(each.path())) {
                Inputs.write(folder, each.path(), each.bytes());
            }
        }
        Inputs.write(folder, proof.statement().path(), proof.statement().bytes());
        run(folder, "yosys", "-q", "-p", proof.script());
        Path problem = folder.resolve("proof.smt2");
        Files.writeString(
                problem, Files.readString(problem, StandardCharsets.UTF_8) + DecodeProof.QUESTION);
        return run(folder, "z3", "proof.smt2");
    }

    private static String run(Path folder, String... command)
            throws IOException, InterruptedException {
        Process process;
        try {
            process =
                    new ProcessBuilder(List.of(command))
                            .directory(folder.toFile())
                            .redirectErrorStream(true)
                            .start();
        } catch (IOException missing) {
            throw new BadInput(
                    "%s cannot be run; yosys and z3 are needed for proofs".formatted(command[0]));
        }
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        process.waitFor();
        return said;
    }

    private static void remove(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(each);
            }
        }
    }
}
