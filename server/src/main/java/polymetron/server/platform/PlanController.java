package polymetron.server.platform;

import jakarta.annotation.Nullable;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.address.Address;
import polymetron.compare.Change;
import polymetron.compare.Comparison;
import polymetron.compare.ShapeDifference;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.elaborate.Field;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.finding.Consequences;
import polymetron.finding.Finding;
import polymetron.finding.FixAll;
import polymetron.library.BlockType;
import polymetron.library.Recipe;
import polymetron.library.Vlnv;
import polymetron.lookup.Place;
import polymetron.lookup.WhatIsAt;
import polymetron.paste.BlocksText;
import polymetron.paste.PasteEdits;
import polymetron.placement.Placement;
import polymetron.platform.Names;
import polymetron.platform.Platform;
import polymetron.server.store.Elaborations;
import polymetron.server.store.Libraries;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;
import polymetron.stream.StreamJoin;
import polymetron.stream.StreamNet;
import polymetron.wiring.Proposal;
import polymetron.wiring.Starter;
import polymetron.wiring.WiringPlan;

/** Plans that are shown before they happen, and questions about addresses. Nothing here changes a platform. */
@RestController
final class PlanController {
    private final PlatformStore store;
    private final Elaborations elaborations;
    private final Libraries libraries;

    PlanController(PlatformStore store, Elaborations elaborations, Libraries libraries) {
        this.store = store;
        this.elaborations = elaborations;
        this.libraries = libraries;
    }

    /**
     * @param add block that is to be added first; missing to wire what is there
     * @param paste blocks that are to be pasted first, as they were copied; missing for none
     * @param recipe name of a recipe that is to be added first; missing for none
     * @param off keys of the lines that are switched off
     * @param chosen index of the choice made, by key of the line
     */
    record PlanRequest(
            @Nullable NewBlock add,
            @Nullable String paste,
            @Nullable String recipe,
            @Nullable Set<String> off,
            @Nullable Map<String, Integer> chosen) {}

    /**
     * @param name wished name; missing for the type's own
     * @param part board part that it is to drive; missing for none
     * @param near address that its range is wished at; missing for the usual place
     * @param bus bus that it is to be on; missing for the one that fits
     */
    record NewBlock(
            Vlnv type,
            @Nullable String name,
            @Nullable String part,
            @Nullable Address near,
            @Nullable String bus,
            @Nullable Map<String, String> parameters) {}

    record PlanView(long revision, @Nullable String name, List<LineView> lines, Edit edit) {}

    record LineView(
            String key,
            String kind,
            String what,
            String why,
            boolean on,
            List<String> choices,
            @Nullable Integer chosen) {}

    @PostMapping("/api/platforms/{id}/plan")
    PlanView plan(@PathVariable UUID id, @RequestBody PlanRequest request) {
        StoredPlatform stored = store.read(id);
        Platform platform = stored.platform();
        List<Edit> edits = new ArrayList<>();
        String name = null;
        if (request.add() != null) {
            name = name(platform, request.add());
            edits.add(new Edit.AddBlock(name, request.add().type(), request.add().parameters()));
            if (request.add().part() != null) {
                edits.addAll(
                        Starter.takePart(
                                libraries.current(),
                                platform,
                                name,
                                request.add().type(),
                                request.add().part()));
            }
            platform =
                    new Editor(libraries.current()).apply(platform, new Edit.Several(null, edits));
        }
        String title = name == null ? "apply the wiring plan" : "add " + name;
        if (request.paste() != null) {
            BlocksText copied = BlocksText.read(request.paste());
            List<Edit> pasted = PasteEdits.of(platform, copied);
            edits.addAll(pasted);
            platform =
                    new Editor(libraries.current()).apply(platform, new Edit.Several(null, pasted));
            title =
                    copied.blocks().size() == 1
                            ? "paste " + copied.blocks().getFirst().name()
                            : "paste %s blocks".formatted(copied.blocks().size());
        }
        if (request.recipe() != null) {
            Recipe recipe =
                    libraries
                            .current()
                            .recipe(request.recipe())
                            .orElseThrow(
                                    () ->
                                            new RejectedEdit(
                                                    "recipe",
                                                    "there is no recipe %s"
                                                            .formatted(request.recipe())));
            List<Edit> added = Starter.edits(libraries.current(), platform, recipe);
            edits.addAll(added);
            platform =
                    new Editor(libraries.current()).apply(platform, new Edit.Several(null, added));
            title = "add recipe " + recipe.title();
        }
        Address near = request.add() == null ? null : request.add().near();
        String bus = request.add() == null ? null : request.add().bus();
        Set<String> off = request.off() == null ? Set.of() : request.off();
        Map<String, Integer> chosen = request.chosen() == null ? Map.of() : request.chosen();
        WiringPlan plan =
                WiringPlan.propose(
                        platform,
                        libraries.current(),
                        new WiringPlan.Decisions(off, chosen, near, bus));
        for (Proposal line : plan.proposals()) {
            if (!off.contains(line.key())) {
                edits.addAll(line.edits());
            }
        }
        return new PlanView(
                stored.revision(),
                name,
                plan.proposals().stream().map(line -> line(line, off, chosen)).toList(),
                new Edit.Several(title, edits));
    }

