package polymetron.server.platform;

import jakarta.annotation.Nullable;
import java.util.List;
import polymetron.server.library.LibraryView.ParameterView;

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
        @Nullable String redo,
        String board,
        String boardTitle,
        String fingerprint,
        List<DomainView> domains,
        List<BusView> buses,
        List<BlockView> blocks,
        RulersView rulers,
        List<FreeView> free,
        List<PartUse> parts,
        List<FindingView> findings) {

    /** A clock domain. */
    public record DomainView(String name, String clock, @Nullable String reset, String frequency) {}

    /**
     * A bus as a rail: who is above it, and what hangs below in address order, gaps between.
     *
     * @param depth bridges between it and a bus with an initiator of its own
     */
    public record BusView(
            String name,
            String protocol,
            String protocolTitle,
            int depth,
            int dataWidth,
            int addressWidth,
            @Nullable String domain,
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
            List<String> adapters,
            List<String> reaches,
            List<String> hidden) {}

    /** A place on a bus: a target, or a gap between targets. */
    public record SlotView(String base, String last, String size, @Nullable TargetView target) {}

    /**
     * A target.
     *
     * @param leadsTo bus behind it, for the window of a bridge
     * @param adapters what stands between it and the bus, in words
     */
    public record TargetView(
            String block,
            String busInterface,
            String label,
            String size,
            boolean memory,
            boolean held,
            boolean conflict,
            @Nullable String leadsTo,
            List<String> adapters,
            @Nullable String base,
            @Nullable String last) {}

    /** A block. */
    public record BlockView(
            String name,
            String type,
            String kind,
            String title,
            String summary,
            boolean attached,
            List<ValueView> parameters,
            List<PortView> clocks,
            List<InterfaceView> interfaces,
            List<InterruptView> interrupts,
            List<OutwardView> outward,
            List<RegisterView> registers,
            List<ResourceView> resources) {}

    /**
     * A parameter with its value.
     *
     * @param text as written; the default when nobody chose one
     * @param shown value after evaluation, with its unit
     * @param chosen whether the user chose it
     * @param note what follows from it, such as the rate obtained
     */
    public record ValueView(
            ParameterView parameter,
            String text,
            String shown,
            boolean chosen,
            @Nullable String note) {}

    /** A clock or reset input. */
    public record PortView(String name, String sort, @Nullable String domain) {}

    /** A bus interface. */
    public record InterfaceView(
            String name,
            String role,
            String title,
            @Nullable String bus,
            @Nullable String base,
            @Nullable String last,
            String size,
            boolean held,
            List<String> adapters,
            List<ReachView> reachedBy) {}

    /** An initiator that reaches a target, and the address at which it does. */
    public record ReachView(String initiator, String base, List<String> via) {}

    /** An interrupt source and where it goes. */
    public record InterruptView(
            String name,
            String line,
            String trigger,
            @Nullable String sinkBlock,
            @Nullable String sink,
            @Nullable Integer input,
            List<SinkView> choices) {}

    /** An interrupt port that a source could go to. */
    public record SinkView(
            String block, String sink, int first, int last, @Nullable Integer free) {}

    /** An outward interface and where it goes. */
    public record OutwardView(
            String name,
            String title,
            List<String> ports,
            @Nullable String part,
            boolean bound,
            List<String> pins,
            List<String> partChoices) {}

    /** A register with its absolute address; addresses are missing as long as the block has none. */
    public record RegisterView(
            String name,
            String offset,
            @Nullable String address,
            int width,
            String access,
            String reset,
            int count,
            int first,
            String explains,
            @Nullable String condition,
            List<FieldView> fields) {}

    /** A field of a register. */
    public record FieldView(String name, String bits, String explains) {}

    /** Estimated use of one resource of the device. */
    public record ResourceView(String name, long amount) {}

    /**
     * The address spaces of all initiators side by side.
     *
     * @param columns what each column is called
     */
    public record RulersView(List<String> columns, List<RulerRow> rows) {}

    /** A run of addresses in which no column changes; for each column the targets there, none in a gap. */
    public record RulerRow(String base, String last, String size, List<List<String>> cells) {}

    /** Free space on a bus. */
    public record FreeView(String bus, String base, String last, String size) {}

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
            List<FixView> fixes) {}

    /** A way to settle a finding. */
    public record FixView(String label, polymetron.edit.Edit edit) {}
}
