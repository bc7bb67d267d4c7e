package polymetron.cli.measure;

import java.util.List;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.library.Vlnv;
import polymetron.platform.Attachment;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;

/** Puts platforms for measurements together: one clock domain, one bus. */
final class Blocks {
    private static final String BUS = "system";
    private static final String DOMAIN = "main";

    private Blocks() {}

    static Platform platform(String name, List<Block> blocks) {
        return Platform.empty(name, Vlnv.parse("polymetron:boards:foreland:1.0"))
                .withDomains(List.of(new ClockDomain(DOMAIN, "oscillator", "reset_button")))
                .withBuses(List.of(new Bus(BUS, Protocol.AXI4_LITE, 32, 32, DOMAIN)))
                .withBlocks(blocks);
    }

    static Block block(String name, String type) {
        return of(name, Vlnv.parse("polymetron:" + type + ":1.0"));
    }

    static Block of(String name, Vlnv identity) {
        return Block.of(name, identity).withDomain("clk", DOMAIN).withDomain("rst", DOMAIN);
    }

    static Block processor(String name) {
        Attachment open = new Attachment(BUS, null, null);
        return block(name, "processor:rv32-small")
                .withAttachment("data", open)
                .withAttachment("instruction", open);
    }

    static Block memory(String name, long base, long sizeBytes) {
        return at(block(name, "memory:block-memory"), "port", base)
                .withParameter("SIZE", Long.toString(sizeBytes));
    }

    /** Puts a target on the bus. */
    static Block at(Block block, String busInterface, long base) {
        return block.withAttachment(busInterface, new Attachment(BUS, new Address(base), null));
    }
}