    private String name(Platform platform, NewBlock add) {
        BlockType type =
                libraries
                        .current()
                        .type(add.type())
                        .orElseThrow(
                                () ->
                                        new RejectedEdit(
                                                "type",
                                                "the library has no block type %s"
                                                        .formatted(add.type())));
        if (add.name() != null && !add.name().isBlank()) {
            return add.name().strip();
        }
        boolean partIsName = add.part() != null && Names.isName(add.part());
        return Names.free(
                partIsName ? add.part() : type.defaultName(),
                platform.blocks().stream().map(block -> block.name()).toList());
    }

    private static LineView line(Proposal line, Set<String> off, Map<String, Integer> chosen) {
        return new LineView(
                line.key(),
                line.kind().toString(),
                line.what(),
                line.why(),
                !off.contains(line.key()) && !line.edits().isEmpty(),
                line.choices().stream().map(Proposal.Choice::label).toList(),
                chosen.get(line.key()));
    }

    /** Settles all findings of a group, one after the other, as one edit to look at. */
    @GetMapping("/api/platforms/{id}/settle")
    OfferView settle(@PathVariable UUID id, @RequestParam String group) {
        StoredPlatform stored = store.read(id);
        return FixAll.of(libraries.current(), stored.platform(), group)
                .map(edit -> new OfferView(stored.revision(), words(edit), edit, null))
                .orElseGet(
                        () ->
                                new OfferView(
                                        stored.revision(),
                                        "settle these findings",
                                        null,
                                        "none of them has a fix that can be applied"));
    }

    private static String words(Edit edit) {
        return edit instanceof Edit.Several several
                ? several.edits().stream().map(Edit::describe).collect(Collectors.joining("; "))
                : edit.describe();
    }

    /**
     * @param revision the one that the edit is meant for; missing for the newest
     */
    record EditToTry(Edit edit, @Nullable Long revision) {}

    record ConsequenceView(String grade, String subject, String what) {}

    /** What an edit would break: findings that there would be after it and are not there now. */
    @PostMapping("/api/platforms/{id}/consequences")
    List<ConsequenceView> consequences(@PathVariable UUID id, @RequestBody EditToTry request) {
        if (request.edit() == null) {
            throw new RejectedEdit("edit", "the edit is missing");
        }
        // An edit that was made meanwhile may be this very one.
        return consequences(store.read(id, request.revision()).platform(), request.edit());
    }

    private List<ConsequenceView> consequences(Platform platform, Edit edit) {
        return views(Consequences.of(libraries.current(), platform, edit));
    }

    static List<ConsequenceView> views(List<Finding> findings) {
        return findings.stream()
                .map(
                        finding ->
                                new ConsequenceView(
                                        finding.grade().toString(),
                                        finding.subject(),
                                        finding.what()))
                .toList();
    }

    /**
     * @param problem why the value is not possible; missing when it is
     */
    record PreviewView(
            List<String> changes, List<ConsequenceView> breaks, @Nullable String problem) {}

    /** What another value of a parameter would change, and what it would break. */
    @GetMapping("/api/platforms/{id}/preview")
    PreviewView preview(
            @PathVariable UUID id,
            @RequestParam String block,
            @RequestParam String parameter,
            @RequestParam String value) {
        StoredPlatform stored = store.read(id);
        Edit edit = new Edit.SetParameter(block, parameter, value);
        Platform after;
        try {
            after = new Editor(libraries.current()).apply(stored.platform(), edit);
        } catch (RejectedEdit rejected) {
            // The user is still typing: that is an answer, not a failure.
            return new PreviewView(List.of(), List.of(), rejected.getMessage());
        }
        BlockShape before =
                elaborations.of(stored).block(block).map(ElaboratedBlock::shape).orElseThrow();
        return new PreviewView(
                ShapeDifference.of(
                        before,
                        new BlockShape(
                                before.type(), after.block(block).orElseThrow().parameters()),
                        parameter),
                consequences(stored.platform(), edit),
                null);
    }

    /** What another version of a block's type would change, and what it would break. */
    @GetMapping("/api/platforms/{id}/upgrade")
    PreviewView upgrade(
            @PathVariable UUID id, @RequestParam String block, @RequestParam String type) {
        Vlnv version = Vlnv.parse(type);
        StoredPlatform stored = store.read(id);
        Edit edit = new Edit.SetType(block, version);
        Platform after = new Editor(libraries.current()).apply(stored.platform(), edit);
        List<String> changes = new ArrayList<>();
        elaborations
                .of(stored)
                .block(block)
                .map(ElaboratedBlock::shape)
                .ifPresent(
                        before ->
                                changes.addAll(
                                        ShapeDifference.of(
                                                before,
                                                new BlockShape(
                                                        libraries
                                                                .current()
                                                                .type(version)
                                                                .orElseThrow(),
                                                        after.block(block)
                                                                .orElseThrow()
                                                                .parameters()),
                                                null)));
        for (Change change : Comparison.of(stored.platform(), after)) {
            if (change.after() == null) {
                changes.add("%s %s is dropped".formatted(change.sort(), change.subject()));
            }
        }
        return new PreviewView(changes, consequences(stored.platform(), edit), null);
    }

