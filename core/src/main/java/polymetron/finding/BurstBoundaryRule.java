package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.bus.Protocol;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;

/** An initiator whose bursts are longer than the protocol of its bus allows. */
final class BurstBoundaryRule implements Rule {
    @Override
    public String id() {
        return "burst-boundary";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Burst longer than its bus allows";
    }

    @Override
    public String explanation() {
        return "AXI4 forbids bursts across a 4 KiB boundary and of more than 256 transfers (Arm IHI"
                + " 0022, A3.4.1), AHB bursts across 1 KiB (Arm IHI 0033, 3.5): a burst that is"
                + " longer than that crosses it wherever it begins.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            Protocol protocol = bus.bus().protocol();
            if (protocol.burstBoundaryBytes() == 0) {
                continue;
            }
            for (InitiatorPort initiator : bus.initiators()) {
                long bytes = initiator.form().burstBytes();
                int beats = initiator.form().burst();
                if (bytes > protocol.burstBoundaryBytes() || beats > protocol.longestBurst()) {
                    report.accept(
                            finding(
                                    initiator.ref(),
                                    "%s makes bursts of %s transfers, %s bytes; %s allows %s and %s"
                                            .formatted(
                                                    initiator.label(),
                                                    beats,
                                                    bytes,
                                                    protocol.title(),
                                                    protocol.longestBurst(),
                                                    protocol.burstBoundaryBytes()),
                                    List.of()));
                }
            }
        }
    }
}
