package polymetron.software;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.address.AddressRange;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Pass;
import polymetron.elaborate.TargetRange;

/**
 * The programs of a platform. Processors that start at the same word of the same memory, and see it at the same address,
 * share a program; every other one has a program of its own. A memory that several programs use is divided: a program
 * that starts in it has it from its first instruction to where the next one starts, and what only has its variables there
 * gets an equal part of the last of these.
 *
 * @param all in the order of their first processors in the document
 */
public record Programs(List<SoftwareView> all) {
    public static final Pass<Programs> PASS = Pass.named("programs", Programs::find, Harts.PASS);

    private static final long PART_ALIGNMENT = 16;

    public static Programs of(ElaboratedPlatform platform) {
        return platform.result(PASS);
    }

    /** The program that a processor runs. */
    public Optional<SoftwareView> of(ElaboratedBlock processor) {
        return all.stream().filter(view -> view.runsOn(processor)).findFirst();
    }

    /** Names of the programs, each that of the processor that starts it. */
    public List<String> names() {
        return all.stream().map(SoftwareView::name).toList();
    }

    /** The program whose name, or one of whose processors, is called so. */
    public Optional<SoftwareView> named(String processor) {
        return all.stream()
                .filter(
                        view ->
                                view.harts().stream()
                                        .anyMatch(hart -> hart.block().name().equals(processor)))
                .findFirst();
    }

    private static Programs find(ElaboratedPlatform platform) {
        Map<Object, List<ElaboratedBlock>> groups = new LinkedHashMap<>();
        for (ElaboratedBlock block : platform.blocks()) {
            if (Harts.isProcessor(block)) {
                ProgramPlace.of(platform, block)
                        .ifPresent(
                                place ->
                                        groups.computeIfAbsent(
                                                        key(platform, place),
                                                        key -> new ArrayList<>())
                                                .add(block));
            }
        }
        List<SoftwareView> views = new ArrayList<>();
        for (List<ElaboratedBlock> group : groups.values()) {
            List<Hart> harts = new ArrayList<>();
            group.forEach(block -> harts.addAll(Harts.of(platform).of(block)));
            views.add(
                    new SoftwareView(
                            platform,
                            harts,
                            ProgramPlace.dataSide(platform, group.getFirst())
                                    .orElseThrow()
                                    .ranges(),
                            ProgramPlace.of(platform, group.getFirst()).orElseThrow(),
                            Map.of()));
        }
        return new Programs(divided(views));
    }

    /** What processors with one program have in common. */
    private static Object key(ElaboratedPlatform platform, ProgramPlace place) {
        return place.program() == null
                ? place.processor().name()
                : List.of(
                        place.program().block().name(),
                        place.program().range(),
                        Harts.of(platform).of(place.processor()).getFirst().resetVector(),
                        place.reading());
    }

    /**
     * One program's use of a memory.
     *
     * @param start offset of its first instruction; -1 when it only has variables there
     */
    private record Use(int program, long start) {}

    private static List<SoftwareView> divided(List<SoftwareView> views) {
        if (views.size() < 2) {
            return List.copyOf(views);
        }
        Map<ElaboratedBlock, List<Use>> uses = new LinkedHashMap<>();
        for (int index = 0; index < views.size(); index++) {
            SoftwareView view = views.get(index);
            TargetRange code = view.program();
            if (code != null) {
                long start = view.harts().getFirst().resetVector() - code.range().base();
                uses.computeIfAbsent(code.block(), block -> new ArrayList<>())
                        .add(new Use(index, start));
            }
            TargetRange data = view.dataMemory().orElse(null);
            if (data != null && (code == null || data.block() != code.block())) {
                uses.computeIfAbsent(data.block(), block -> new ArrayList<>())
                        .add(new Use(index, -1));
            }
        }
        List<Map<String, AddressRange>> parts = new ArrayList<>();
        views.forEach(view -> parts.add(new HashMap<>()));
        uses.forEach(
                (block, users) -> {
                    if (users.size() > 1) {
                        divide(block, users, parts);
                    }
                });
        List<SoftwareView> divided = new ArrayList<>();
        for (int index = 0; index < views.size(); index++) {
            divided.add(views.get(index).withParts(parts.get(index)));
        }
        return List.copyOf(divided);
    }

    private static void divide(
            ElaboratedBlock block, List<Use> users, List<Map<String, AddressRange>> parts) {
        long size =
                block.shape().busInterfaces().stream()
                        .filter(form -> form.isTarget() && form.isMemory())
                        .mapToLong(form -> form.sizeBytes())
                        .max()
                        .orElse(0);
        List<Use> starts =
                users.stream()
                        .filter(use -> use.start() >= 0)
                        .sorted(Comparator.comparingLong(Use::start))
                        .toList();
        List<Use> others = users.stream().filter(use -> use.start() < 0).toList();
        for (int at = 0; at + 1 < starts.size(); at++) {
            long from = at == 0 ? 0 : starts.get(at).start();
            part(block, starts.get(at), from, starts.get(at + 1).start(), parts);
        }
        // The last program that starts here, and those that only have variables, share the rest.
        long rest = starts.size() < 2 ? 0 : starts.getLast().start();
        long used = starts.isEmpty() ? 0 : starts.getLast().start() - rest;
        int count = others.size() + (starts.isEmpty() ? 0 : 1);
        long share = (size - rest - used) / count / PART_ALIGNMENT * PART_ALIGNMENT;
        long from = rest;
        if (!starts.isEmpty()) {
            part(block, starts.getLast(), rest, rest + used + share, parts);
            from = rest + used + share;
        }
        for (Use other : others) {
            part(block, other, from, from + share, parts);
            from += share;
        }
    }

    private static void part(
            ElaboratedBlock block,
            Use use,
            long from,
            long end,
            List<Map<String, AddressRange>> parts) {
        // A part of nothing is one that begins and ends at its first byte: nothing fits in.
        parts.get(use.program()).put(block.name(), new AddressRange(from, Math.max(from, end - 1)));
    }
}
