package polymetron.platform;

import java.util.List;
import java.util.SortedMap;

/**
 * Where the outward ports of a block leave the chip: at a part of the board, or at pins chosen by hand.
 *
 * @param part name of the board part; null when pins are given
 * @param pins for each port, its pins, lowest line first
 */
public record Outward(String part, SortedMap<String, List<String>> pins) {
    public Outward {
        pins = Maps.sorted(pins);
    }
}
