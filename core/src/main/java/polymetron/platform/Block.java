package polymetron.platform;

import java.util.SortedMap;
import java.util.function.Consumer;
import polymetron.library.Vlnv;

/**
 * A block placed in a platform, with all that the user decided about it.
 *
 * @param group group that it belongs to, whose name its own begins with; null for none
 * @param parameters values other than the defaults, as written: expressions, or the texts of choices
 * @param domains clock domain of each clock and reset input
 * @param attachments bus of each bus interface
 * @param streams sink of each stream source
 * @param interrupts sink of each interrupt source
 * @param outward board part or pins of each outward interface
 */
public record Block(
        String name,
        Vlnv type,
        String group,
        SortedMap<String, String> parameters,
        SortedMap<String, String> domains,
        SortedMap<String, Attachment> attachments,
        SortedMap<String, StreamWire> streams,
        SortedMap<String, InterruptWire> interrupts,
        SortedMap<String, Outward> outward) {
    public Block {
        parameters = Maps.sorted(parameters);
        domains = Maps.sorted(domains);
        attachments = Maps.sorted(attachments);
        streams = Maps.sorted(streams);
        interrupts = Maps.sorted(interrupts);
        outward = Maps.sorted(outward);
    }

    /** A block about which nothing is decided yet. */
    public static Block of(String name, Vlnv type) {
        return new Block(name, type, null, null, null, null, null, null, null);
    }

    public Block withName(String newName) {
        return with(change -> change.name = newName);
    }

    public Block withType(Vlnv newType) {
        return with(change -> change.type = newType);
    }

    /** A null group takes the block out of its group. */
    public Block withGroup(String newGroup) {
        return with(change -> change.group = newGroup);
    }

    /** A null value goes back to the default. */
    public Block withParameter(String parameter, String value) {
        return with(change -> change.parameters = Maps.with(parameters, parameter, value));
    }

    /** A null domain disconnects the input. */
    public Block withDomain(String port, String domain) {
        return with(change -> change.domains = Maps.with(domains, port, domain));
    }

    /** A null attachment takes the interface off its bus. */
    public Block withAttachment(String busInterface, Attachment attachment) {
        return with(
                change -> change.attachments = Maps.with(attachments, busInterface, attachment));
    }

    /** A null wire disconnects the source. */
    public Block withStream(String source, StreamWire wire) {
        return with(change -> change.streams = Maps.with(streams, source, wire));
    }

    /** A null wire disconnects the source. */
    public Block withInterrupt(String source, InterruptWire wire) {
        return with(change -> change.interrupts = Maps.with(interrupts, source, wire));
    }

    /** A null binding leaves the ports open. */
    public Block withOutward(String outwardInterface, Outward binding) {
        return with(change -> change.outward = Maps.with(outward, outwardInterface, binding));
    }

    private Block with(Consumer<Change> change) {
        Change copy = new Change(this);
        change.accept(copy);
        return copy.block();
    }

    /** The parts of a block while one of them is replaced. */
    private static final class Change {
        private String name;
        private Vlnv type;
        private String group;
        private SortedMap<String, String> parameters;
        private SortedMap<String, String> domains;
        private SortedMap<String, Attachment> attachments;
        private SortedMap<String, StreamWire> streams;
        private SortedMap<String, InterruptWire> interrupts;
        private SortedMap<String, Outward> outward;

        private Change(Block block) {
            name = block.name;
            type = block.type;
            group = block.group;
            parameters = block.parameters;
            domains = block.domains;
            attachments = block.attachments;
            streams = block.streams;
            interrupts = block.interrupts;
            outward = block.outward;
        }

        private Block block() {
            return new Block(
                    name,
                    type,
                    group,
                    parameters,
                    domains,
                    attachments,
                    streams,
                    interrupts,
                    outward);
        }
    }
}
