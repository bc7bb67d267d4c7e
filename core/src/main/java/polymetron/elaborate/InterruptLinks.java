package polymetron.elaborate;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import polymetron.platform.InterruptWire;

/** Every interrupt source, and where it is wired to. */
final class InterruptLinks {
    private final Map<String, ElaboratedBlock> blocks;
    private final Dangling dangling;

    private InterruptLinks(Map<String, ElaboratedBlock> blocks, Dangling dangling) {
        this.blocks = blocks;
        this.dangling = dangling;
    }

    static List<InterruptLink> of(Map<String, ElaboratedBlock> blocks, Dangling dangling) {
        return new InterruptLinks(blocks, dangling).interrupts();
    }

    private List<InterruptLink> interrupts() {
        List<InterruptLink> links = new ArrayList<>();
        for (ElaboratedBlock block : blocks.values()) {
            for (SizedInterrupt port : block.shape().interrupts()) {
                if (port.isSource()) {
                    links.add(link(block, port));
                }
            }
        }
        return List.copyOf(links);
    }

    private InterruptLink link(ElaboratedBlock block, SizedInterrupt source) {
        InterruptWire wire = block.block().interrupts().get(source.name());
        if (wire == null) {
            return new InterruptLink(block, source, null, null, null);
        }
        ElaboratedBlock sinkBlock = blocks.get(wire.block());
        SizedInterrupt sink =
                sinkBlock == null
                        ? null
                        : sinkBlock
                                .shape()
                                .interrupt(wire.sink())
                                .filter(port -> !port.isSource())
                                .orElse(null);
        if (sink == null) {
            dangling.missing(
                    block.name(),
                    DanglingReference.Sort.INTERRUPT,
                    source.name(),
                    "there is no interrupt input %s.%s".formatted(wire.block(), wire.sink()));
        }
        return new InterruptLink(block, source, wire, sinkBlock, sink);
    }
}
