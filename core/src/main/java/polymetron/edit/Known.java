package polymetron.edit;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import polymetron.library.BlockType;
import polymetron.library.BusInterfaceType;
import polymetron.library.InterruptPort;
import polymetron.library.Library;
import polymetron.library.OutwardInterface;
import polymetron.library.StreamType;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.Platform;

/**
 * A platform that is being edited, and what can be named in it. What is not there is refused with the field of the edit
 * that names it, and with what would be right.
 */
record Known(Library library, Platform platform) {
    /**
     * @param field field of the edit
     * @throws RejectedEdit when the condition does not hold
     */
    static void require(boolean condition, String field, String message) {
        if (!condition) {
            throw new RejectedEdit(field, message);
        }
    }

    /** The same library with a platform that an edit has made. */
    Known with(Platform next) {
        return new Known(library, next);
    }

    Block block(String name) {
        return platform.block(name)
                .orElseThrow(
                        () ->
                                new RejectedEdit(
                                        "block", "there is no block named %s".formatted(name)));
    }

    Bus bus(String name) {
        return platform.bus(name)
                .orElseThrow(
                        () -> new RejectedEdit("bus", "there is no bus named %s".formatted(name)));
    }

    BlockType type(String block) {
        Block known = block(block);
        return library.type(known.type())
                .orElseThrow(
                        () ->
                                new RejectedEdit(
                                        "block",
                                        "%s is of type %s, which the library does not have"
                                                .formatted(block, known.type())));
    }

    BusInterfaceType busInterface(String block, String name) {
        return find(
                type(block).busInterfaces(), BusInterfaceType::name, name, block, "busInterface");
    }

    OutwardInterface outward(String block, String name) {
        return find(type(block).outward(), OutwardInterface::name, name, block, "outward");
    }

    InterruptPort interrupt(String block, String name, InterruptPort.End end, String field) {
        List<InterruptPort> ports =
                type(block).interrupts().stream().filter(port -> port.end() == end).toList();
        return find(ports, InterruptPort::name, name, block, field);
    }

    StreamType stream(String block, String name, StreamType.End end, String field) {
        List<StreamType> ends =
                type(block).streams().stream().filter(each -> each.end() == end).toList();
        return find(ends, StreamType::name, name, block, field);
    }

    /** The platform with one of its blocks changed. */
    Platform change(String name, UnaryOperator<Block> change) {
        Block old = block(name);
        return platform.withBlocks(
                platform.blocks().stream()
                        .map(block -> block == old ? change.apply(block) : block)
                        .toList());
    }

    private static <T> T find(
            List<T> entries, Function<T, String> nameOf, String name, String block, String field) {
        Map<String, T> byName = new HashMap<>();
        entries.forEach(entry -> byName.put(nameOf.apply(entry), entry));
        require(
                byName.containsKey(name),
                field,
                "%s has no %s; it has %s".formatted(block, name, names(entries, nameOf)));
        return byName.get(name);
    }

    /** Names to choose from, for a message. */
    static <T> String names(List<T> entries, Function<T, String> nameOf) {
        return entries.isEmpty()
                ? "none"
                : String.join(", ", entries.stream().map(nameOf).toList());
    }
}
