package polymetron.group;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.StreamLink;

/** External connections of the groups of a platform: the outward interfaces that each has when it is folded. */
public final class GroupEdges {
    private GroupEdges() {}

    /**
     * One thing that leads in or out.
     *
     * @param sort what it is: bus, stream, interrupt or board part
     * @param inside end inside the group
     * @param outside end outside, in words
     */
    public record Edge(String sort, InterfaceRef inside, String outside) {}

    /** The groups in the order of their names, each with the edges in the order of the document. */
    public static Map<String, List<Edge>> of(ElaboratedPlatform platform) {
        Map<String, List<Edge>> groups = new LinkedHashMap<>();
        platform.blocks().stream()
                .map(GroupEdges::groupOf)
                .filter(group -> group != null)
                .distinct()
                .sorted()
                .forEach(group -> groups.put(group, new ArrayList<>()));
        if (groups.isEmpty()) {
            return groups;
        }
        for (ElaboratedBlock block : platform.blocks()) {
            block.block()
                    .attachments()
                    .forEach(
                            (name, at) ->
                                    note(groups, block, name, "bus", "bus " + at.bus(), null));
        }
        for (StreamLink link : platform.streams()) {
            if (link.sink() != null) {
                InterfaceRef to = link.sinkRef();
                note(
                        groups,
                        link.block(),
                        link.source().name(),
                        "stream",
                        "to " + to,
                        link.sinkBlock());
                note(
                        groups,
                        link.sinkBlock(),
                        link.sink().name(),
                        "stream",
                        "from " + link.ref(),
                        link.block());
            }
        }
        for (InterruptLink link : platform.interrupts()) {
            if (link.isConnected()) {
                String to = "to %s %s".formatted(link.wire().block(), link.wire().input());
                note(groups, link.block(), link.source().name(), "interrupt", to, link.sinkBlock());
            }
        }
        for (OutwardLink link : platform.outward()) {
            String part = link.part() == null ? "open or pins" : link.part().title();
            note(groups, link.block(), link.form().name(), "board part", part, null);
        }
        return groups;
    }

    private static String groupOf(ElaboratedBlock block) {
        return block.block().group();
    }

    private static void note(
            Map<String, List<Edge>> groups,
            ElaboratedBlock inside,
            String name,
            String sort,
            String outside,
            ElaboratedBlock other) {
        String group = groupOf(inside);
        if (group != null && (other == null || !group.equals(groupOf(other)))) {
            groups.get(group).add(new Edge(sort, new InterfaceRef(inside.name(), name), outside));
        }
    }
}
