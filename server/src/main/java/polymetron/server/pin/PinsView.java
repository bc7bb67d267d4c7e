package polymetron.server.pin;

import java.util.List;
import org.jspecify.annotations.Nullable;
import polymetron.edit.Edit;
import polymetron.platform.PinSetting;

/**
 * External lines and their pins.
 *
 * @param lines those without a pin first
 */
public record PinsView(
        long revision,
        String device,
        List<PinBankView> banks,
        List<StandardView> standards,
        List<PinLineView> lines,
        int open) {

    /**
     * An I/O standard of the device.
     *
     * @param drives currents in mA that an output can have, the usual one first
     */
    public record StandardView(
            String name, String voltage, boolean differential, List<Integer> drives) {}

    public record PinBankView(String name, String voltage, List<PackagePinView> pins) {}

    /**
     * @param port line of a port that is on it; missing when it is free
     * @param partner pin that makes a pair with it for differential standards; missing where pins do not pair
     * @param note what else there is to know: a board part that is there, configuration, a clock pin
     */
    public record PackagePinView(
            String pin,
            @Nullable String port,
            @Nullable String block,
            @Nullable String note,
            @Nullable String partner) {}

    /**
     * @param outward outward interface; missing for a clock or reset of the board
     * @param set what was set by hand; missing for nothing
     * @param byHand whether its pin can be changed here
     */
    public record PinLineView(
            String port,
            @Nullable String block,
            @Nullable String outward,
            @Nullable String signal,
            int line,
            String direction,
            @Nullable String pin,
            @Nullable String bank,
            @Nullable String voltage,
            @Nullable String standard,
            @Nullable Integer drive,
            @Nullable String slew,
            @Nullable String pull,
            @Nullable String termination,
            @Nullable PinSetting set,
            String by,
            boolean byHand) {}

    /** Pins proposed for what has none. */
    public record PinPlanView(
            long revision, List<GivenPinsView> given, List<String> unplaceable, Edit edit) {}

    public record GivenPinsView(String outward, String bank, String voltage, String pins) {}

    /**
     * What a table would change.
     *
     * @param edit missing when it changes nothing, or has problems
     */
    public record PinImportView(long revision, List<String> problems, @Nullable Edit edit) {}
}
