package polymetron.bench.hart;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;

/**
 * A jump may lead anywhere: into the same memory, into another above or below, into one that appears at two addresses,
 * or to where there is nothing. What has to happen is worked out from the Privileged ISA (causes 0 for a target that is no
 * multiple of 4, 1 where nothing can be fetched, 3 for EBREAK), without the hart's code.
 */
final class ControlTransferTest {
    private static final int EBREAK = 0x0010_0073;
    private static final int SIZE = 0x1000;
    private static final int JUMPS = 200;

    /** Where the loop of jumps is, in the memory of the trap handler; the rest of every memory holds other words. */
    private static final int LOOP = 0x80;

    /**
     * A memory at an address.
     *
     * @param offsets for each word how far it jumps; 0 for a breakpoint
     */
    private record Place(int base, Ram ram, int[] offsets) {
        Place(int base, Random random) {
            this(base, new Ram(SIZE, true), new int[SIZE / 4]);
            for (int at = 0; at < offsets.length; at++) {
                boolean far = random.nextBoolean();
                int range = far ? 0x10_0000 : 0x1000;
                offsets[at] = random.nextInt(4) == 0 ? random.nextInt(-range, range) & ~3 : 0;
                int word = offsets[at] == 0 ? EBREAK : far ? jal(offsets[at]) : beq(offsets[at]);
                Ram.storeWord(ram.bytes, 4 * at, word);
            }
        }

        Place at(int other) {
            return new Place(other, ram, offsets);
        }
    }

    private record Trapped(int cause, int pc, int value) {}

    private final List<Place> places = new ArrayList<>();

    @RepeatedTest(40)
    void whereverAJumpLeadsTheHartDoesWhatItHasTo(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        // The lowest memory, one in the middle, the highest there can be; the last is one of them
        // again.
        int[] bases = {0, 0x8000_0000, 0xFFFF_F000, 0x4000_0000 + SIZE * random.nextInt(4)};
        for (int index = 0; index < 3; index++) {
            places.add(new Place(bases[index], random));
        }
        places.add(places.get(random.nextInt(3)).at(bases[3]));
        Place home = places.get(random.nextInt(places.size()));
        int[] targets = new int[JUMPS];
        for (int index = 0; index < JUMPS; index++) {
            do {
                targets[index] = target(random);
            } while (expected(targets[index], 0) == null);
        }
        loop(home.ram());
        Ram table = new Ram(4 * (JUMPS + 1), true);
        for (int index = 0; index < JUMPS; index++) {
            Ram.storeWord(table.bytes, 4 * index, targets[index]);
        }
        Hart hart = hart(home, table);
        if (random.nextInt(3) == 0) {
            hart.interpretOnly();
        }
        for (int jump = 0; jump < JUMPS; jump++) {
            Trapped expected = expected(targets[jump], home.base() + LOOP + 8);
            long before = hart.csrs().traps();
            for (int steps = 0; hart.csrs().traps() == before && steps < 50; steps++) {
                hart.execute(1 + random.nextInt(20));
            }
            assertThat(
                            new Trapped(
                                    hart.csrs().lastCause(),
                                    hart.csrs().lastTrapAddress(),
                                    hart.csrs().lastTrapValue()))
                    .as("jump %s to 0x%08X", jump, targets[jump])
                    .isEqualTo(expected);
        }
    }

    private int target(Random random) {
        Place place = places.get(random.nextInt(places.size()));
        return switch (random.nextInt(8)) {
            case 0 -> 0;
            case 1 -> random.nextInt() & ~1;
            case 2 -> place.base() - 4;
            case 3 -> place.base() + SIZE;
            case 4 -> place.base() + SIZE - 4;
            default -> place.base() + (LOOP + 0x40 + random.nextInt(SIZE - 0x100) & ~3);
        };
    }

    /** The trap handler: loads the next target and jumps there. */
    private static void loop(Ram ram) {
        int[] words = {0x0003_2083, 0x0043_0313, 0x0000_8067}; // lw ra,0(t1); addi t1,t1,4; jr ra
        for (int index = 0; index < words.length; index++) {
            Ram.storeWord(ram.bytes, LOOP + 4 * index, words[index]);
        }
    }

    private Hart hart(Place home, Ram table) {
        List<BusMap.Entry> fetched = new ArrayList<>();
        places.forEach(
                place ->
                        fetched.add(
                                new BusMap.Entry(
                                        place.base(), place.base() + SIZE - 1, place.ram())));
        // The table is at 0 on the data side: t1 is 0 after reset.
        BusMap data = new BusMap(List.of(new BusMap.Entry(0, table.bytes.length - 1, table)));
        int loop = home.base() + LOOP;
        return new Hart(new BusMap(fetched), data, true, false, HartTiming.ONE_EACH, loop, loop, 0);
    }

    /** The trap in which a jump ends; null when it leads round and round. */
    private Trapped expected(int target, int jump) {
        if ((target & 3) != 0) {
            return new Trapped(0, jump, target);
        }
        int at = target;
        for (int steps = 0; steps < 20; steps++) {
            int here = at;
            Place place =
                    places.stream()
                            .filter(each -> Integer.compareUnsigned(here - each.base(), SIZE) < 0)
                            .findFirst()
                            .orElse(null);
            if (place == null) {
                return new Trapped(1, at, at);
            }
            int within = at - place.base();
            if (within >= LOOP && within < LOOP + 12) {
                return null;
            }
            int offset = place.offsets()[within / 4];
            if (offset == 0) {
                return new Trapped(3, at, at);
            }
            at += offset;
        }
        return null;
    }

    // Encodings: RISC-V Unprivileged ISA, chapter "RV32I", figure of the base instruction formats.
    private static int jal(int offset) {
        return (offset >> 20 & 1) << 31
                | (offset >> 1 & 0x3FF) << 21
                | (offset >> 11 & 1) << 20
                | (offset >> 12 & 0xFF) << 12
                | 0x6F;
    }

    private static int beq(int offset) {
        return (offset >> 12 & 1) << 31
                | (offset >> 5 & 63) << 25
                | (offset >> 1 & 15) << 8
                | (offset >> 11 & 1) << 7
                | 0x63;
    }
}
