package polymetron.server.clock;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.clock.ClockWishes;
import polymetron.clock.PllPlan;
import polymetron.clock.PllSearch;
import polymetron.clock.PllSetting;
import polymetron.clock.PllWish;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Device;
import polymetron.platform.Names;
import polymetron.server.store.Elaborations;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;

/** Clocks, and plans for more of them. Nothing here changes a platform. */
@RestController
final class ClockController {
    private static final int MOST_CANDIDATES = 6;

    private final PlatformStore store;
    private final Elaborations elaborations;

    ClockController(PlatformStore store, Elaborations elaborations) {
        this.store = store;
        this.elaborations = elaborations;
    }

    /**
     * @param source clock domain whose clock goes into the PLLs
     */
    record WishRequest(String source, List<Wish> wishes) {}

    record Wish(String name, long hertz, double tolerancePpm) {}

    @GetMapping("/api/platforms/{id}/clocks")
    ClocksView clocks(@PathVariable UUID id, @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = store.read(id, at);
        return ClocksViews.of(stored.revision(), elaborations.of(stored));
    }

    /** Ways to make wanted clocks with the PLLs that are free, best first. */
    @PostMapping("/api/platforms/{id}/clocks/plan")
    ClocksView.WishPlanView plan(@PathVariable UUID id, @RequestBody WishRequest request) {
        StoredPlatform stored = store.read(id);
        ElaboratedPlatform platform = elaborations.of(stored);
        Domain source = platform.domainIndex().get(request.source());
        if (source == null) {
            throw new RejectedEdit(
                    "source", "there is no clock domain %s".formatted(request.source()));
        }
        List<PllWish> wishes = wishes(platform, request.wishes());
        Device.Plls limits = platform.device() == null ? null : platform.device().plls();
        int free = ClockWishes.freePlls(platform);
        if (limits == null || free == 0) {
            return none(stored, "the device has no PLL that is free");
        }
        PllSearch search = new PllSearch(limits, source.frequencyHz(), wishes);
        if (search.obstacle().isPresent()) {
            return none(stored, search.obstacle().get());
        }
        List<List<PllSetting>> ways = new ArrayList<>();
        PllPlan plan = PllPlan.of(limits, source.frequencyHz(), wishes, free).orElse(null);
        boolean several = plan != null && plan.plls().size() > 1;
        if (several) {
            ways.add(plan.plls());
        }
        // Of settings that only differ before the oscillator the first is the best.
        Set<Double> oscillators = new HashSet<>();
        search.candidates(Integer.MAX_VALUE).stream()
                .filter(setting -> oscillators.add(setting.vcoHz()))
                .limit(MOST_CANDIDATES)
                .forEach(setting -> ways.add(List.of(setting)));
        if (ways.isEmpty()) {
            return none(
                    stored,
                    "%s clocks need more outputs than %s free PLLs have"
                            .formatted(wishes.size(), free));
        }
        return new ClocksView.WishPlanView(
                stored.revision(),
                null,
                several,
                ways.stream()
                        .map(
                                way ->
                                        ClocksView.candidate(
                                                way, ClockWishes.edit(platform, source, way)))
                        .toList());
    }

    private static ClocksView.WishPlanView none(StoredPlatform stored, String obstacle) {
        return new ClocksView.WishPlanView(stored.revision(), obstacle, false, List.of());
    }

    private static List<PllWish> wishes(ElaboratedPlatform platform, List<Wish> asked) {
        if (asked == null || asked.isEmpty() || asked.size() > PllPlan.MOST_WISHES) {
            throw new RejectedEdit(
                    "wishes", "between 1 and %s clocks are planned".formatted(PllPlan.MOST_WISHES));
        }
        Set<String> names = new HashSet<>(platform.domainIndex().keySet());
        List<PllWish> wishes = new ArrayList<>();
        for (Wish wish : asked) {
            if (!Names.isName(wish.name())) {
                throw new RejectedEdit("wishes", "'%s': %s".formatted(wish.name(), Names.RULE));
            }
            if (!names.add(wish.name())) {
                throw new RejectedEdit(
                        "wishes", "there is a clock domain %s already".formatted(wish.name()));
            }
            try {
                wishes.add(new PllWish(wish.name(), wish.hertz(), wish.tolerancePpm()));
            } catch (IllegalArgumentException wrong) {
                throw new RejectedEdit("wishes", wrong.getMessage());
            }
        }
        return wishes;
    }
}
