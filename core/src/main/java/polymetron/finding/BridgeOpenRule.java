package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.wiring.NewBus;

/** A bridge leads nowhere. */
final class BridgeOpenRule implements Rule {
    @Override
    public String id() {
        return "bridge-open";
    }

    @Override
    public Grade grade() {
        return Grade.WARNING;
    }

    @Override
    public String title() {
        return "Bridge that leads nowhere";
    }

    @Override
    public String explanation() {
        return "Every access to the window of the bridge is a bus fault as long as there is no bus"
                + " behind it.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBlock block : platform.blocks()) {
            Bridge bridge = block.shape().bridge();
            if (bridge == null || block.block().attachments().containsKey(bridge.downstream())) {
                continue;
            }
            InterfaceRef ref = new InterfaceRef(block.name(), bridge.downstream());
            report.accept(
                    finding(
                            ref,
                            "%s has no bus behind it".formatted(block.name()),
                            fixes(platform, block, bridge)));
        }
    }

    private static List<Fix> fixes(
            ElaboratedPlatform platform, ElaboratedBlock block, Bridge bridge) {
        Edit.AddBus bus = NewBus.behind(platform, block);
        return List.of(
                new Fix(
                        "Put a new bus %s behind it".formatted(bus.bus().name()),
                        new Edit.Several(
                                "put bus %s behind %s".formatted(bus.bus().name(), block.name()),
                                List.of(
                                        bus,
                                        new Edit.Attach(
                                                block.name(),
                                                bridge.downstream(),
                                                bus.bus().name(),
                                                null,
                                                null)))));
    }
}
