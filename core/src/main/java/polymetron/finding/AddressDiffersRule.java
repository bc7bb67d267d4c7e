package polymetron.finding;

import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import polymetron.address.Address;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.lookup.Elsewhere;

/** Initiators see one memory at different addresses. */
final class AddressDiffersRule extends PlainRule {
    AddressDiffersRule() {
        super(
                "target-elsewhere",
                Grade.NOTE,
                "Memory at different addresses",
                "A pointer that one of them hands to the other means something else there. Software"
                        + " has to translate it.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        new Elsewhere(platform)
                .all().entrySet().stream()
                        .filter(entry -> entry.getValue().getFirst().target().form().isMemory())
                        .sorted(Comparator.comparing(entry -> entry.getKey()))
                        .forEach(
                                entry ->
                                        report.accept(
                                                finding(
                                                        entry.getKey(),
                                                        words(entry.getValue()),
                                                        List.of())));
    }

    private static String words(List<Elsewhere.Sighting> sightings) {
        TargetRange target = sightings.getFirst().target();
        return "%s is %s"
                .formatted(
                        target.label(),
                        sightings.stream()
                                .map(
                                        each ->
                                                "at %s for %s"
                                                        .formatted(
                                                                Address.format(
                                                                        each.target()
                                                                                .range()
                                                                                .base()),
                                                                each.space().initiator().label()))
                                .collect(Collectors.joining(", ")));
    }
}
