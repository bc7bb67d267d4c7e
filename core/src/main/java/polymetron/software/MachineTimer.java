package polymetron.software;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.Pass;
import polymetron.library.Capability;

/**
 * A machine timer (RISC-V ACLINT 1.0) and the harts that it serves.
 *
 * @param hertz clock in hertz; 0 when it has none
 * @param divider clock cycles a tick
 * @param timed the hart of each MTIMECMP register; null where it serves none
 * @param signalled the hart of each MSIP register; null where it serves none
 */
public record MachineTimer(
        ElaboratedBlock block,
        Capability.MachineTimer role,
        long hertz,
        long divider,
        List<Hart> timed,
        List<Hart> signalled) {
    /** With places for harts that are not there. */
    public MachineTimer {
        timed = Collections.unmodifiableList(new ArrayList<>(timed));
        signalled = Collections.unmodifiableList(new ArrayList<>(signalled));
    }

    /** Every machine timer of a platform. */
    public static final Pass<List<MachineTimer>> PASS =
            Pass.named("machine timers", MachineTimer::find, Harts.PASS, Harts.CONNECTED);

    public static List<MachineTimer> of(ElaboratedPlatform platform) {
        return platform.result(PASS);
    }

    private static List<MachineTimer> find(ElaboratedPlatform platform) {
        List<MachineTimer> found = new ArrayList<>();
        for (ElaboratedBlock block : platform.blocks()) {
            for (Capability.MachineTimer role :
                    block.type().provides(Capability.MachineTimer.class)) {
                int harts = Math.clamp(block.shape().number(role.harts(), 1), 1, 4095);
                List<Hart> timed = new ArrayList<>();
                List<Hart> signalled = new ArrayList<>();
                List<Hart> own = Harts.of(platform).of(block);
                for (int index = 0; index < harts; index++) {
                    if (role.lines().isEmpty()) {
                        timed.add(index < own.size() ? own.get(index) : null);
                        signalled.add(index < own.size() ? own.get(index) : null);
                    } else {
                        Capability.TimerLines lines =
                                index < role.lines().size() ? role.lines().get(index) : null;
                        timed.add(
                                lines == null
                                        ? null
                                        : hart(platform, block, lines.timer(), HartLine.TIMER));
                        signalled.add(
                                lines == null
                                        ? null
                                        : hart(
                                                platform,
                                                block,
                                                lines.software(),
                                                HartLine.SOFTWARE));
                    }
                }
                found.add(
                        new MachineTimer(
                                block,
                                role,
                                Harts.hertz(platform, block, role.hertz()),
                                Math.max(1, block.shape().number(role.divider(), 1)),
                                timed,
                                signalled));
            }
        }
        return List.copyOf(found);
    }

    private static Hart hart(
            ElaboratedPlatform platform, ElaboratedBlock block, String source, HartLine line) {
        return Harts.link(platform, block, source)
                .flatMap(link -> Harts.of(platform).reachedBy(link, line))
                .orElse(null);
    }

    /** The timer that serves a hart. */
    public static Optional<MachineTimer> serving(ElaboratedPlatform platform, Hart hart) {
        return of(platform).stream().filter(timer -> timer.timed().contains(hart)).findFirst();
    }

    /** Ticks in a second; 0 when it has no clock. */
    public long tickHz() {
        return hertz / divider;
    }

    public InterfaceRef registers() {
        return new InterfaceRef(block.name(), role.registers());
    }
}
