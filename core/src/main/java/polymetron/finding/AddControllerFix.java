package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.interrupt.InterruptWays;
import polymetron.interrupt.Sinks;
import polymetron.library.BlockType;
import polymetron.library.Capability;
import polymetron.platform.Block;
import polymetron.platform.Names;
import polymetron.platform.Platform;
import polymetron.software.Harts;
import polymetron.wiring.WiringPlan;

/** The fix that adds an interrupt controller where no controller interrupts a processor yet. */
final class AddControllerFix {
    private AddControllerFix() {}

    static Optional<Fix> of(ElaboratedPlatform platform, InterruptLink link) {
        String line = link.source().type().line();
        boolean isNeeded =
                line.equals(InterruptWays.TO_CONTROLLER)
                        && !Harts.of(platform).all().isEmpty()
                        && new Sinks(platform).forLine(line).isEmpty();
        BlockType type =
                isNeeded
                        ? platform.library().types().stream()
                                .filter(
                                        each ->
                                                !each.provides(Capability.Controller.class)
                                                        .isEmpty())
                                .filter(each -> each.needs() == null)
                                .reduce((before, after) -> after)
                                .orElse(null)
                        : null;
        return type == null ? Optional.empty() : of(platform, link, type);
    }

    private static Optional<Fix> of(
            ElaboratedPlatform platform, InterruptLink link, BlockType type) {
        String name =
                Names.free(
                        type.defaultName(),
                        platform.platform().blocks().stream().map(block -> block.name()).toList());
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddBlock(name, type.identity(), null));
        Platform with = new Editor(platform.library()).apply(platform.platform(), edits.getFirst());
        WiringPlan.propose(with, platform.library(), WiringPlan.Decisions.NONE).proposals().stream()
                .filter(
                        line ->
                                line.key().contains(":" + name + ".")
                                        || line.key().endsWith(":" + link.ref()))
                .forEach(line -> edits.addAll(line.edits()));
        String label = "Add %s and connect %s to it".formatted(name, link.ref());
        return isWhole(platform, name, link, edits)
                ? Optional.of(new Fix(label, new Edit.Several(label, edits)))
                : Optional.empty();
    }

    /** Whether the plan ties everything of the new block; what it leaves open would be new trouble. */
    private static boolean isWhole(
            ElaboratedPlatform platform, String name, InterruptLink link, List<Edit> edits) {
        Platform after;
        try {
            after =
                    new Editor(platform.library())
                            .apply(platform.platform(), new Edit.Several(null, edits));
        } catch (RejectedEdit impossible) {
            return false;
        }
        Block block = after.block(name).orElseThrow();
        BlockType type = platform.library().type(block.type()).orElseThrow();
        boolean connects =
                after.block(link.block().name())
                        .map(Block::interrupts)
                        .filter(wires -> wires.containsKey(link.source().name()))
                        .isPresent();
        return connects
                && type.clocks().stream()
                        .allMatch(clock -> block.domains().containsKey(clock.name()))
                && type.resets().stream()
                        .allMatch(reset -> block.domains().containsKey(reset.name()))
                && type.busInterfaces().stream()
                        .allMatch(form -> block.attachments().containsKey(form.name()));
    }
}
