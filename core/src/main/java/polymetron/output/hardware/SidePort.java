package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.List;
import polymetron.library.BlockType;
import polymetron.library.Capability;
import polymetron.verilog.ModuleHeader;

/**
 * A port between blocks that no definition lists, because it follows from what a block is to the rest: a machine timer shows its
 * time to the harts that it serves, and a PLL says whether its clocks run as they should.
 *
 * @param port port of the hand-written module
 */
record SidePort(String port, int bits, boolean isOutput) {
    static final String TIME = "mtime";
    static final String LOCKED = "locked";

    /** Name of the block's own port; no name of a definition ends like this. */
    String net() {
        return port + "__";
    }

    static List<SidePort> of(BlockType type, ModuleHeader behaviour) {
        List<SidePort> ports = new ArrayList<>();
        if (!type.provides(Capability.MachineTimer.class).isEmpty()) {
            ports.add(new SidePort(TIME, 64, true));
        } else if (!type.provides(Capability.Hart.class).isEmpty()) {
            ports.add(new SidePort(TIME, 64, false));
        }
        if (!type.provides(Capability.Pll.class).isEmpty()) {
            ports.add(new SidePort(LOCKED, 1, true));
        }
        return ports.stream().filter(each -> behaviour.port(each.port()).isPresent()).toList();
    }
}
