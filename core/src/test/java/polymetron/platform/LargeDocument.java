package polymetron.platform;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.library.Vlnv;
import polymetron.wiring.Starter;

/** A platform of many blocks: the console recipe and as many GPIOs and stream FIFOs as wanted. */
public final class LargeDocument {
    private static final Vlnv FIFO = Vlnv.parse("polymetron:stream:fifo:1.0");
    private static final long FIRST = 0x2000_0000L;

    private LargeDocument() {}

    public static String of(int blocks) {
        Platform platform =
                Starter.start(
                        Shipped.LIBRARY,
                        "Large " + blocks,
                        Shipped.BOARD,
                        Shipped.LIBRARY.recipe("console").orElseThrow());
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.ChangeBus(new Bus("system", "axi4-lite", 32, 32, "main")));
        for (int number = platform.blocks().size(); number < blocks; number++) {
            boolean stream = number % 10 == 0;
            String name = (stream ? "fifo" : "port") + number;
            edits.add(
                    stream
                            ? new Edit.AddBlock(name, FIFO, null)
                            : new Edit.AddBlock(
                                    name, Shipped.GPIO, Map.of("WIDTH", "8", "DIRECTION", "out")));
            edits.add(new Edit.SetDomain(name, "clk", "main"));
            edits.add(new Edit.SetDomain(name, "rst", "main"));
            if (!stream) {
                Address base = new Address(FIRST + number * 0x1000L);
                edits.add(new Edit.Attach(name, "registers", "system", base, null));
            }
        }
        return PlatformDocument.write(
                new Editor(Shipped.LIBRARY).apply(platform, new Edit.Several(null, edits)));
    }
}
