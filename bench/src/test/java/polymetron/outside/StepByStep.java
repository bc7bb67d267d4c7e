package polymetron.outside;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import polymetron.bench.hart.Hart;
import polymetron.bench.machine.Machine;

/**
 * What a processor does in simulation beside what the hart of the bench does: each instruction, trap and interrupt, what it
 * writes to a register, and the cycle in which it is done.
 */
public final class StepByStep {
    private static final String FILE = "sim/steps.txt";

    /** Verilog that writes down that something outside has moved, which the bench is not told here: the end of it. */
    public static final String MOVED = "$fdisplay(steps, \"moved\");";

    private StepByStep() {}

    /** Writes down what the processor does, for a test bench. */
    public static void watch(Path folder, String processor) throws IOException {
        Path bench = folder.resolve("sim/testbench.v");
        String text = Files.readString(bench);
        int end = text.lastIndexOf("endmodule");
        String monitor =
                """
                integer steps;
                initial steps = $fopen("steps.txt", "w");
                always @(posedge board.CPU.clk) if (board.CPU.behaviour.trace_valid === 1'b1)
                    $fdisplay(steps, "%h %b %h %0d %h %0d", board.CPU.behaviour.trace_pc, board.CPU.behaviour.trace_trap, board.CPU.behaviour.trace_cause,
                        board.CPU.behaviour.trace_register, board.CPU.behaviour.trace_value, board.CPU.behaviour.trace_cycle);
                """
                        .replace("CPU", processor);
        Files.writeString(bench, text.substring(0, end) + monitor + text.substring(end));
    }

    /**
     * What differs first; empty when nothing does.
     *
     * @param slack cycles that the two may be apart
     */
    public static String difference(Path folder, Machine machine, int slack) throws IOException {
        List<String> lines = Files.readAllLines(folder.resolve(FILE));
        Hart hart = machine.hart();
        for (int at = 0; at < lines.size() - 1; at++) {
            if (lines.get(at).equals("moved")) {
                break;
            }
            String[] words = lines.get(at).split(" ");
            int pc = Integer.parseUnsignedInt(words[0], 16);
            boolean traps = words[1].equals("1");
            int register = Integer.parseInt(words[3]);
            long traps0 = hart.csrs().traps();
            int before = hart.pc();
            boolean waited = hart.isWaiting();
            do {
                machine.step();
            } while (waited && hart.isWaiting());
            boolean trapped = hart.csrs().traps() != traps0;
            long apart = machine.cycles() - 1 - Long.parseLong(words[5]);
            String wrong = null;
            if (before != pc) {
                wrong = "pc %08x".formatted(before);
            } else if (trapped != traps
                    || traps && hart.csrs().lastCause() != Integer.parseUnsignedInt(words[2], 16)) {
                wrong = trapped ? "traps %x".formatted(hart.csrs().lastCause()) : "goes on";
            } else if (Math.abs(apart) > slack) {
                wrong = "cycle %d".formatted(machine.cycles() - 1);
            } else if (register != 0
                    && slack == 0
                    // A register that was never written has no value yet, and can be saved and
                    // loaded.
                    && !words[4].contains("x")
                    && hart.register(register) != Integer.parseUnsignedInt(words[4], 16)) {
                wrong = "x%d is %08x".formatted(register, hart.register(register));
            }
            if (wrong != null) {
                return "step %d of %d: %s; on the bench %s; before: %s"
                        .formatted(
                                at,
                                lines.size(),
                                lines.get(at),
                                wrong,
                                lines.subList(Math.max(0, at - 6), at));
            }
        }
        return "";
    }
}
