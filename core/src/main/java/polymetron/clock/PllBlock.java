package polymetron.clock;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Capability;
import polymetron.library.ClockOutput;
import polymetron.library.Device;
import polymetron.quantity.Frequency;

/**
 * A block that is one of the device's PLLs, with what its parameters set.
 *
 * @param role the parameters that set it
 * @param inputHz frequency that goes in; 0 when it has no clock
 * @param dividers what each output divides by
 */
public record PllBlock(
        ElaboratedBlock block,
        Capability.Pll role,
        long inputHz,
        long divider,
        long multiplier,
        long steps,
        List<Long> dividers) {

    /** Empty for a block that is no PLL. */
    public static Optional<PllBlock> of(ElaboratedPlatform platform, ElaboratedBlock block) {
        for (Capability.Pll role : block.type().provides(Capability.Pll.class)) {
            int outputs = Math.min(block.shape().clockOutputs().size(), role.dividers().size());
            return Optional.of(
                    new PllBlock(
                            block,
                            role,
                            platform.frequencyHz(block),
                            block.shape().number(role.divide()),
                            block.shape().number(role.multiply()),
                            block.shape().number(role.steps()),
                            role.dividers().subList(0, outputs).stream()
                                    .map(block.shape()::number)
                                    .toList()));
        }
        return Optional.empty();
    }

    public double detectorHz() {
        return (double) inputHz / divider;
    }

    public double vcoHz() {
        return (double) inputHz * multiplier / (divider * steps);
    }

    public double outputHz(int output) {
        return vcoHz() / dividers.get(output);
    }

    /** What the device's PLLs do not allow of it, in words; empty when all is well or no clock goes in. */
    public List<String> violations(Device.Plls limits) {
        List<String> all = new ArrayList<>();
        if (inputHz == 0) {
            return all;
        }
        range(all, "the input", inputHz, limits.inputMinimumHz(), limits.inputMaximumHz());
        range(
                all,
                "the phase detector",
                detectorHz(),
                limits.detectorMinimumHz(),
                limits.detectorMaximumHz());
        range(all, "the oscillator inside", vcoHz(), limits.vcoMinimumHz(), limits.vcoMaximumHz());
        if (divider > limits.inputDividerMaximum()) {
            all.add("the input divider is at most %s".formatted(limits.inputDividerMaximum()));
        }
        if (limits.multiplierSteps() % steps != 0) {
            all.add(
                    limits.multiplierSteps() == 1
                            ? "the multiplier has to be whole"
                            : "the multiplier goes in steps of 1/%s"
                                    .formatted(limits.multiplierSteps()));
        }
        if (multiplier < limits.multiplierMinimum() * steps
                || multiplier > limits.multiplierMaximum() * steps) {
            all.add(
                    "the multiplier is between %s and %s"
                            .formatted(limits.multiplierMinimum(), limits.multiplierMaximum()));
        }
        if (dividers.size() > limits.outputs()) {
            all.add("a PLL has %s outputs".formatted(limits.outputs()));
        }
        if (dividers.stream().anyMatch(each -> each > limits.outputDividerMaximum())) {
            all.add("an output divides by at most %s".formatted(limits.outputDividerMaximum()));
        }
        return all;
    }

    private static void range(List<String> all, String what, double hertz, long low, long high) {
        if (hertz < low || hertz > high) {
            all.add(
                    "%s would run at %s; it allows %s to %s"
                            .formatted(
                                    what,
                                    Frequency.format(Math.round(hertz)),
                                    Frequency.format(low),
                                    Frequency.format(high)));
        }
    }

    /** The frequencies that its outputs have now, as wishes. */
    public List<PllWish> wishes() {
        List<PllWish> wishes = new ArrayList<>();
        List<ClockOutput> outputs = block.shape().clockOutputs();
        for (int at = 0; at < outputs.size(); at++) {
            long hertz = Math.clamp(Math.round(outputHz(at)), 1, PllWish.HIGHEST_HZ);
            wishes.add(new PllWish(outputs.get(at).name(), hertz, 0));
        }
        return wishes;
    }

    /** The edits that give a PLL block a setting, as far as the block has outputs for it. */
    public static List<Edit> edits(String block, Capability.Pll role, PllSetting setting) {
        int outputs = Math.min(setting.outputs().size(), role.dividers().size());
        List<Edit> edits = new ArrayList<>();
        edits.add(set(block, role.divide(), setting.divider()));
        edits.add(set(block, role.steps(), setting.steps()));
        edits.add(set(block, role.multiply(), setting.multiplier()));
        edits.add(set(block, role.outputs(), outputs));
        for (int at = 0; at < outputs; at++) {
            edits.add(set(block, role.dividers().get(at), setting.outputs().get(at).divider()));
        }
        return edits;
    }

    private static Edit set(String block, String parameter, long value) {
        return new Edit.SetParameter(block, parameter, Long.toString(value));
    }
}
