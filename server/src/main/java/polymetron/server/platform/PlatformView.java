package polymetron.server.platform;

import jakarta.annotation.Nullable;
import java.util.List;
import polymetron.bus.Protocol;
import polymetron.server.store.Author;

/**
 * Everything that a browser shows of one revision of a platform. Addresses are written out, because they have more
 * bits than a number in a browser.
 */
public record PlatformView(
        String id,
        String name,
        long revision,
        String savedAt,
        @Nullable String undo,
        @Nullable AuthorView undoBy,
        @Nullable String redo,
        String board,
        String boardTitle,
        String fingerprint,
        List<DomainView> domains,
        List<BusView> buses,
        List<BlockView> blocks,
        List<StreamView> streams,
        List<String> openSinks,
        List<GroupView> groups,
        List<PartUse> parts,
        List<FindingView> findings,
        List<FindingGroupView> findingGroups) {

    /**
     * Who made a change, as far as they say.
     *
     * @param browser number that their browser has given itself; missing for a program
     * @param name what they call themselves; missing when they do not say
     */
    public record AuthorView(@Nullable String browser, @Nullable String name) {
        static @Nullable AuthorView of(@Nullable Author author) {
            return author == null
                    ? null
                    : new AuthorView(
                            author.browser() == null ? null : author.browser().toString(),
                            author.name());
        }
    }

    /** A clock domain. */
    public record DomainView(String name, String clock, @Nullable String reset, String frequency) {}

    /**
     * A bus as a rail: who is above it, and what hangs below in address order, gaps between.
     *
     * @param depth bridges between it and a bus with an initiator of its own
     */
    public record BusView(
            String name,
            Protocol protocol,
            String protocolTitle,
            int depth,
            int dataWidth,
            int addressWidth,
            @Nullable String domain,
            String arbitration,
            List<InitiatorView> initiators,
            List<SlotView> slots,
            List<TargetView> unplaced) {}

    /**
     * An initiator on a bus.
     *
     * @param reaches targets that it reaches, as block.interface
     * @param hidden targets that it could reach, but that are hidden from it
     */
    public record InitiatorView(
            String block,
            String busInterface,
            String label,
            boolean fetches,
            boolean bridge,
            @Nullable Integer priority,
            List<String> adapters,
            List<String> reaches,
            List<String> hidden) {}

    /**
     * A place on a bus: a target, or a gap between targets.
     *
     * @param kept what the gap, or a part of it, is kept for; missing for nothing
     */
    public record SlotView(
            String base,
            String last,
            String size,
            @Nullable TargetView target,
            @Nullable String kept) {}

    /**
     * A target.
     *
     * @param title what the interface is called, for a block with several
     * @param leadsTo bus behind it, for the window of a bridge
     * @param adapters what stands between it and the bus, in words
     * @param seen where initiators see it through bridges, in words
     * @param software where software finds it behind bridges; missing where no processor sees it through one
     * @param sizeParameter parameter of the block that is its size; missing when the size follows from more
     */
    public record TargetView(
            String block,
            String busInterface,
            String label,
            @Nullable String title,
            String size,
            boolean memory,
            boolean held,
            boolean conflict,
            @Nullable String leadsTo,
            List<String> adapters,
            @Nullable String seen,
            @Nullable SoftwareRange software,
            @Nullable String sizeParameter,
            @Nullable String base,
            @Nullable String last) {}

    /**
     * Addresses that processors use for a target behind bridges.
     *
     * @param base those of the first processor
     * @param others processors that use other addresses, with these, in words; missing where all agree
     */
    public record SoftwareRange(String base, String last, @Nullable String others) {}

    /**
     * A block as far as the picture needs it; the rest is in its {@link BlockSheet}.
     *
     * @param localName name within its group
     * @param detail what tells it from others of its type
     * @param base first address of its first target; missing as long as it has none
     * @param attached whether it is on a bus or part of a stream
     */
    public record BlockView(
            String name,
            @Nullable String group,
            String localName,
            String type,
            String kind,
            String title,
            String detail,
            @Nullable String base,
            boolean attached,
            List<PortView> clocks,
            List<WireView> interrupts,
            List<OutsideView> outward) {}

    /** A clock or reset input. */
    public record PortView(String name, String sort, @Nullable String domain) {}

    /** An interrupt source and where it goes. */
    public record WireView(
            String name,
            String line,
            @Nullable String sinkBlock,
            @Nullable String sink,
            @Nullable Integer input) {}

    /** An outward interface and where it goes, with its pins. */
    public record OutsideView(
            String name, @Nullable String part, boolean bound, List<String> pins) {}

    /**
     * A stream source and the sink that it feeds.
     *
     * @param carries what its words carry besides their bits, in words
     * @param wrong whether the ends do not fit together
     */
    public record StreamView(
            String block,
            String source,
            int width,
            String carries,
            @Nullable String domain,
            @Nullable String sinkBlock,
            @Nullable String sink,
            boolean wrong) {}

    /**
     * A group, with its external connections.
     *
     * @param interfaces each as the end inside and the end outside
     */
    public record GroupView(String name, List<String> blocks, List<CrossingView> interfaces) {}

    /** Something that leads in or out of a group. */
    public record CrossingView(String sort, String inside, String outside) {}

    /** A part of the board and who has it. */
    public record PartUse(
            String part, String title, String kind, @Nullable String block, List<String> drivers) {}

    /** A finding. */
    public record FindingView(
            String rule,
            String title,
            String grade,
            String subject,
            String block,
            String what,
            String why,
            boolean acceptable,
            @Nullable String accepted,
            @Nullable String acceptedBy,
            @Nullable Long acceptedOn,
            String group,
            List<FixView> fixes) {}

    /**
     * Findings with one cause.
     *
     * @param key as its findings name it
     * @param line the cause in words
     * @param step view in which it is looked at
     * @param fixable whether each of them can be settled by a fix
     */
    public record FindingGroupView(
            String key,
            String line,
            String grade,
            String step,
            int count,
            boolean accepted,
            boolean fixable) {}

    /** A way to settle a finding. */
    public record FixView(String label, polymetron.edit.Edit edit) {}
}
