package polymetron.server.fit;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import polymetron.address.Address;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.fit.Amount;
import polymetron.fit.DeviceFit;
import polymetron.fit.MemoryFit;
import polymetron.fit.MemoryUse;
import polymetron.fit.Tile;
import polymetron.library.Device;

/** Makes the view of a fit. */
final class FitViews {
    private static final int[] WIDTHS = {8, 16, 32, 64};

    private final ElaboratedPlatform platform;
    private final DeviceFit fit;

    FitViews(ElaboratedPlatform platform, DeviceFit fit) {
        this.platform = platform;
        this.fit = fit;
    }

    FitView view(long revision) {
        Device device = fit.device();
        String bigger = fit.fits() ? null : fit.bigger(platform).map(Device::name).orElse(null);
        return new FitView(
                revision,
                device.name(),
                device.family(),
                device.packageName(),
                logic(device),
                fit.fits(),
                bigger,
                memory(fit.memory()),
                fit.amounts().stream().map(FitViews::amount).toList(),
                advice(bigger));
    }

    /** What the device's logic is, and what that means for the estimates. */
    private static String logic(Device device) {
        Device.Logic logic = device.logic();
        List<String> said = new ArrayList<>();
        said.add("The device has %s.".formatted(logic.words()));
        said.add(
                "Estimates count tables of %s inputs as generic synthesis makes them%s."
                        .formatted(
                                DeviceFit.COUNTED_INPUTS,
                                logic.inputs() < DeviceFit.COUNTED_INPUTS
                                        ? ", and %s %% more for those of %s"
                                                .formatted(
                                                        DeviceFit.SMALLER_TABLES - 100,
                                                        logic.inputs())
                                        : ""));
        if (logic.carryChains()) {
            said.add("Adders on carry chains take less.");
        }
        return String.join(" ", said);
    }

    private FitView.MemoryFitView memory(MemoryFit memory) {
        Device.MemoryBlock sort = memory.sort();
        boolean halves = sort != null && sort.halves();
        return new FitView.MemoryFitView(
                sort == null ? "no memory blocks" : sort.name(),
                sort == null
                        ? List.of()
                        : sort.shapes().stream()
                                .map(each -> "%s × %s".formatted(each.depth(), each.width()))
                                .toList(),
                halves,
                memory.blocks(),
                memory.blocksUsed(),
                memory.bits(),
                memory.bitsUsed(),
                memory.units(),
                memory.unitsUsed(),
                memory.fits(),
                memory.filled().stream().map(each -> tile(memory, each)).toList(),
                memory.uses().stream().map(use -> use(use, halves)).toList(),
                IntStream.of(WIDTHS).mapToObj(width -> largest(memory, width)).toList());
    }

    private static FitView.TileView tile(MemoryFit memory, MemoryFit.Filled filled) {
        Tile tile = filled.tile();
        return new FitView.TileView(
                filled.use().label(),
                filled.use().block(),
                (int) (tile.usedBits() * 100 / memory.unitBits()),
                "%s × %s".formatted(tile.shape().depth(), tile.shape().width()),
                "words %s–%s, bits %s:%s"
                        .formatted(
                                tile.firstWord(),
                                tile.firstWord() + tile.words() - 1,
                                tile.firstBit() + tile.bits() - 1,
                                tile.firstBit()));
    }

    private static FitView.UseView use(MemoryUse use, boolean halves) {
        return new FitView.UseView(
                use.label(),
                use.block(),
                use.memory().depth(),
                use.memory().width(),
                "%,d".formatted(use.memory().bits()).replace(',', ' '),
                use.place().toString(),
                switch (use.place()) {
                    case BLOCKS -> units(use.units(), halves);
                    case DISTRIBUTED -> "%s lookup tables".formatted(use.lookupTables());
                    case NOWHERE -> "—";
                },
                use.place() == MemoryUse.Place.BLOCKS
                        ? "+" + units(use.doubled() - use.units(), halves)
                        : "—");
    }

    private static String units(long count, boolean halves) {
        String one = halves ? "half" : "block";
        String many = halves ? "halves" : "blocks";
        return count + " " + (count == 1 ? one : many);
    }

    private static FitView.LargestView largest(MemoryFit memory, int width) {
        long words = memory.deepest(width, true);
        return new FitView.LargestView(width, words, Address.formatSize(words * width / 8));
    }

    private static FitView.AmountView amount(Amount amount) {
        return new FitView.AmountView(
                amount.name(),
                amount.used(),
                amount.available(),
                amount.uncertaintyPercent(),
                amount.fits(),
                amount.surelyFits(),
                amount.shares().stream()
                        .map(each -> new FitView.ShareView(each.who(), each.block(), each.count()))
                        .toList());
    }

    /** What to change, most effective first. */
    private List<String> advice(String bigger) {
        List<String> advice = new ArrayList<>();
        if (!fit.memory().fits()) {
            fit.memory().uses().stream()
                    .filter(use -> use.units() > 0)
                    .sorted((a, b) -> Long.compare(b.units(), a.units()))
                    .limit(3)
                    .forEach(
                            use ->
                                    advice.add(
                                            "%s takes %s of %s; make it smaller, or move it to external memory"
                                                    .formatted(
                                                            use.label(),
                                                            use.units(),
                                                            fit.memory().units())));
        }
        for (Amount amount : fit.amounts()) {
            if (!amount.fits() && !amount.shares().isEmpty()) {
                Amount.Share most = amount.shares().getFirst();
                advice.add(
                        "%s: %s too many; %s alone takes %s"
                                .formatted(
                                        amount.name(),
                                        amount.used() - amount.available(),
                                        most.who(),
                                        most.count()));
            }
        }
        if (!fit.fits()) {
            advice.add(
                    bigger == null
                            ? "no other device of the family %s has room for it"
                                    .formatted(fit.device().family())
                            : "it would fit %s, the next device of the family".formatted(bigger));
        }
        return advice;
    }
}
