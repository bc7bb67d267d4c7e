package polymetron.edit;

import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.stream.Collectors;
import polymetron.library.BlockType;
import polymetron.library.BusInterfaceType;
import polymetron.library.ClockInput;
import polymetron.library.InterruptPort;
import polymetron.library.OutwardInterface;
import polymetron.library.ParameterType;
import polymetron.library.ResetInput;
import polymetron.library.StreamType;
import polymetron.platform.Block;

/** Makes a block another version of its type: every decision that still has a place is kept. */
final class Upgrade {
    private Upgrade() {}

    static Block to(Block block, BlockType type) {
        Block result = block.withType(type.identity());
        result =
                keep(
                        result,
                        block.parameters().keySet(),
                        names(type.parameters(), ParameterType::name),
                        (each, name) -> each.withParameter(name, null));
        Set<String> inputs = names(type.clocks(), ClockInput::name);
        inputs.addAll(names(type.resets(), ResetInput::name));
        result =
                keep(
                        result,
                        block.domains().keySet(),
                        inputs,
                        (each, name) -> each.withDomain(name, null));
        result =
                keep(
                        result,
                        block.attachments().keySet(),
                        names(type.busInterfaces(), BusInterfaceType::name),
                        (each, name) -> each.withAttachment(name, null));
        result =
                keep(
                        result,
                        block.streams().keySet(),
                        names(type.streams(), StreamType::name),
                        (each, name) -> each.withStream(name, null));
        result =
                keep(
                        result,
                        block.interrupts().keySet(),
                        names(type.interrupts(), InterruptPort::name),
                        (each, name) -> each.withInterrupt(name, null));
        return keep(
                result,
                block.outward().keySet(),
                names(type.outward(), OutwardInterface::name),
                (each, name) -> each.withOutward(name, null));
    }

    private static <T> Set<String> names(List<T> all, Function<T, String> name) {
        return all.stream().map(name).collect(Collectors.toSet());
    }

    private static Block keep(
            Block block,
            Collection<String> used,
            Set<String> known,
            BiFunction<Block, String, Block> drop) {
        Block result = block;
        for (String name : used) {
            if (!known.contains(name)) {
                result = drop.apply(result, name);
            }
        }
        return result;
    }
}
