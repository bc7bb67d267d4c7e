package polymetron.server.platform;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import polymetron.address.Address;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;
import polymetron.library.ParameterType;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Elaborations;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.StoredPlatform;
import polymetron.software.SoftwareView;

/** Parts of a platform in more detail than its picture has. */
@RestController
final class SheetController {
    private static final int MOST_FOUND = 30;

    private final PlatformStore store;
    private final Elaborations elaborations;

    SheetController(PlatformStore store, Elaborations elaborations) {
        this.store = store;
        this.elaborations = elaborations;
    }

    /** Everything about one block. */
    @GetMapping("/api/platforms/{id}/blocks/{name}")
    BlockSheet block(
            @PathVariable UUID id,
            @PathVariable String name,
            @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = store.read(id, at);
        return BlockSheets.of(stored, elaborations.of(stored), name)
                .orElseThrow(() -> new NotThere("there is no block named %s".formatted(name)));
    }

    /** The address spaces side by side, and free space. */
    @GetMapping("/api/platforms/{id}/addresses")
    AddressesView addresses(
            @PathVariable UUID id, @RequestParam(required = false) @Nullable Long at) {
        StoredPlatform stored = store.read(id, at);
        return AddressesViews.of(stored, elaborations.of(stored));
    }

    /**
     * A parameter of a block.
     *
     * @param shown its value, with its unit
     */
    record FoundParameter(String block, String name, String title, String shown) {}

    /** Parameters whose block, name, title and value contain all words of a text. */
    @GetMapping("/api/platforms/{id}/parameters")
    List<FoundParameter> parameters(@PathVariable UUID id, @RequestParam String text) {
        ElaboratedPlatform platform = elaborations.of(store.read(id));
        List<String> words = words(text);
        List<FoundParameter> found = new ArrayList<>();
        for (ElaboratedBlock block : platform.blocks()) {
            for (ParameterType parameter : block.type().parameters()) {
                if (found.size() == MOST_FOUND) {
                    return found;
                }
                String shown =
                        BlockSheets.shown(
                                parameter, block.shape().parameters().get(parameter.name()));
                String all =
                        "%s %s %s %s"
                                .formatted(block.name(), parameter.name(), parameter.title(), shown)
                                .toLowerCase(Locale.ROOT);
                if (words.stream().allMatch(all::contains)) {
                    found.add(
                            new FoundParameter(
                                    block.name(), parameter.name(), parameter.title(), shown));
                }
            }
        }
        return found;
    }

    private static List<String> words(String text) {
        return Arrays.stream(text.toLowerCase(Locale.ROOT).split("[\\s.]+"))
                .filter(word -> !word.isEmpty())
                .toList();
    }

    /** A register and where software finds it. */
    record FoundRegister(String block, String name, @Nullable String address) {}

    /** Registers whose block and name contain all words of a text, in address order. */
    @GetMapping("/api/platforms/{id}/registers")
    List<FoundRegister> registers(@PathVariable UUID id, @RequestParam String text) {
        ElaboratedPlatform platform = elaborations.of(store.read(id));
        List<String> words = words(text);
        List<FoundRegister> found = new ArrayList<>();
        for (TargetRange target : SoftwareView.of(platform).targets()) {
            for (Register register : target.registers()) {
                String name =
                        "%s %s".formatted(target.label(), register.name()).toLowerCase(Locale.ROOT);
                if (found.size() < MOST_FOUND && words.stream().allMatch(name::contains)) {
                    found.add(
                            new FoundRegister(
                                    target.block().name(),
                                    register.name(),
                                    Address.format(target.range().base() + register.offset())));
                }
            }
        }
        return found;
    }
}
