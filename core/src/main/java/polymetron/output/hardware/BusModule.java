package polymetron.output.hardware;

import java.util.List;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.verilog.Module;

/**
 * A bus as a module: a port for each attachment in the bus's own protocol, the address decode, and the common bus in between.
 * Everything that the decode leads nowhere is an error.
 */
final class BusModule {
    private BusModule() {}

    /** Name of the module of a bus; no block has two underscores in a row in its name. */
    static String name(String top, ElaboratedBus bus) {
        return top + "_" + bus.name() + "__bus";
    }

    /**
     * @return the address decode, and the module of the bus
     */
    static List<Module> of(ElaboratedPlatform platform, ElaboratedBus bus, String name) {
        Module decode =
                DecodeModule.of(
                        platform,
                        bus,
                        bus.inOrder(),
                        DecodeModule.addressBits(platform, bus, bus.inOrder()),
                        name + "_decode");
        Module module = new Module(name);
        BusFrame frame = new BusFrame(platform, bus, module, decode.name());
        switch (bus.bus().protocol()) {
            case AXI4, AXI4_LITE -> AxiBus.build(frame);
            case AHB_LITE -> AhbLiteBus.build(frame);
            case APB -> ApbBus.build(frame);
            case WISHBONE -> WishboneBus.build(frame);
        }
        return List.of(decode, module);
    }
}
