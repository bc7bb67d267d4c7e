package polymetron.software;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.Pass;
import polymetron.library.Capability;

/**
 * A platform-level interrupt controller (RISC-V PLIC 1.0.0) and where its contexts lead.
 *
 * @param sources number of the last source
 * @param priorityBits bits of a priority
 */
public record InterruptController(
        ElaboratedBlock block,
        Capability.Controller role,
        int sources,
        int priorityBits,
        List<Context> contexts) {

    /**
     * What a context interrupts.
     *
     * @param hart null when it leads to no hart
     * @param onward link to an input of another controller, or to a hart by a line of its own; null for none
     */
    public record Context(Hart hart, InterruptLink onward) {}

    /** Every controller of a platform. */
    public static final Pass<List<InterruptController>> PASS =
            Pass.named(
                    "interrupt controllers",
                    InterruptController::find,
                    Harts.PASS,
                    Harts.CONNECTED);

    public static List<InterruptController> of(ElaboratedPlatform platform) {
        return platform.result(PASS);
    }

    private static List<InterruptController> find(ElaboratedPlatform platform) {
        List<InterruptController> found = new ArrayList<>();
        for (ElaboratedBlock block : platform.blocks()) {
            for (Capability.Controller role : block.type().provides(Capability.Controller.class)) {
                found.add(
                        new InterruptController(
                                block,
                                role,
                                Math.clamp(block.shape().number(role.sources(), 1), 1, 1023),
                                Math.clamp(block.shape().number(role.priorityBits(), 1), 1, 32),
                                contexts(platform, block, role)));
            }
        }
        return List.copyOf(found);
    }

    private static List<Context> contexts(
            ElaboratedPlatform platform, ElaboratedBlock block, Capability.Controller role) {
        List<Context> contexts = new ArrayList<>();
        if (role.contexts().isEmpty()) {
            Harts.of(platform).of(block).forEach(hart -> contexts.add(new Context(hart, null)));
        }
        for (String source : role.contexts()) {
            if (block.shape().interrupt(source).isEmpty()) {
                continue;
            }
            InterruptLink link = Harts.link(platform, block, source).orElse(null);
            Hart hart =
                    link == null
                            ? null
                            : Harts.of(platform).reachedBy(link, HartLine.EXTERNAL).orElse(null);
            contexts.add(new Context(hart, hart == null ? link : null));
        }
        return List.copyOf(contexts);
    }

    /** The controller that an interrupt sink belongs to. */
    public static Optional<InterruptController> withInputs(
            ElaboratedPlatform platform, ElaboratedBlock block, String sink) {
        return of(platform).stream()
                .filter(each -> each.block() == block && each.role().inputs().equals(sink))
                .findFirst();
    }

    public InterfaceRef registers() {
        return new InterfaceRef(block.name(), role.registers());
    }
}
