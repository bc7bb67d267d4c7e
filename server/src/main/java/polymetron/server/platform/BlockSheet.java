package polymetron.server.platform;

import java.util.List;
import org.jspecify.annotations.Nullable;
import polymetron.server.library.LibraryView.ParameterView;

/** Everything about one block of one revision, for the inspector. */
public record BlockSheet(
        long revision,
        String name,
        @Nullable String group,
        String localName,
        String type,
        String kind,
        String title,
        String summary,
        List<VersionView> versions,
        List<ValueView> parameters,
        List<PlatformView.PortView> clocks,
        List<InterfaceView> interfaces,
        List<StreamEndView> streams,
        List<InterruptView> interrupts,
        List<OutwardView> outward,
        List<RegisterView> registers,
        List<ResourceView> resources) {

    /** Another version of its type that the library has. */
    public record VersionView(String type, String version, boolean newer) {}

    /**
     * A stream source or sink.
     *
     * @param words what its words carry, or what it needs of them
     * @param peer the other end, as block.name; missing as long as it is open
     * @param choices ends that it could be led to, as block.name
     */
    public record StreamEndView(
            String name,
            String title,
            String end,
            int width,
            String words,
            @Nullable String domain,
            @Nullable String peer,
            List<String> choices) {}

    /**
     * A parameter with its value.
     *
     * @param text as written; the default when none is chosen
     * @param shown value after evaluation, with its unit
     * @param chosen whether the user chose it
     * @param note what follows from it, such as the actual rate
     */
    public record ValueView(
            ParameterView parameter,
            String text,
            String shown,
            boolean chosen,
            @Nullable String note) {}

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
            boolean inside,
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
}
