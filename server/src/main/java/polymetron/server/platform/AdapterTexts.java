package polymetron.server.platform;

import java.util.List;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.InterfaceRef;

/** Adapters in words. */
final class AdapterTexts {
    private AdapterTexts() {}

    static List<String> of(ElaboratedBus bus, InterfaceRef ref) {
        return bus.adaptersOf(ref).stream()
                .map(
                        adapter ->
                                "%s %s → %s, %s, about %s LUT"
                                        .formatted(
                                                adapter.sort(),
                                                adapter.from(),
                                                adapter.to(),
                                                adapter.cycles() == 1
                                                        ? "1 cycle"
                                                        : adapter.cycles() + " cycles",
                                                adapter.lookupTables()))
                .toList();
    }
}
