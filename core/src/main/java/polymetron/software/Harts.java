package polymetron.software;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.Pass;
import polymetron.expression.Expression;
import polymetron.library.Capability;

/** The harts of a platform, in the order of the document. */
public record Harts(List<Hart> all) {
    public static final Pass<Harts> PASS = Pass.named("harts", Harts::find);

    /** The first connected link of each interrupt source. */
    static final Pass<Map<InterfaceRef, InterruptLink>> CONNECTED =
            Pass.named("connected interrupts", Harts::connected);

    private static final int MOST_OF_A_BLOCK = 64;

    public static Harts of(ElaboratedPlatform platform) {
        return platform.result(PASS);
    }

    private static Harts find(ElaboratedPlatform platform) {
        List<Hart> all = new ArrayList<>();
        for (ElaboratedBlock block : platform.blocks()) {
            for (Capability.Hart role : block.type().provides(Capability.Hart.class)) {
                long first = block.shape().number(role.id(), 0);
                long hertz = hertz(platform, block, role.hertz());
                for (int index = 0; index < count(block, role); index++) {
                    all.add(new Hart(block, role, index, first + index, hertz));
                }
            }
        }
        return new Harts(List.copyOf(all));
    }

    static int count(ElaboratedBlock block, Capability.Hart role) {
        return Math.clamp(block.shape().number(role.count(), 1), 1, MOST_OF_A_BLOCK);
    }

    /** A clock that a definition states, or that of the block's first clock input, in hertz. */
    static long hertz(ElaboratedPlatform platform, ElaboratedBlock block, Expression stated) {
        return stated == null ? platform.frequencyHz(block) : block.shape().number(stated, 0);
    }

    /** Whether a block has harts. */
    public static boolean isProcessor(ElaboratedBlock block) {
        return !block.type().provides(Capability.Hart.class).isEmpty();
    }

    public List<Hart> of(ElaboratedBlock block) {
        return all.stream().filter(hart -> hart.block() == block).toList();
    }

    /** The hart that a connected interrupt line leads to, when it is one of a line's own sort. */
    Optional<Hart> reachedBy(InterruptLink link, HartLine line) {
        return link.isConnected()
                ? at(link.sinkBlock(), link.sink().name(), line)
                : Optional.empty();
    }

    private Optional<Hart> at(ElaboratedBlock block, String sink, HartLine line) {
        return all.stream()
                .filter(hart -> hart.block() == block && sink.equals(line.sinkOf(hart.role())))
                .findFirst();
    }

    /** The sort of line that an interrupt sink of a processor is; empty for any other. */
    public static Optional<HartLine> lineOf(ElaboratedBlock block, String sink) {
        for (Capability.Hart role : block.type().provides(Capability.Hart.class)) {
            for (HartLine line : HartLine.values()) {
                if (sink.equals(line.sinkOf(role))) {
                    return Optional.of(line);
                }
            }
        }
        return Optional.empty();
    }

    /** The connected link of an interrupt source. */
    static Optional<InterruptLink> link(
            ElaboratedPlatform platform, ElaboratedBlock block, String source) {
        return Optional.ofNullable(
                platform.result(CONNECTED).get(new InterfaceRef(block.name(), source)));
    }

    private static Map<InterfaceRef, InterruptLink> connected(ElaboratedPlatform platform) {
        Map<InterfaceRef, InterruptLink> links = new HashMap<>();
        for (InterruptLink link : platform.interrupts()) {
            if (link.isConnected()) {
                links.putIfAbsent(link.ref(), link);
            }
        }
        return Map.copyOf(links);
    }
}
