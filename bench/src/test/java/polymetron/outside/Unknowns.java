package polymetron.outside;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;

/** Looks for handshakes, requests, interrupts and output enables that are neither 0 nor 1 after the reset. */
public final class Unknowns {
    private static final Pattern NETS =
            Pattern.compile(
                    "wire (?:\\[\\d+:0\\]"
                        + " )?(\\w+(?:valid|ready|psel|penable|request|done|_drive|_external|_timer|_software|_irq));");

    private Unknowns() {}

    /** Says "unknown" in a test bench, by what is in the top level of the hardware. */
    public static String monitor(Path folder, String top) throws IOException {
        List<String> nets =
                NETS.matcher(Files.readString(folder.resolve("hdl/" + top + ".v")))
                        .results()
                        .map(found -> found.group(1))
                        .filter(net -> !net.startsWith("unused_"))
                        .toList();
        assertThat(nets).hasSizeGreaterThan(20);
        StringBuilder monitor = new StringBuilder("integer settles = 0;\n");
        // Domains are released one after the other.
        monitor.append("always @(negedge oscillator) begin\n    settles = settles + 1;\n");
        for (String net : nets) {
            monitor.append(
                    "    if (settles > 600 && ^board.%1$s === 1'bx) $display(\"unknown %1$s\");\n"
                            .formatted(net));
        }
        return monitor.append("end\n").toString();
    }
}
