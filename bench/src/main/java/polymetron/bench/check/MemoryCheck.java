package polymetron.bench.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import java.util.function.LongSupplier;
import polymetron.bench.check.MemoryNotice.Kind;
import polymetron.bench.hart.DirectMemory;
import polymetron.bench.hart.Hart;
import polymetron.bench.hart.MemoryWatch;
import polymetron.bench.hart.Ram;

/**
 * Checks what a program and the blocks that move data do: what it reads before anything was written there, what they write over its
 * instructions and its stack, what they read that was stored without a FENCE behind it (RISC-V Unprivileged ISA, 2.7: without one,
 * others need not see it), what a load takes from a cache that was changed in memory since, and events that are cleared unread. Each
 * is noticed once for a place in the program, and counted.
 */
public final class MemoryCheck {
    /** More places than these are not noticed. */
    private static final int MOST_NOTICES = 200;

    private static final int STACK_POINTER = 2;

    private record Key(Kind kind, String who, int place) {}

    private static final class Entry {
        private final String who;
        private final int address;
        private final long cycle;
        private final String place;
        private final String subject;
        private long count;

        private Entry(String who, int address, long cycle, String place, String subject) {
            this.who = who;
            this.subject = subject;
            this.address = address;
            this.cycle = cycle;
            this.place = place;
        }
    }

    private final class Watched implements MemoryWatch {
        private final String name;
        private final Hart hart;

        /** By memory and word: the instruction that stored it last, as long as no FENCE has followed. */
        private final Map<Ram, Map<Integer, Integer>> unfenced = new IdentityHashMap<>();

        /** The highest stack pointer so far, unsigned; 0 before there is one. */
        private long top;

        private Watched(String name, Hart hart) {
            this.name = name;
            this.hart = hart;
        }

        @Override
        public void accessed(
                Ram memory, int offset, int size, boolean stores, int address, int pc) {
            if (stores) {
                top = Math.max(top, pointer());
                memory.markWritten(offset, size);
                unfenced.computeIfAbsent(memory, each -> new HashMap<>()).put(offset >>> 2, pc);
            } else if (!memory.wasWritten(offset, size)) {
                notice(Kind.NEVER_WRITTEN, name, pc, address, places.apply(pc));
            }
        }

        @Override
        public void stale(int address, int pc) {
            notice(Kind.STALE, name, pc, address, places.apply(pc));
        }

        @Override
        public void fenced() {
            unfenced.clear();
        }

        private long pointer() {
            return Integer.toUnsignedLong(hart.register(STACK_POINTER));
        }

        private boolean isOnStack(int address) {
            long at = Integer.toUnsignedLong(address);
            return at >= pointer() && at < top;
        }
    }

    private final List<Watched> harts = new ArrayList<>();
    private final Map<Key, Entry> found = new LinkedHashMap<>();
    private final LongSupplier cycle;
    private final IntFunction<String> places;

    /**
     * @param cycle the time
     * @param places an address of the program in words
     */
    public MemoryCheck(LongSupplier cycle, IntFunction<String> places) {
        this.cycle = cycle;
        this.places = places;
    }

    public void watch(String name, Hart hart) {
        Watched watched = new Watched(name, hart);
        harts.add(watched);
        hart.watch(watched);
    }

    /** A block that moves data by itself. */
    public void watch(String block, DirectMemory memory) {
        memory.watch(
                (ram, offset, size, stores, address) -> {
                    for (int at = 0; at < size; at += Integer.BYTES) {
                        moved(block, ram, offset + at, Math.min(size, 4), stores, address + at);
                    }
                });
    }

    private void moved(String block, Ram ram, int offset, int size, boolean stores, int address) {
        if (stores) {
            if (ram.holdsInstructions(offset)) {
                notice(Kind.OVER_INSTRUCTIONS, block, 0, address, null);
            }
            if (harts.stream().anyMatch(each -> each.isOnStack(address))) {
                notice(Kind.OVER_STACK, block, 0, address, null);
            }
            ram.markWritten(offset, size);
            return;
        }
        for (Watched each : harts) {
            Integer pc = each.unfenced.getOrDefault(ram, Map.of()).get(offset >>> 2);
            if (pc != null) {
                notice(Kind.NOT_FENCED, block, pc, address, places.apply(pc));
            }
        }
    }

    /**
     * An event of a block is cleared without having been read: by a program, where a hart stores at this moment; a person who
     * writes registers of the bench may.
     *
     * @param event block, register and field
     */
    public void clearedUnread(String event) {
        harts.stream()
                .filter(each -> each.hart.isStoring())
                .findFirst()
                .ifPresent(
                        each -> {
                            int pc = each.hart.pc();
                            notice(Kind.CLEARED_UNREAD, each.name, pc, 0, places.apply(pc), event);
                        });
    }

    private void notice(Kind kind, String who, int pc, int address, String place) {
        notice(kind, who, pc, address, place, null);
    }

    private void notice(Kind kind, String who, int pc, int address, String place, String subject) {
        Key key = new Key(kind, subject == null ? who : who + " " + subject, pc);
        Entry entry = found.get(key);
        if (entry == null) {
            if (found.size() >= MOST_NOTICES) {
                return;
            }
            entry = new Entry(who, address, cycle.getAsLong(), place, subject);
            found.put(key, entry);
        }
        entry.count++;
    }

    /** What was noticed since the last reset, in the order of the first time. */
    public List<MemoryNotice> notices() {
        List<MemoryNotice> notices = new ArrayList<>();
        found.forEach(
                (key, entry) ->
                        notices.add(
                                new MemoryNotice(
                                        key.kind(),
                                        entry.who,
                                        entry.place,
                                        entry.subject,
                                        Integer.toUnsignedLong(entry.address),
                                        entry.cycle,
                                        entry.count)));
        return notices;
    }

    /** Back to power-up. */
    public void reset() {
        found.clear();
        harts.forEach(
                each -> {
                    each.unfenced.clear();
                    each.top = 0;
                });
    }
}
