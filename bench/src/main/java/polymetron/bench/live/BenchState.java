package polymetron.bench.live;

import java.util.List;

/**
 * What can be seen of the bench at one moment.
 *
 * @param mode what it does
 * @param cycles clock cycles since reset
 * @param seconds the board's own time since reset
 * @param speed the board's time against ours while it runs: 1 is real time
 * @param pc address of the next instruction
 * @param harts each hart that runs a program, the first one first
 * @param waiting whether the processor waits for an interrupt
 * @param traps traps taken since reset
 * @param lastTrap the last one in words; null for none
 * @param stopped why it paused by itself; null when it did not
 * @param consoleTotal characters that the console has said
 * @param parts board parts in use whose lines are levels
 * @param notices what was noticed in memory, in words; null without a memory check
 * @param outside what is outside the board: voltages, signals, satellites
 */
public record BenchState(
        Mode mode,
        long cycles,
        double seconds,
        double speed,
        long pc,
        List<HartState> harts,
        boolean waiting,
        long traps,
        String lastTrap,
        String stopped,
        long consoleTotal,
        List<PartLevel> parts,
        List<String> notices,
        Outside outside) {

    /** What the bench does. */
    public enum Mode {
        RUNNING("running"),
        PAUSED("paused");

        private final String word;

        Mode(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    /**
     * Where a hart is.
     *
     * @param pc address of its next instruction
     * @param place the same in the words of the program: symbol and source line; null where they are not known
     * @param waiting whether it waits for an interrupt
     */
    public record HartState(String label, long pc, String place, boolean waiting) {}

    /**
     * Levels of a board part's lines, line 0 in bit 0.
     *
     * @param block block that is on the part
     * @param pulses for lines with pulses the part of the time for which each is high, from 0 to 1; empty for levels
     */
    public record PartLevel(
            String part, String block, int width, long levels, List<Double> pulses) {}
}
