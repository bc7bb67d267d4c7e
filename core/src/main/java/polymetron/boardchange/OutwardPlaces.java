package polymetron.boardchange;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import polymetron.board.Parts;
import polymetron.boardchange.BoardChange.Outcome;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.OutwardLink;
import polymetron.library.Board;
import polymetron.library.Device;

/** Board parts and pins of outward interfaces. */
final class OutwardPlaces {
    private final Draft draft;
    private final Set<String> taken = new HashSet<>();

    OutwardPlaces(Draft draft) {
        this.draft = draft;
    }

    void plan() {
        List<OutwardLink> bound =
                draft.before().outward().stream().filter(link -> link.binding() != null).toList();
        List<OutwardLink> moving = new ArrayList<>();
        // Parts of the same name first, so that no other block gets them.
        for (OutwardLink link : bound) {
            if (link.binding().part() != null && !staysOnPart(link)) {
                moving.add(link);
            }
        }
        draft.apply(
                moving.stream()
                        .<Edit>map(link -> new Edit.Unbind(link.block().name(), link.form().name()))
                        .toList());
        moving.forEach(this::elsewhere);
        for (OutwardLink link : bound) {
            if (link.binding().part() == null && !link.binding().pins().isEmpty()) {
                pins(link);
            }
        }
    }

    private boolean staysOnPart(OutwardLink link) {
        Board.Part same = draft.to().part(link.binding().part()).orElse(null);
        OutwardLink now = now(link.ref());
        boolean stays =
                same != null
                        && link.form().type().partKinds().contains(same.kind())
                        && Parts.differences(now, same).isEmpty()
                        && taken.add(same.name());
        if (stays) {
            draft.say(Outcome.STAYS, link.ref().toString(), "on part " + same.name());
        }
        return stays;
    }

    /** Another part of a kind that it drives, with the parameters that the part needs. */
    private void elsewhere(OutwardLink link) {
        String ref = link.ref().toString();
        String old = link.binding().part();
        for (Board.Part part : candidates(link)) {
            List<Edit> edits = new ArrayList<>();
            if (!Parts.differences(now(link.ref()), part).isEmpty()) {
                edits.addAll(
                        Parts.parameterEdits(
                                link.block().name(), link.block().type().identity(), part));
            }
            edits.add(new Edit.BindPart(link.block().name(), link.form().name(), part.name()));
            ElaboratedPlatform after = draft.tried(edits);
            if (after != null && Parts.differences(of(after, link.ref()), part).isEmpty()) {
                taken.add(part.name());
                draft.apply(edits);
                draft.say(
                        Outcome.CHANGES,
                        ref,
                        (part.name().equals(old)
                                        ? "on part %s".formatted(old)
                                        : "on part %s instead of %s".formatted(part.name(), old))
                                + parameters(edits)
                                + settings(link));
                return;
            }
        }
        draft.say(
                Outcome.LOST,
                ref,
                "%s has nothing for part %s".formatted(draft.to().title(), old) + settings(link));
    }

    private List<Board.Part> candidates(OutwardLink link) {
        List<Board.Part> parts = new ArrayList<>();
        for (Board.Part part : draft.to().parts()) {
            if (link.form().type().partKinds().contains(part.kind())
                    && !taken.contains(part.name())) {
                parts.add(part.name().equals(link.binding().part()) ? 0 : parts.size(), part);
            }
        }
        return parts;
    }

    private static String parameters(List<Edit> edits) {
        String set =
                edits.stream()
                        .filter(Edit.SetParameter.class::isInstance)
                        .map(Edit.SetParameter.class::cast)
                        .map(each -> "%s = %s".formatted(each.parameter(), each.value()))
                        .collect(Collectors.joining(", "));
        return set.isEmpty() ? "" : ", with " + set;
    }

    /** Electrical settings belong to the pins that they were made for. */
    private static String settings(OutwardLink link) {
        return link.binding().settings().isEmpty() ? "" : "; its pin settings are lost";
    }

    private void pins(OutwardLink link) {
        Device device = draft.now().device();
        Set<String> used = boardPins();
        List<String> missing = new ArrayList<>();
        for (List<String> lines : link.binding().pins().values()) {
            for (String pin : lines) {
                boolean free =
                        device == null
                                || device.hasPin(pin)
                                        && !used.contains(pin)
                                        && device.bankOf(pin)
                                                .filter(
                                                        bank ->
                                                                bank.configurationPins()
                                                                        .contains(pin))
                                                .isEmpty();
                if (!free) {
                    missing.add(pin);
                }
            }
        }
        String ref = link.ref().toString();
        if (missing.isEmpty()) {
            draft.say(Outcome.STAYS, ref, "on its pins");
            return;
        }
        draft.apply(List.of(new Edit.Unbind(link.block().name(), link.form().name())));
        draft.say(
                Outcome.LOST,
                ref,
                "%s %s not there or taken on %s"
                                .formatted(
                                        String.join(", ", missing),
                                        missing.size() == 1 ? "is" : "are",
                                        draft.to().title())
                        + settings(link));
    }

    /** What clocks, resets and parts of the board take. */
    private Set<String> boardPins() {
        Set<String> pins = new HashSet<>();
        draft.to().clocks().forEach(clock -> pins.add(clock.pin()));
        draft.to().resets().forEach(reset -> pins.add(reset.pin()));
        draft.to().parts().forEach(part -> part.signals().forEach(s -> pins.addAll(s.pins())));
        return pins;
    }

    private OutwardLink now(InterfaceRef ref) {
        return of(draft.now(), ref);
    }

    private static OutwardLink of(ElaboratedPlatform platform, InterfaceRef ref) {
        return platform.outward().stream()
                .filter(link -> link.ref().equals(ref))
                .findFirst()
                .orElseThrow();
    }
}
