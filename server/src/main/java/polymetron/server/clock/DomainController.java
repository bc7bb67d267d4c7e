package polymetron.server.clock;

import jakarta.annotation.Nullable;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.clock.ClockReplan;
import polymetron.clock.PllBlock;
import polymetron.clock.PllWish;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Board;
import polymetron.library.ClockOutput;
import polymetron.library.ResetOutput;
import polymetron.quantity.Quantity;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Elaborations;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;

/** One clock domain, and other frequencies for it. Nothing here changes a platform. */
@RestController
final class DomainController {
    private final PlatformStore store;
    private final Elaborations elaborations;

    DomainController(PlatformStore store, Elaborations elaborations) {
        this.store = store;
        this.elaborations = elaborations;
    }

    @GetMapping("/api/platforms/{id}/domains/{name}")
    DomainDetails domain(
            @PathVariable UUID id,
            @PathVariable String name,
            @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = store.read(id, at);
        ElaboratedPlatform platform = elaborations.of(stored);
        Domain domain = domain(platform, name);
        PllBlock pll = ClockReplan.maker(platform, domain);
        return new DomainDetails(
                stored.revision(),
                domain.name(),
                domain.domain().clock(),
                domain.domain().reset(),
                domain.domain().wantedHz(),
                domain.frequencyHz() == 0
                        ? "no clock"
                        : Quantity.format(domain.frequencyHz(), "Hz"),
                pll == null ? null : pll.block().name(),
                clocks(platform),
                resets(platform),
                inputs(platform, domain),
                platform.buses().stream()
                        .filter(bus -> domain.name().equals(bus.bus().domain()))
                        .map(ElaboratedBus::name)
                        .toList());
    }

    private static Domain domain(ElaboratedPlatform platform, String name) {
        Domain domain = platform.domainIndex().get(name);
        if (domain == null) {
            throw new NotThere("there is no clock domain " + name);
        }
        return domain;
    }

    private static List<DomainDetails.Source> clocks(ElaboratedPlatform platform) {
        List<DomainDetails.Source> all = new ArrayList<>();
        if (platform.board() != null) {
            for (Board.Clock clock : platform.board().clocks()) {
                all.add(
                        new DomainDetails.Source(
                                clock.name(),
                                "%s, %s"
                                        .formatted(
                                                clock.name(),
                                                Quantity.format(clock.frequencyHz(), "Hz"))));
            }
        }
        for (ElaboratedBlock block : platform.blocks()) {
            for (ClockOutput output : block.shape().clockOutputs()) {
                String name = block.name() + "." + output.name();
                long hertz =
                        block.shape()
                                .outputHz(
                                        output,
                                        output.from() == null
                                                ? 0
                                                : platform.frequencyHz(block, output.from()));
                all.add(
                        new DomainDetails.Source(
                                name,
                                hertz == 0
                                        ? name
                                        : "%s, %s".formatted(name, Quantity.format(hertz, "Hz"))));
            }
        }
        return all;
    }

    private static List<DomainDetails.Source> resets(ElaboratedPlatform platform) {
        List<DomainDetails.Source> all = new ArrayList<>();
        if (platform.board() != null) {
            for (Board.Reset reset : platform.board().resets()) {
                all.add(
                        new DomainDetails.Source(
                                reset.name(),
                                "%s, active %s"
                                        .formatted(
                                                reset.name(), reset.activeLow() ? "low" : "high")));
            }
        }
        for (ElaboratedBlock block : platform.blocks()) {
            for (ResetOutput output : block.type().resetOutputs()) {
                String name = block.name() + "." + output.name();
                all.add(new DomainDetails.Source(name, name));
            }
        }
        return all;
    }

    private static List<DomainDetails.Input> inputs(ElaboratedPlatform platform, Domain domain) {
        List<DomainDetails.Input> all = new ArrayList<>();
        for (ElaboratedBlock block : platform.blocks()) {
            List<String> ports =
                    block.block().domains().entrySet().stream()
                            .filter(entry -> entry.getValue().equals(domain.name()))
                            .map(Map.Entry::getKey)
                            .toList();
            if (!ports.isEmpty()) {
                all.add(new DomainDetails.Input(block.name(), ports));
            }
        }
        return all;
    }

    /**
     * @param hertz frequency that is requested
     * @param tolerancePpm error that is good enough, in millionths
     */
    record ReplanRequest(String domain, long hertz, double tolerancePpm) {}

    /** Settings of the PLL behind a domain for another frequency of it, best first. */
    @PostMapping("/api/platforms/{id}/clocks/replan")
    ClocksView.WishPlanView replan(@PathVariable UUID id, @RequestBody ReplanRequest request) {
        StoredPlatform stored = store.read(id);
        ElaboratedPlatform platform = elaborations.of(stored);
        Domain domain = platform.domainIndex().get(String.valueOf(request.domain()));
        if (domain == null) {
            throw new RejectedEdit("domain", "there is no clock domain " + request.domain());
        }
        try {
            new PllWish(domain.name(), request.hertz(), request.tolerancePpm());
        } catch (IllegalArgumentException wrong) {
            throw new RejectedEdit("hertz", wrong.getMessage());
        }
        ClockReplan plan =
                ClockReplan.of(platform, domain, request.hertz(), request.tolerancePpm());
        return new ClocksView.WishPlanView(
                stored.revision(),
                plan.obstacle() == null && plan.settings().isEmpty()
                        ? "no setting of %s makes that with its other clocks"
                                .formatted(plan.pll().block().name())
                        : plan.obstacle(),
                false,
                plan.settings().stream()
                        .map(
                                setting ->
                                        ClocksView.candidate(
                                                List.of(setting),
                                                plan.edit(domain, request.hertz(), setting)))
                        .toList());
    }
}
