package polymetron.pin;

import polymetron.elaborate.InterfaceRef;
import polymetron.library.Device;
import polymetron.library.Direction;
import polymetron.platform.PinSetting;

/**
 * One external line.
 *
 * @param port its name, such as {@code lamps.value[3]}
 * @param ref outward interface that it belongs to; null for a clock or reset of the board
 * @param signal name of the port within the interface; null for a clock or reset
 * @param line number of the line within the port
 * @param pin package pin; null as long as it has none
 * @param bank bank of the pin; null when there is no pin, or the device does not have it
 * @param setting what the pin is set to, where known; all null when there is no pin
 * @param by who chose the pin, in words
 * @param byBoard whether the board says where it is, so that it cannot be elsewhere
 */
public record PinLine(
        String port,
        InterfaceRef ref,
        String signal,
        int line,
        Direction direction,
        String pin,
        Device.Bank bank,
        PinSetting setting,
        String by,
        boolean byBoard) {
    /** I/O standard; null when there is no pin. */
    public String standard() {
        return setting.standard();
    }

    public boolean isOpen() {
        return pin == null;
    }
}
