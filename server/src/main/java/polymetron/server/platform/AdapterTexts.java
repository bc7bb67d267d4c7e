package polymetron.server.platform;

import java.util.List;
import polymetron.bus.Adapter;
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
                                                effect(adapter),
                                                adapter.lookupTables()))
                .toList();
    }

    private static String effect(Adapter adapter) {
        if (adapter.sort() == Adapter.Sort.CLOCK) {
            return "two flip-flops each way";
        }
        if (adapter.parts() > 1) {
            return adapter.parts() + " accesses for one";
        }
        return adapter.cycles() == 1 ? "1 cycle" : adapter.cycles() + " cycles";
    }
}
