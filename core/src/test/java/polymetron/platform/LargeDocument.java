package polymetron.platform;

import java.util.ArrayList;
import java.util.List;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
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
        List<Block> all = new ArrayList<>(platform.blocks());
        for (int number = all.size(); number < blocks; number++) {
            all.add(block(number));
        }
        return PlatformDocument.write(
                platform.withBuses(List.of(new Bus("system", Protocol.AXI4_LITE, 32, 32, "main")))
                        .withBlocks(all));
    }

    private static Block block(int number) {
        boolean stream = number % 10 == 0;
        String name = (stream ? "fifo" : "port") + number;
        Block block =
                Block.of(name, stream ? FIFO : Shipped.GPIO)
                        .withDomain("clk", "main")
                        .withDomain("rst", "main");
        Address base = new Address(FIRST + number * 0x1000L);
        return stream
                ? block
                : block.withParameter("WIDTH", "8")
                        .withParameter("DIRECTION", "out")
                        .withAttachment("registers", new Attachment("system", base, null));
    }
}
