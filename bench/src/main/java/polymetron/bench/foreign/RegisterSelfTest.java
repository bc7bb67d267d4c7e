package polymetron.bench.foreign;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.BlockModels;
import polymetron.bench.machine.BenchException;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.library.Library;
import polymetron.ownblock.OwnBlock;

/**
 * Whether a block's HDL does what its registers say: values after reset, what is kept of what is written, bytes by themselves, and
 * that no register is changed by writes to the others. Fields that the block itself gives or changes are left out, for only its HDL
 * says what they are; what is compared with is the description as the bench executes it.
 */
public final class RegisterSelfTest {
    private static final int ALL = -1;
    private static final int[] PATTERNS = {-1, 0, 0xA5A5_A5A5, 0x5A5A_5A5A};
    private static final int MOST_WORDS = 2000;
    private static final int MOST_DIFFERENT = 200;

    /** Words that do not answer until no more are tried: each costs its patience. */
    private static final int MOST_SILENT = 8;

    private static final int ACCESS_CYCLES = 20;

    /** A factor without small divisors spreads the bits of an offset over a word (Knuth, TAOCP 3, 6.4). */
    private static final int SPREAD = 0x9E37_79B1;

    private final ForeignModels models;

    /**
     * @param models what runs the HDL
     */
    public RegisterSelfTest(ForeignModels models) {
        this.models = models;
    }

    /**
     * Something that the HDL does in another way.
     *
     * @param register as software calls it
     * @param offset of the word
     */
    public record Different(String register, int offset, String what) {}

    /**
     * @param words of 32 bits that were tried
     * @param accesses reads and writes that were done
     * @param different what is different, by offset
     * @param left fields that are not compared, with their register
     */
    public record Outcome(int words, int accesses, List<Different> different, List<String> left) {}

