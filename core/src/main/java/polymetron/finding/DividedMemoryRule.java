package polymetron.finding;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import polymetron.address.AddressRange;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.software.SoftwareView;

/** Several programs divide a memory. */
final class DividedMemoryRule extends PlainRule {
    DividedMemoryRule() {
        super(
                "memory-divided",
                Grade.NOTE,
                "Memory divided among programs",
                "Each processor with a start of its own has a program of its own, and its linker"
                    + " script only its part of the memory. Loading one program leaves the others"
                    + " as they are.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Map<String, List<String>> parts = new LinkedHashMap<>();
        for (SoftwareView view : SoftwareView.all(platform)) {
            for (TargetRange memory : view.memories()) {
                AddressRange part = view.part(memory);
                if (view.parts().containsKey(memory.block().name()) && part != null) {
                    parts.computeIfAbsent(memory.block().name(), name -> new ArrayList<>())
                            .add("%s has %s".formatted(view.name(), part));
                }
            }
        }
        parts.forEach(
                (memory, shares) ->
                        report.accept(
                                finding(
                                        memory,
                                        "%s is divided: %s"
                                                .formatted(memory, String.join(", ", shares)),
                                        List.of())));
    }
}
