package polymetron.elaborate;

import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import polymetron.library.BlockType;
import polymetron.library.Library;
import polymetron.library.Vlnv;
import polymetron.platform.Block;
import polymetron.platform.Platform;

/** The blocks of a document with their types worked out. Blocks of one type with equal parameters share one shape. */
final class BlockIndex {
    private record ShapeKey(Vlnv type, Map<String, String> parameters) {}

    private final Library library;
    private final Dangling dangling;
    private final Set<String> domainNames = new HashSet<>();
    private final Map<ShapeKey, BlockShape> shapes = new HashMap<>();
    private final Map<String, ElaboratedBlock> blocks = new LinkedHashMap<>();

    private BlockIndex(Library library, Platform platform, Dangling dangling) {
        this.library = library;
        this.dangling = dangling;
        platform.domains().forEach(domain -> domainNames.add(domain.name()));
        platform.blocks().forEach(this::resolveBlock);
    }

    /** Blocks of known type by name, in the order of the document. */
    static Map<String, ElaboratedBlock> of(Library library, Platform platform, Dangling dangling) {
        return Ordered.copyOf(new BlockIndex(library, platform, dangling).blocks);
    }

    private void resolveBlock(Block block) {
        Optional<BlockType> type = library.type(block.type());
        if (type.isEmpty()) {
            dangling.missing(
                    block.name(),
                    DanglingReference.Sort.BLOCK_TYPE,
                    null,
                    "the library has no block type %s".formatted(block.type()));
            return;
        }
        BlockShape shape =
                shapes.computeIfAbsent(
                        new ShapeKey(block.type(), block.parameters()),
                        key -> new BlockShape(type.get(), key.parameters()));
        for (String parameter : block.parameters().keySet()) {
            if (!shape.parameters().containsKey(parameter)) {
                dangling.missing(
                        block.name(),
                        DanglingReference.Sort.PARAMETER,
                        parameter,
                        "%s has no parameter %s".formatted(type.get().title(), parameter));
            }
        }
        block.domains()
                .forEach(
                        (port, domain) -> {
                            if (!domainNames.contains(domain)) {
                                dangling.missing(
                                        block.name(),
                                        DanglingReference.Sort.INPUT_DOMAIN,
                                        port,
                                        "there is no clock domain %s".formatted(domain));
                            }
                        });
        blocks.put(block.name(), new ElaboratedBlock(block, shape));
    }
}
