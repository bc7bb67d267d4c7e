package polymetron.platform;

import java.util.SortedMap;
import polymetron.library.Vlnv;

/**
 * A block placed in a platform, with all that the user decided about it.
 *
 * @param parameters values other than the defaults, as written: expressions, or the texts of choices
 * @param domains clock domain of each clock and reset input
 * @param attachments bus of each bus interface
 * @param interrupts sink of each interrupt source
 * @param outward board part or pins of each outward interface
 */
public record Block(
        String name,
        Vlnv type,
        SortedMap<String, String> parameters,
        SortedMap<String, String> domains,
        SortedMap<String, Attachment> attachments,
        SortedMap<String, InterruptWire> interrupts,
        SortedMap<String, Outward> outward) {
    public Block {
        parameters = Maps.sorted(parameters);
        domains = Maps.sorted(domains);
        attachments = Maps.sorted(attachments);
        interrupts = Maps.sorted(interrupts);
        outward = Maps.sorted(outward);
    }

    public Block withName(String newName) {
        return new Block(newName, type, parameters, domains, attachments, interrupts, outward);
    }

    /** A null value goes back to the default. */
    public Block withParameter(String parameter, String value) {
        return new Block(
                name,
                type,
                Maps.with(parameters, parameter, value),
                domains,
                attachments,
                interrupts,
                outward);
    }

    /** A null domain disconnects the input. */
    public Block withDomain(String port, String domain) {
        return new Block(
                name,
                type,
                parameters,
                Maps.with(domains, port, domain),
                attachments,
                interrupts,
                outward);
    }

    /** A null attachment takes the interface off its bus. */
    public Block withAttachment(String busInterface, Attachment attachment) {
        return new Block(
                name,
                type,
                parameters,
                domains,
                Maps.with(attachments, busInterface, attachment),
                interrupts,
                outward);
    }

    /** A null wire disconnects the source. */
    public Block withInterrupt(String source, InterruptWire wire) {
        return new Block(
                name,
                type,
                parameters,
                domains,
                attachments,
                Maps.with(interrupts, source, wire),
                outward);
    }

    /** A null binding leaves the ports open. */
    public Block withOutward(String outwardInterface, Outward binding) {
        return new Block(
                name,
                type,
                parameters,
                domains,
                attachments,
                interrupts,
                Maps.with(outward, outwardInterface, binding));
    }
}
