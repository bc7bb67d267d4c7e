package polymetron.software;

import java.util.Optional;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;

/** The clock of what lies behind a target: that of the block, unless the definition states another. */
public final class TargetClock {
    private TargetClock() {}

    /** In hertz; 0 when there is none. */
    public static long hertz(ElaboratedPlatform platform, ElaboratedBlock block, String registers) {
        return stated(platform, block, registers).orElseGet(() -> platform.frequencyHz(block));
    }

    /** The same where the definition states it. */
    public static Optional<Long> stated(
            ElaboratedPlatform platform, ElaboratedBlock block, String registers) {
        for (MachineTimer timer : MachineTimer.of(platform)) {
            if (timer.block() == block
                    && timer.role().registers().equals(registers)
                    && timer.role().hertz() != null) {
                return Optional.of(timer.hertz());
            }
        }
        return Consoles.at(block, registers)
                .filter(console -> console.hertz() != null)
                .map(console -> Consoles.clockHz(platform, block, console));
    }
}
