package polymetron.wiring;

import polymetron.edit.Edit;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.platform.Bus;
import polymetron.platform.Names;

/** The bus that is wanted behind a bridge. */
public final class NewBus {
    private static final String NAME = "peripherals";

    private NewBus() {}

    /** A bus of the protocol that the bridge likes most behind it, as wide as the window needs. */
    public static Edit.AddBus behind(ElaboratedPlatform platform, ElaboratedBlock block) {
        Bridge bridge = block.shape().bridge();
        SizedInterface form = block.shape().busInterface(bridge.downstream()).orElseThrow();
        String name = Names.free(NAME, platform.buses().stream().map(ElaboratedBus::name).toList());
        String clock =
                block.type().clocks().isEmpty() ? null : block.type().clocks().getFirst().name();
        return new Edit.AddBus(
                new Bus(
                        name,
                        form.type().protocols().getFirst(),
                        form.dataWidth(),
                        addressWidth(bridge),
                        clock == null ? null : block.block().domains().get(clock)));
    }

    private static int addressWidth(Bridge bridge) {
        int needed =
                bridge.window() == null
                        ? 0
                        : 64 - Long.numberOfLeadingZeros(bridge.window().last());
        return Math.clamp(needed, 12, 64);
    }
}
