package polymetron.clock;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.edit.Edit;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.BlockType;
import polymetron.library.Capability;
import polymetron.library.Library;
import polymetron.platform.ClockDomain;
import polymetron.platform.Names;

/** Turns settings of PLLs into what makes them: PLL blocks, and a clock domain for each wished frequency. */
public final class ClockWishes {
    private ClockWishes() {}

    /** The last block type that is one of the device's PLLs; null when the library has none. */
    static BlockType pllType(Library library) {
        return library.types().stream()
                .filter(type -> !type.provides(Capability.Pll.class).isEmpty())
                .reduce((before, after) -> after)
                .orElse(null);
    }

    /** PLLs of the device that no block uses yet; 0 when it has none or is not known. */
    public static int freePlls(ElaboratedPlatform platform) {
        if (platform.device() == null || platform.device().plls() == null) {
            return 0;
        }
        long used =
                platform.blocks().stream()
                        .filter(block -> PllBlock.of(platform, block).isPresent())
                        .count();
        return (int) Math.max(0, platform.device().plls().count() - used);
    }

    /**
     * @param source domain whose clock goes into the PLLs
     * @param plls one setting for each PLL
     * @return one edit for all of it
     */
    public static Edit edit(ElaboratedPlatform platform, Domain source, List<PllSetting> plls) {
        BlockType type = pllType(platform.library());
        Capability.Pll role = type.provides(Capability.Pll.class).getFirst();
        Set<String> names = new HashSet<>();
        platform.blocks().stream().map(ElaboratedBlock::name).forEach(names::add);
        List<Edit> edits = new ArrayList<>();
        for (PllSetting setting : plls) {
            String name = Names.free(type.defaultName(), names);
            names.add(name);
            edits.add(new Edit.AddBlock(name, type.identity(), null));
            edits.add(new Edit.SetDomain(name, type.clocks().getFirst().name(), source.name()));
            edits.addAll(PllBlock.edits(name, role, setting));
            for (int at = 0; at < setting.outputs().size(); at++) {
                PllWish wish = setting.outputs().get(at).wish();
                edits.add(
                        new Edit.AddDomain(
                                new ClockDomain(
                                        wish.name(),
                                        name + "." + type.clockOutputs().get(at).name(),
                                        source.domain().reset(),
                                        wish.hertz())));
            }
        }
        return new Edit.Several("make clocks from " + source.name(), edits);
    }
}
