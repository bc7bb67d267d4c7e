package polymetron.compare;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeSet;
import java.util.function.Function;
import polymetron.address.Address;
import polymetron.platform.Acceptance;
import polymetron.platform.Attachment;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.InterruptWire;
import polymetron.platform.Outward;
import polymetron.platform.Platform;
import polymetron.platform.StreamWire;

/**
 * Compares two platforms by what the user decided: everything that the one says and the other does not, in the order
 * of sorts and then of names. A block that only changed its name is one change.
 */
public final class Comparison {
    private final List<Change> changes = new ArrayList<>();

    private Comparison() {}

    public static List<Change> of(Platform before, Platform after) {
        Comparison comparison = new Comparison();
        comparison.compare(before, after);
        comparison.changes.sort(
                java.util.Comparator.comparing(Change::sort).thenComparing(Change::subject));
        return List.copyOf(comparison.changes);
    }

    private void note(Change.Sort sort, String subject, Object before, Object after) {
        if (!Objects.equals(before, after)) {
            changes.add(
                    new Change(
                            sort,
                            subject,
                            before == null ? null : before.toString(),
                            after == null ? null : after.toString()));
        }
    }

    private void compare(Platform before, Platform after) {
        note(Change.Sort.PLATFORM, "name", before.name(), after.name());
        note(Change.Sort.PLATFORM, "board", before.board(), after.board());
        maps(
                Change.Sort.DOMAIN,
                "",
                byName(before.domains(), ClockDomain::name),
                byName(after.domains(), ClockDomain::name),
                Comparison::words);
        maps(
                Change.Sort.BUS,
                "",
                byName(before.buses(), Bus::name),
                byName(after.buses(), Bus::name),
                Comparison::words);
        blocks(byName(before.blocks(), Block::name), byName(after.blocks(), Block::name));
        maps(
                Change.Sort.ACCEPTED,
                "",
                byName(before.accepted(), each -> each.rule() + " at " + each.subject()),
                byName(after.accepted(), each -> each.rule() + " at " + each.subject()),
                Acceptance::reason);
    }

    private static <T> Map<String, T> byName(List<T> all, Function<T, String> name) {
        Map<String, T> map = new LinkedHashMap<>();
        all.forEach(each -> map.put(name.apply(each), each));
        return map;
    }

    private <T> void maps(
            Change.Sort sort,
            String prefix,
            Map<String, T> before,
            Map<String, T> after,
            Function<T, String> words) {
        TreeSet<String> names = new TreeSet<>(before.keySet());
        names.addAll(after.keySet());
        for (String name : names) {
            T old = before.get(name);
            T now = after.get(name);
            note(
                    sort,
                    prefix + name,
                    old == null ? null : words.apply(old),
                    now == null ? null : words.apply(now));
        }
    }

    private void blocks(Map<String, Block> before, Map<String, Block> after) {
        Map<String, Block> gone = new LinkedHashMap<>(before);
        gone.keySet().removeAll(after.keySet());
        for (Block block : after.values()) {
            Block old = before.get(block.name());
            if (old != null) {
                within(old, block);
                continue;
            }
            Block renamed =
                    gone.values().stream()
                            .filter(each -> each.withName(block.name()).equals(block))
                            .findFirst()
                            .orElse(null);
            if (renamed == null) {
                note(Change.Sort.BLOCK, block.name(), null, block.type());
                within(empty(block), block);
            } else {
                gone.remove(renamed.name());
                note(
                        Change.Sort.BLOCK,
                        block.name(),
                        "named " + renamed.name(),
                        "named " + block.name());
            }
        }
        for (Block block : gone.values()) {
            note(Change.Sort.BLOCK, block.name(), block.type(), null);
            within(block, empty(block));
        }
    }

    private static Block empty(Block block) {
        return Block.of(block.name(), block.type());
    }

    private void within(Block before, Block after) {
        String dot = after.name() + ".";
        note(Change.Sort.BLOCK, after.name(), before.type(), after.type());
        note(Change.Sort.GROUP, after.name(), before.group(), after.group());
        maps(
                Change.Sort.PARAMETER,
                dot,
                before.parameters(),
                after.parameters(),
                Function.identity());
        maps(
                Change.Sort.ATTACHMENT,
                dot,
                before.attachments(),
                after.attachments(),
                each ->
                        each.bus()
                                + (each.staysPut() ? ", held" : "")
                                + (each.priority() == null ? "" : ", priority " + each.priority())
                                + (each.hidden().isEmpty()
                                        ? ""
                                        : ", without " + String.join(", ", each.hidden())));
        maps(Change.Sort.ADDRESS, dot, bases(before), bases(after), Address::toString);
        maps(
                Change.Sort.INTERRUPT,
                dot,
                before.interrupts(),
                after.interrupts(),
                Comparison::words);
        maps(Change.Sort.STREAM, dot, before.streams(), after.streams(), Comparison::words);
        maps(Change.Sort.CLOCK, dot, before.domains(), after.domains(), Function.identity());
        maps(Change.Sort.OUTWARD, dot, before.outward(), after.outward(), Comparison::words);
    }

    private static Map<String, Address> bases(Block block) {
        Map<String, Address> bases = new LinkedHashMap<>();
        for (Map.Entry<String, Attachment> entry : block.attachments().entrySet()) {
            if (entry.getValue().base() != null) {
                bases.put(entry.getKey(), entry.getValue().base());
            }
        }
        return bases;
    }

    private static String words(ClockDomain domain) {
        return domain.clock() + (domain.reset() == null ? "" : ", reset by " + domain.reset());
    }

    private static String words(Bus bus) {
        return "%s, %s-bit data, %s-bit addresses%s%s"
                .formatted(
                        bus.protocol(),
                        bus.dataWidth(),
                        bus.addressWidth(),
                        bus.domain() == null ? "" : ", in " + bus.domain(),
                        bus.goesByPriority() ? ", by priority" : "");
    }

    private static String words(StreamWire wire) {
        return wire.block() + "." + wire.sink();
    }

    private static String words(InterruptWire wire) {
        return "%s.%s %s".formatted(wire.block(), wire.sink(), wire.input());
    }

    private static String words(Outward outward) {
        return outward.part() != null ? outward.part() : "pins " + outward.pins();
    }
}
