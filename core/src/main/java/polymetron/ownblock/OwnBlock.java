package polymetron.ownblock;

import java.util.Collections;
import java.util.SortedMap;
import java.util.TreeMap;
import polymetron.library.BlockType;

/**
 * A user's block type: its definition and the files that come with it.
 *
 * @param definition the definition as text in its canonical form
 * @param hardware Verilog files by name
 * @param drivers C headers by name
 * @param tests Verilog files by name, each with one module without ports that tries the block's own; nothing of them is handed off
 */
public record OwnBlock(
        BlockType type,
        String definition,
        SortedMap<String, String> hardware,
        SortedMap<String, String> drivers,
        SortedMap<String, String> tests) {
    public OwnBlock {
        hardware = Collections.unmodifiableSortedMap(new TreeMap<>(hardware));
        drivers = Collections.unmodifiableSortedMap(new TreeMap<>(drivers));
        tests = Collections.unmodifiableSortedMap(new TreeMap<>(tests));
    }

    /** One without tests. */
    public OwnBlock(
            BlockType type,
            String definition,
            SortedMap<String, String> hardware,
            SortedMap<String, String> drivers) {
        this(type, definition, hardware, drivers, new TreeMap<>());
    }
}
