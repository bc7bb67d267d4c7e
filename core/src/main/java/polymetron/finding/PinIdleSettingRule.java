package polymetron.finding;

import java.util.HashSet;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Direction;
import polymetron.pin.PinLine;
import polymetron.pin.PinTable;
import polymetron.platform.PinSetting;

/** Drive or slew of an input, or a pull of an output. */
final class PinIdleSettingRule extends PlainRule {
    PinIdleSettingRule() {
        super(
                "pin-setting-idle",
                Grade.WARNING,
                "Pin setting without effect",
                "An input drives nothing, and an output is never left to a pull: what was set does"
                        + " nothing, so something else was meant.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Set<String> told = new HashSet<>();
        for (PinLine line : PinTable.of(platform).lines()) {
            PinSetting setting = line.setting();
            boolean idle =
                    line.direction() == Direction.IN
                                    && (setting.drive() != null || setting.slew() != null)
                            || line.direction() == Direction.OUT
                                    && setting.pull() != null
                                    && setting.pull() != PinSetting.Pull.NONE;
            if (line.ref() != null && idle && told.add(line.ref() + " " + line.signal())) {
                report.accept(
                        finding(
                                line.ref(),
                                "%s is an %s, and its %s does nothing"
                                        .formatted(
                                                line.signal(),
                                                line.direction() == Direction.IN
                                                        ? "input"
                                                        : "output",
                                                line.direction() == Direction.IN
                                                        ? "drive or slew"
                                                        : "pull"),
                                PinFixes.asUsual(line)));
            }
        }
    }
}
