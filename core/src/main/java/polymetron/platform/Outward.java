package polymetron.platform;

import java.util.List;
import java.util.SortedMap;

/**
 * Where the outward ports of a block leave the chip: at a part of the board, or at pins chosen by hand.
 *
 * @param part name of the board part; null when pins are given
 * @param pins for each port, its pins, lowest line first
 * @param settings for each port, what its pins are set to electrically, where that differs from the usual
 */
public record Outward(
        String part, SortedMap<String, List<String>> pins, SortedMap<String, PinSetting> settings) {
    public Outward {
        pins = Maps.sorted(pins);
        settings = Maps.sorted(settings);
    }

    public Outward withSetting(String port, PinSetting setting) {
        return new Outward(part, pins, Maps.with(settings, port, setting));
    }
}