    /**
     * An edit that is shown before it happens.
     *
     * @param words what it does
     * @param problem why it is not possible; missing when it is
     */
    record OfferView(long revision, String words, @Nullable Edit edit, @Nullable String problem) {}

    /** What it takes to lead a stream source to a sink, each given as block.name. */
    @GetMapping("/api/platforms/{id}/join")
    OfferView join(@PathVariable UUID id, @RequestParam String source, @RequestParam String sink) {
        StoredPlatform stored = store.read(id);
        ElaboratedPlatform platform = elaborations.of(stored);
        StreamNet net = new StreamNet(platform);
        try {
            StreamJoin join =
                    StreamJoin.of(
                            net,
                            net.source(InterfaceRef.parse(source))
                                    .orElseThrow(() -> unknown("source", source)),
                            net.sink(InterfaceRef.parse(sink))
                                    .orElseThrow(() -> unknown("sink", sink)));
            String words =
                    "lead %s to %s%s"
                            .formatted(
                                    source,
                                    sink,
                                    join.parts().isEmpty()
                                            ? ""
                                            : " through " + String.join(" and ", join.parts()));
            return new OfferView(
                    stored.revision(), words, new Edit.Several(words, join.edits()), null);
        } catch (RejectedEdit impossible) {
            return new OfferView(
                    stored.revision(),
                    "lead %s to %s".formatted(source, sink),
                    null,
                    impossible.getMessage());
        }
    }

    private static RejectedEdit unknown(String field, String ref) {
        return new RejectedEdit(field, "there is no stream %s %s".formatted(field, ref));
    }

    /** Where a target would land on a bus when it is put near an address, with the adapters that it would get. */
    @GetMapping("/api/platforms/{id}/drop")
    OfferView drop(
            @PathVariable UUID id,
            @RequestParam String block,
            @RequestParam String busInterface,
            @RequestParam String bus,
            @RequestParam String near) {
        StoredPlatform stored = store.read(id);
        ElaboratedPlatform platform = elaborations.of(stored);
        InterfaceRef ref = new InterfaceRef(block, busInterface);
        SizedInterface form =
                platform.block(block)
                        .flatMap(each -> each.shape().busInterface(busInterface))
                        .orElseThrow(() -> unknown("target", ref.toString()));
        ElaboratedBus onto = platform.bus(bus).orElseThrow(() -> unknown("bus", bus));
        Optional<Address> base = Placement.baseNear(onto, ref, form, Address.parse(near));
        if (base.isEmpty()) {
            return new OfferView(
                    stored.revision(),
                    "put %s on %s".formatted(block, bus),
                    null,
                    "%s has no gap of %s".formatted(bus, Address.formatSize(form.sizeBytes())));
        }
        Edit edit = new Edit.Attach(block, busInterface, bus, base.get(), null);
        ElaboratedBus after =
                new Elaborator(libraries.current())
                        .elaborate(new Editor(libraries.current()).apply(stored.platform(), edit))
                        .bus(bus)
                        .orElseThrow();
        String adapters = String.join("; ", AdapterTexts.of(after, ref));
        return new OfferView(
                stored.revision(),
                "place %s at %s on %s%s"
                        .formatted(
                                block,
                                base.get(),
                                bus,
                                adapters.isEmpty() ? "" : ", adapter: " + adapters),
                edit,
                null);
    }

    record PlaceView(
            String initiator,
            String label,
            @Nullable String block,
            @Nullable String range,
            @Nullable String offset,
            List<String> registers,
            List<String> fields) {}

    record PlacesView(String address, List<PlaceView> places) {}

    /** What lives at an address, for each initiator. */
    @GetMapping("/api/platforms/{id}/at")
    PlacesView at(@PathVariable UUID id, @RequestParam String address) {
        long wanted = Address.parse(address).bits();
        ElaboratedPlatform platform = elaborations.of(store.read(id));
        return new PlacesView(
                Address.format(wanted),
                WhatIsAt.find(platform, wanted).stream().map(PlanController::place).toList());
    }

    private static PlaceView place(Place place) {
        boolean found = place.target() != null;
        return new PlaceView(
                place.space().initiator().ref().toString(),
                place.space().initiator().label(),
                found ? place.target().label() : null,
                found ? place.target().range().toString() : null,
                found ? "+0x%X".formatted(place.offset()) : null,
                place.hits().stream().map(Place.Hit::name).toList(),
                place.hits().stream()
                        .flatMap(hit -> hit.register().fields().stream())
                        .map(PlanController::field)
                        .toList());
    }

    private static String field(Field field) {
        return "%s %s".formatted(field.name(), field.bitRange());
    }
}
