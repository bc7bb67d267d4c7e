package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.SizedStream;
import polymetron.library.ClockInput;
import polymetron.library.ResetInput;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/**
 * The clocks of a block that stands alone. It is stepped in that of its streams, or of its registers where it has none: the first of
 * the list; the others go on beside it as their frequencies say.
 *
 * @param accesses which of them the registers are in
 */
public record HarnessClocks(
        List<Clock> all, int accesses, List<ClockInput> inputs, List<ResetInput> resets) {
    private static final int MOST = 4;
    private static final double HALF_SECOND = 5e14;

    /** What a block without clocks is stepped in. */
    private static final Clock NONE = new Clock("clk", 1);

    /**
     * @param name the block's input
     * @param half half of its period, in femtoseconds: off by less than a cycle in a day at 1 GHz
     */
    public record Clock(String name, long half) {}

    /** Whether a block can be stepped in one of its clocks: streams are all in one, and frequencies are known where there are several. */
    static boolean canBeStepped(ElaboratedPlatform platform, ElaboratedBlock block) {
        List<ClockInput> clocks = block.type().clocks();
        return clocks.size() <= 1
                || clocks.size() <= MOST
                        && block.shape().streams().stream()
                                        .map(each -> clock(block, each))
                                        .distinct()
                                        .count()
                                <= 1
                        && clocks.stream()
                                .allMatch(each -> platform.frequencyHz(block, each.name()) > 0);
    }

    private static String clock(ElaboratedBlock block, SizedStream stream) {
        return known(block, stream.type().clock());
    }

    private static String known(ElaboratedBlock block, String clock) {
        return clock == null ? block.type().clocks().getFirst().name() : clock;
    }

    /**
     * @param form the target behind which the registers are; null without
     */
    static HarnessClocks of(
            ElaboratedPlatform platform, ElaboratedBlock block, SizedInterface form) {
        List<ClockInput> inputs = block.type().clocks();
        if (inputs.isEmpty()) {
            return new HarnessClocks(List.of(NONE), 0, inputs, block.type().resets());
        }
        String ofAccesses = known(block, form == null ? null : form.type().clock());
        String stepped =
                block.shape().streams().stream()
                        .map(each -> clock(block, each))
                        .findFirst()
                        .orElse(ofAccesses);
        List<Clock> all = new ArrayList<>();
        all.add(new Clock(stepped, half(platform, block, stepped)));
        inputs.stream()
                .map(ClockInput::name)
                .filter(name -> !name.equals(stepped))
                .forEach(name -> all.add(new Clock(name, half(platform, block, name))));
        List<String> names = all.stream().map(Clock::name).toList();
        return new HarnessClocks(
                List.copyOf(all), names.indexOf(ofAccesses), inputs, block.type().resets());
    }

    private static long half(ElaboratedPlatform platform, ElaboratedBlock block, String clock) {
        long frequency = platform.frequencyHz(block, clock);
        return frequency == 0 ? 1 : Math.max(1, Math.round(HALF_SECOND / frequency));
    }

    /**
     * Whether an interface is in the clock in which the block is stepped.
     *
     * @param clock null for the block's first
     */
    boolean isStepped(String clock) {
        String its = clock == null && !inputs.isEmpty() ? inputs.getFirst().name() : clock;
        return its == null || its.equals(stepped().name());
    }

    public Clock stepped() {
        return all.getFirst();
    }

    Clock ofAccesses() {
        return all.get(accesses);
    }

    /** An input of the harness for each: {@code clk}, {@code clk1} and so on. */
    Map<String, Net> inputs(Module harness, String stem) {
        Map<String, Net> nets = new LinkedHashMap<>();
        for (int at = 0; at < all.size(); at++) {
            nets.put(all.get(at).name(), harness.input(at == 0 ? stem : stem + at, 1));
        }
        return nets;
    }

    /** The clock that a port of the block takes; null for another port. */
    String ofInput(String port) {
        return inputs.stream()
                .map(ClockInput::name)
                .filter(name -> BlockModule.port(name).equals(port))
                .findFirst()
                .orElse(null);
    }

    /** The clock of the reset that a port of the block takes; null for another port. */
    String ofReset(String port) {
        return resets.stream()
                .filter(each -> BlockModule.port(each.name()).equals(port))
                .map(each -> each.clock() == null ? stepped().name() : each.clock())
                .findFirst()
                .orElse(null);
    }
}
