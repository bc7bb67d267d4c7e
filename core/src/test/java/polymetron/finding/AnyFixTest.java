package polymetron.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.library.BlockType;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.PinSetting;
import polymetron.platform.Platform;

/** However a platform was broken: every button that a finding offers can be pressed, and settling a group comes to an end. */
final class AnyFixTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private final Random random = new Random();

    @RepeatedTest(60)
    void everyFixCanBeAppliedAndIsNoSecondTime(RepetitionInfo repetition) {
        random.setSeed(repetition.getCurrentRepetition());
        Platform platform = broken();
        List<Finding> findings = Checks.run(Shipped.elaborate(platform));
        for (Finding finding : findings) {
            assertThat(Checks.step(finding.rule())).as(finding.rule()).isNotNull();
            for (Fix fix : finding.fixes()) {
                Platform fixed = EDITOR.apply(platform, fix.edit());
                assertThat(fixed).as(finding.what() + ": " + fix.label()).isNotEqualTo(platform);
                // The same words do not come again, or the button would do nothing.
                assertThat(Checks.run(Shipped.elaborate(fixed)))
                        .as(finding.what() + ": " + fix.label())
                        .noneMatch(
                                after ->
                                        after.rule().equals(finding.rule())
                                                && after.subject().equals(finding.subject())
                                                && after.what().equals(finding.what()));
            }
        }
        int members = 0;
        for (FindingGroups.Group group : FindingGroups.of(findings)) {
            members += group.findings().size();
            String key = FindingGroups.key(group.findings().getFirst());
            FixAll.of(Shipped.LIBRARY, platform, key)
                    .ifPresent(edit -> assertThat(EDITOR.apply(platform, edit)).isNotNull());
        }
        assertThat(members).isEqualTo(findings.size());
    }

    private Platform broken() {
        Platform platform = Shipped.recipe(random.nextBoolean() ? "station" : "acquisition");
        for (int count = 0; count < 8; count++) {
            try {
                platform = EDITOR.apply(platform, edit(platform));
            } catch (RejectedEdit senseless) {
                // What makes no sense is refused; something else breaks it.
            }
        }
        return platform;
    }

    private <T> T any(List<T> all) {
        return all.get(random.nextInt(all.size()));
    }

    private Edit edit(Platform platform) {
        Block block = any(platform.blocks());
        BlockType type = Shipped.LIBRARY.type(block.type()).orElseThrow();
        Bus bus = any(platform.buses());
        return switch (random.nextInt(13)) {
            case 0 -> new Edit.RemoveBlock(block.name());
            case 1 -> new Edit.SetDomain(block.name(), any(type.clocks()).name(), null);
            case 2, 3 ->
                    new Edit.Attach(
                            block.name(),
                            any(
                                    new ArrayList<>(block.attachments().keySet()).isEmpty()
                                            ? List.of("registers")
                                            : new ArrayList<>(block.attachments().keySet())),
                            bus.name(),
                            new Address(random.nextInt(0x4000) * 0x400L),
                            random.nextInt(4) == 0);
            case 4 ->
                    new Edit.AddBlock(
                            "more" + random.nextInt(100),
                            any(new ArrayList<>(Shipped.LIBRARY.types())).identity(),
                            Map.of());
            case 5 ->
                    type.parameters().isEmpty()
                            ? new Edit.RemoveBlock("nobody")
                            : new Edit.SetParameter(
                                    block.name(),
                                    any(type.parameters()).name(),
                                    Integer.toString(random.nextInt(5000)));
            case 6 -> {
                List<String> sources = new ArrayList<>(block.interrupts().keySet());
                yield sources.isEmpty()
                        ? new Edit.RemoveBlock("nobody")
                        : new Edit.ConnectInterrupt(
                                block.name(),
                                any(sources),
                                "interrupts",
                                "inputs",
                                random.nextInt(40));
            }
            case 7 -> {
                List<String> outward = new ArrayList<>(block.outward().keySet());
                yield outward.isEmpty()
                        ? new Edit.RemoveBlock("nobody")
                        : new Edit.Unbind(block.name(), any(outward));
            }
            case 8 ->
                    new Edit.Reserve(
                            bus.name(),
                            "later",
                            new Address(random.nextInt(64) * 0x40_0000L),
                            new Address(random.nextInt(64) * 0x40_0000L + 0x3F_FFFF));
            case 9 -> new Edit.SetTraffic("cpu", "data", 1 + random.nextInt(2_000_000_000) * 1L);
            case 10 ->
                    type.outward().isEmpty()
                            ? new Edit.RemoveBlock("nobody")
                            : new Edit.SetPins(
                                    block.name(),
                                    type.outward().getFirst().name(),
                                    type.outward().getFirst().ports().getFirst().name(),
                                    new PinSetting(
                                            any(List.of("LVCMOS18", "LVDS25", "LVCMOS33", "none")),
                                            random.nextInt(3) == 0 ? null : 5,
                                            any(List.of(PinSetting.Slew.values())),
                                            any(List.of(PinSetting.Pull.values())),
                                            null));
            case 11 ->
                    new Edit.AddDomain(
                            new ClockDomain("extra", any(List.of("oscillator", "pll.out0")), null));
            default -> new Edit.ChangeBus(bus.withAddressWidth(12 + random.nextInt(50)));
        };
    }
}