    /**
     * @param block one whose description has nothing wrong, with HDL
     * @param library where it finds what it uses; an earlier state of the block in it does not count
     * @throws BenchException when the HDL cannot be built or run; the message says why
     */
    public Outcome of(OwnBlock block, Library library) {
        ElaboratedPlatform platform = AloneOnBoard.of(block, library);
        ElaboratedBlock own = platform.block(AloneOnBoard.NAME).orElseThrow();
        List<SizedInterface> forms =
                own.shape().busInterfaces().stream().filter(SizedInterface::isTarget).toList();
        if (forms.size() != 1) {
            throw new BenchException(
                    "only a block with registers behind one bus interface can be tested alone;"
                            + " this one has %s".formatted(forms.size()));
        }
        SizedInterface form = forms.getFirst();
        List<RegisterWord> words = RegisterWord.of(own.shape().registersOf(form.name()));
        if (words.isEmpty()) {
            throw new BenchException("no registers are described yet");
        }
        BlockModel hardware =
                models.of(platform, own, form)
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "this block cannot be stepped alone: it has several"
                                                    + " clocks, moves data by itself, or has lines"
                                                    + " wider than 64 bits"));
        long hz = Math.max(1, platform.frequencyHz(own));
        BlockModel described = BlockModels.create(platform, own, form, hz).orElseThrow();
        try (VerilatedModel model = (VerilatedModel) hardware) {
            return new Run(described, model, words.stream().limit(MOST_WORDS).toList()).outcome();
        }
    }

    /** One test. */
    private static final class Run {
        private final BlockModel described;
        private final BlockModel hardware;
        private final List<RegisterWord> words;

        /** The first thing that is found of a kind at a word. */
        private final Map<String, Different> different = new LinkedHashMap<>();

        private long cycle;
        private int accesses;

        private Run(BlockModel described, BlockModel hardware, List<RegisterWord> words) {
            this.described = described;
            this.hardware = hardware;
            this.words = words;
        }

        private Outcome outcome() {
            reset();
            for (RegisterWord word : words) {
                if (goesOn()) {
                    compare(word, "after reset", "reset");
                }
            }
            for (RegisterWord word : words) {
                if (word.isWritten() && goesOn()) {
                    reset();
                    patterns(word);
                    bytes(word);
                    if (word.isLowerHalf()) {
                        halves(word);
                    }
                }
            }
            if (goesOn()) {
                reset();
                together();
            }
            return new Outcome(
                    words.size(),
                    accesses,
                    different.values().stream()
                            .sorted(java.util.Comparator.comparingInt(Different::offset))
                            .toList(),
                    words.stream()
                            .flatMap(word -> word.places().stream())
                            .filter(place -> !place.isCompared())
                            .map(RegisterWord.Place::name)
                            .distinct()
                            .toList());
        }

        private boolean goesOn() {
            long silent =
                    different.keySet().stream().filter(kind -> kind.startsWith("silent")).count();
            return different.size() < MOST_DIFFERENT && silent < MOST_SILENT;
        }

        private void reset() {
            cycle = 0;
            described.reset();
            hardware.reset();
        }

        private void patterns(RegisterWord word) {
            for (int pattern : PATTERNS) {
                write(word, pattern, ALL);
                compare(word, "after 0x%08X is written".formatted(pattern), "kept");
            }
        }

        private void bytes(RegisterWord word) {
            for (int lane = 0; lane < Integer.BYTES; lane++) {
                int value = (word.offset() + lane + 1) * SPREAD;
                write(word, value, 0xFF << Byte.SIZE * lane);
                compare(word, "after byte %s alone is written".formatted(lane), "bytes");
            }
        }

        /** A register of two words changes and is read at one time: what is done to one half alone must not show. */
        private void halves(RegisterWord lower) {
            write(lower, lower.offset(), 0x5555_5555, ALL);
            compareNow(lower, "while only this half of it is written", "halves");
            write(lower, lower.other(), 0x5555_5555, ALL);
            words.stream()
                    .filter(each -> each.offset() == lower.other())
                    .forEach(
                            upper -> {
                                compareNow(lower, "after both halves are written", "halves");
                                write(lower, 0xCCCC_CCCC, ALL);
                                compareNow(upper, "as it was with the other half", "halves");
                            });
        }

        /** A value of its own in each of them: an address bit that is not looked at shows here. */
        private void together() {
            for (RegisterWord word : words) {
                if (word.isWritten()) {
                    write(word, value(word), ALL);
                }
            }
            for (RegisterWord word : words) {
                if (!isKnown(word)) {
                    compare(word, "after all others are written", "others");
                }
            }
        }

        private static int value(RegisterWord word) {
            return value(word.offset()) & ~word.pulses();
        }

        private static int value(int offset) {
            return (offset + 4) * SPREAD;
        }

        private boolean isKnown(RegisterWord word) {
            return List.of("reset", "kept", "silent").stream()
                    .anyMatch(kind -> different.containsKey(kind + word.offset()));
        }

        private void write(RegisterWord word, int value, int mask) {
            write(word, word.offset(), value, mask);
            if (word.isLowerHalf()) {
                write(word, word.other(), value(word.other()), ALL);
            }
        }

        private void write(RegisterWord word, int offset, int value, int mask) {
            advance();
            described.write(offset, value, mask);
            try {
                hardware.write(offset, value, mask);
            } catch (BenchException silent) {
                silent(word, "a write");
            }
        }

        private void compare(RegisterWord word, String when, String kind) {
            if (word.isUpperHalf()) {
                advance();
                described.read(word.other());
                read(word, word.other());
            }
            compareNow(word, when, kind);
        }

        private void compareNow(RegisterWord word, String when, String kind) {
            advance();
            int due = described.read(word.offset()) & word.compared();
            Optional<Integer> read = read(word, word.offset());
            if (read.isEmpty() || (read.get() & word.compared()) == due) {
                return;
            }
            int is = read.get() & word.compared();
            different.putIfAbsent(
                    kind + word.offset(),
                    new Different(
                            word.name(),
                            word.offset(),
                            "%s is 0x%08X %s; described is 0x%08X%s"
                                    .formatted(
                                            word.fields(is ^ due),
                                            is,
                                            when,
                                            due,
                                            switch (kind) {
                                                case "others" -> of(word, is);
                                                case "halves" ->
                                                        ". Both halves have to count at one time:"
                                                            + " is the lower one kept until the"
                                                            + " upper one is written, and the upper"
                                                            + " one from when the lower one is"
                                                            + " read?";
                                                case "bytes" ->
                                                        ". Bytes that are not written have to stay:"
                                                            + " are the byte strobes looked at?";
                                                default -> "";
                                            })));
        }

        /** Where a wrong value comes from. */
        private String of(RegisterWord word, int value) {
            return words.stream()
                    .filter(other -> other != word && other.isWritten())
                    .filter(
                            other ->
                                    value != 0
                                            && (value(other) & other.compared() & word.compared())
                                                    == value)
                    .findFirst()
                    .map(
                            other ->
                                    (". It is what was written to %s: are all bits of the address"
                                                    + " looked at?")
                                            .formatted(other.name()))
                    .orElse("");
        }

        private Optional<Integer> read(RegisterWord word, int offset) {
            try {
                return Optional.of(hardware.read(offset));
            } catch (BenchException silent) {
                silent(word, "a read");
                return Optional.empty();
            }
        }

        private void silent(RegisterWord word, String access) {
            different.putIfAbsent(
                    "silent" + word.offset(),
                    new Different(
                            word.name(),
                            word.offset(),
                            "%s is not answered: a processor would wait forever"
                                    .formatted(access)));
            reset();
        }

        private void advance() {
            if (Thread.currentThread().isInterrupted()) {
                throw new BenchException("the test was cancelled");
            }
            accesses++;
            cycle += ACCESS_CYCLES;
            described.advance(cycle);
            hardware.advance(cycle);
        }
    }
}
