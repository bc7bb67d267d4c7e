package polymetron.outside;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import polymetron.output.hardware.DecodeProof;

/** Asks z3, through yosys, whether what a proof states is wrong anywhere. */
public final class Solver {
    private Solver() {}

    /** {@code unsat} when it holds; else {@code sat} and an address. */
    public static String answer(DecodeProof proof, Path folder) throws IOException {
        Tool.write(folder, "proof.v", proof.statement().bytes());
        Tool.run(folder, "yosys", "-q", "-p", proof.script());
        Path problem = folder.resolve("proof.smt2");
        Files.writeString(problem, Files.readString(problem) + DecodeProof.QUESTION);
        return Tool.tryRun(folder, "z3", "proof.smt2").output();
    }
}
