package polymetron.server.platform;

import jakarta.annotation.Nullable;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.lookup.WhereIs;
import polymetron.placement.Move;
import polymetron.placement.PlacementPlan;
import polymetron.placement.PlacementWish;
import polymetron.placement.PlatformPlacement;
import polymetron.placement.RangeEdits;
import polymetron.placement.Unplaceable;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Elaborations;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;

/** Ranges as initiators see them, and changes of them that are looked at before they are made. */
@RestController
final class RangeController {
    private static final int MOST_FOUND = 200;

    private final PlatformStore store;
    private final Elaborations elaborations;

    RangeController(PlatformStore store, Elaborations elaborations) {
        this.store = store;
        this.elaborations = elaborations;
    }

    /** What one initiator sees, with the way to each target and what a read costs. */
    @GetMapping("/api/platforms/{id}/space")
    SpaceView space(
            @PathVariable UUID id,
            @RequestParam String initiator,
            @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = store.read(id, at);
        ElaboratedPlatform platform = elaborations.of(stored);
        return platform.space(InterfaceRef.parse(initiator))
                .map(space -> SpaceViews.of(stored.revision(), platform, space))
                .orElseThrow(() -> new NotThere("there is no initiator " + initiator));
    }

    /**
     * @param name block, or block and register
     */
    record FoundView(String name, String initiator, String label, String address) {}

    /** Where a block or register is for each initiator; the beginning of a name will do. */
    @GetMapping("/api/platforms/{id}/where")
    List<FoundView> where(@PathVariable UUID id, @RequestParam String name) {
        if (name.isBlank()) {
            throw new RejectedEdit("name", "say which block or register");
        }
        return WhereIs.find(elaborations.of(store.read(id)), name, MOST_FOUND).stream()
                .map(
                        found ->
                                new FoundView(
                                        found.name(),
                                        found.space().initiator().ref().toString(),
                                        found.space().initiator().label(),
                                        Address.format(found.address())))
                .toList();
    }

    /**
     * @param following what else changes, because it points into memory that moves, in words
     */
    record PlacementView(
            long revision,
            List<MoveView> moves,
            List<GrowthView> windows,
            List<UnplaceableView> unplaceable,
            List<String> following,
            Edit edit) {}

    record MoveView(String ref, String label, String bus, @Nullable String from, String to) {}

    /** A bridge's window that grows, with room for more behind it. */
    record GrowthView(String bridge, String from, String to) {}

    /**
     * A range that has no place.
     *
     * @param why what is in the way, in words
     * @param bits address bits with which its bus would have one; missing when that does not help
     */
    record UnplaceableView(String label, String bus, String why, @Nullable Integer bits) {}

    /**
     * What automatic placement would move; held ranges stay.
     *
     * @param fewest whether only what is in the way moves
     * @param stay ranges that are not to move, each as block.interface
     */
    @GetMapping("/api/platforms/{id}/placement")
    PlacementView placement(
            @PathVariable UUID id,
            @RequestParam(required = false) @Nullable Boolean fewest,
            @RequestParam(required = false) @Nullable List<String> stay) {
        StoredPlatform stored = store.read(id);
        ElaboratedPlatform platform = elaborations.of(stored);
        Set<InterfaceRef> staying = new HashSet<>();
        for (String ref : stay == null ? List.<String>of() : stay) {
            staying.add(InterfaceRef.parse(ref));
        }
        PlatformPlacement placement =
                PlatformPlacement.of(
                        platform, new PlacementWish(Boolean.TRUE.equals(fewest), staying));
        return new PlacementView(
                stored.revision(),
                placement.plans().stream()
                        .flatMap(plan -> plan.moves().stream().map(move -> move(plan, move)))
                        .toList(),
                placement.windows().stream()
                        .map(
                                growth ->
                                        new GrowthView(
                                                growth.bridge().name(),
                                                Address.formatSize(growth.from()),
                                                Address.formatSize(growth.to())))
                        .toList(),
                placement.plans().stream()
                        .flatMap(
                                plan ->
                                        plan.unplaceable().stream()
                                                .map(left -> unplaceable(plan, left)))
                        .toList(),
                placement.followers(platform).stream().map(Edit::describe).toList(),
                placement.asEdit(platform));
    }

    private static MoveView move(PlacementPlan plan, Move move) {
        return new MoveView(
                move.target().ref().toString(),
                move.target().label(),
                plan.bus().name(),
                move.from() == null ? null : move.from().toString(),
                move.to().toString());
    }

    private static UnplaceableView unplaceable(PlacementPlan plan, Unplaceable left) {
        return new UnplaceableView(
                left.label(),
                plan.bus().name(),
                left.why(plan.bus()),
                left.neededAddressBits(plan.bus()).orElse(null));
    }

    /**
     * A change of ranges.
     *
     * @param change end, snap, swap, up or down
     * @param targets targets that it is about, each as block.interface
     * @param amount last address for end, wished base for snap, distance for up and down; missing for swap
     */
    record RangeRequest(String change, List<String> targets, @Nullable String amount) {}

    /**
     * @param edit the change as an edit; nothing happens until it is sent
     */
    record RangeOffer(long revision, String words, Edit edit) {}

    /** Works a change of ranges out, or says what does not go. */
    @PostMapping("/api/platforms/{id}/ranges")
    RangeOffer ranges(@PathVariable UUID id, @RequestBody RangeRequest request) {
        StoredPlatform stored = store.read(id);
        Edit edit = edit(new RangeEdits(elaborations.of(stored)), request);
        return new RangeOffer(stored.revision(), edit.describe(), edit);
    }

    private static Edit edit(RangeEdits edits, RangeRequest request) {
        List<InterfaceRef> refs =
                request.targets() == null
                        ? List.of()
                        : request.targets().stream().map(InterfaceRef::parse).toList();
        String change = request.change() == null ? "" : request.change();
        int needed = change.equals("swap") ? 2 : 1;
        if (refs.size() < needed) {
            throw new RejectedEdit(
                    "targets", needed == 2 ? "choose two ranges to swap" : "choose a range");
        }
        if (request.amount() == null && !change.equals("swap")) {
            throw new RejectedEdit("amount", "give an address or a distance");
        }
        Address value = request.amount() == null ? null : Address.parse(request.amount());
        return switch (change) {
            case "end" -> edits.endAt(refs.getFirst(), value);
            case "snap" -> edits.snap(refs.getFirst(), value);
            case "swap" -> edits.swap(refs.getFirst(), refs.get(1));
            case "up", "down" -> edits.shift(refs, value, change.equals("up"));
            default -> throw new RejectedEdit("change", "a change is end, snap, swap, up or down");
        };
    }
}
