package polymetron.server.interrupt;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Who interrupts whom.
 *
 * @param ports ports with inputs, controllers first
 * @param sources every source, by block
 */
public record InterruptsView(
        long revision, List<InterruptPortView> ports, List<SourceView> sources) {

    /**
     * @param numbered whether it is a controller with numbered sources
     * @param inputs inputs to show: those in use and some free ones
     * @param hidden further inputs, all free
     * @param unused inputs that nothing drives
     */
    public record InterruptPortView(
            String block,
            String name,
            String title,
            String line,
            boolean numbered,
            List<InputView> inputs,
            int hidden,
            int unused) {}

    /**
     * @param input number in the document, which is what software uses at a controller
     * @param hardware hardware input, from 0
     * @param software what software reads
     * @param priority address of the priority register; missing when there is none
     * @param contexts registers of each context; none where the controller is no PLIC
     * @param shared whether several sources drive it
     */
    public record InputView(
            int input,
            int hardware,
            int software,
            boolean exists,
            boolean shared,
            @Nullable String priority,
            List<ContextView> contexts,
            int enableBit) {}

    /**
     * Registers of a PLIC for one hart.
     *
     * @param to hart or controller that its line goes to
     * @param enable address of the word with the source's enable bit
     * @param threshold address of the threshold
     */
    public record ContextView(int context, String to, String enable, String threshold) {}

    /**
     * @param trigger {@code high}, {@code low} or {@code edge}
     * @param sinkBlock where it goes; missing when it is open
     * @param wanted priority that software is to give it; missing for its own choice
     * @param path to the hart, through controllers
     */
    public record SourceView(
            String block,
            String name,
            String line,
            String trigger,
            @Nullable String sinkBlock,
            @Nullable String sink,
            @Nullable Integer input,
            @Nullable Integer wanted,
            String path,
            String crossing) {}
}
