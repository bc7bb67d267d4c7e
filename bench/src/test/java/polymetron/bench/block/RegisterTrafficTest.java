package polymetron.bench.block;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.json.Documents;
import polymetron.library.BlockType;
import polymetron.library.ParameterType;
import tools.jackson.databind.JsonNode;

/**
 * The registers of every block type, with each parameter at both ends of its limits, under random traffic of software: values
 * after reset, access, effects, byte enables, masks, locks and registers that share an address, as the definition says it.
 * Events that come in the cycle in which software clears them stay.
 */
final class RegisterTrafficTest {
    private static final int ACCESSES = 400;
    private static final long PROCESSOR_HZ = 100_000_000;

    /** What was tried, so that a test which tries nothing fails. */
    private static final Set<String> TRIED = new TreeSet<>();

    static List<String> types() {
        List<String> folders = new ArrayList<>();
        for (JsonNode folder : json("index.json").path("blockTypes")) {
            if (!definition(folder.asString()).path("registers").isEmpty()) {
                folders.add(folder.asString());
            }
        }
        assertThat(folders).hasSizeGreaterThan(20);
        return folders;
    }

    private static JsonNode definition(String folder) {
        return json("block-types/" + folder + "/block-type.json");
    }

    private static JsonNode json(String path) {
        return Documents.tree(path, new String(Shipped.file(path), StandardCharsets.UTF_8));
    }

    @AfterAll
    static void everythingWasTried() {
        assertThat(TRIED)
                .contains(
                        "store",
                        "clear-ones",
                        "pulse",
                        "hand-over",
                        "clear",
                        "take",
                        "locked",
                        "selected",
                        "bytes",
                        "implemented",
                        "event and clear",
                        "64 bits");
    }

    @ParameterizedTest
    @MethodSource("types")
    void registersDoWhatTheirDefinitionSays(String folder) {
        JsonNode definition = definition(folder);
        BlockType type =
                Shipped.LIBRARY.types().stream()
                        .filter(
                                each ->
                                        each.identity()
                                                .toString()
                                                .equals(definition.path("identity").asString()))
                        .findFirst()
                        .orElseThrow();
        List<Map<String, String>> settings = settings(type);
        for (Map<String, String> chosen : settings) {
            traffic(definition, type, chosen);
        }
    }

    /** The defaults; each parameter at its ends and with each of its choices; some at random ends together. */
    private static List<Map<String, String>> settings(BlockType type) {
        BlockShape usual = new BlockShape(type, Map.of());
        Map<String, List<String>> ends = new LinkedHashMap<>();
        for (ParameterType parameter : type.parameters()) {
            List<String> values = new ArrayList<>();
            switch (parameter.form()) {
                case BOOLEAN -> values.addAll(List.of("0", "1"));
                case CHOICE -> parameter.choices().forEach(choice -> values.add(choice.value()));
                case TEXT, REAL -> {}
                default -> {
                    if (parameter.minimum() != null) {
                        values.add(Long.toString(usual.number(parameter.minimum(), 0)));
                    }
                    if (parameter.maximum() != null) {
                        values.add(Long.toUnsignedString(usual.number(parameter.maximum(), 0)));
                    }
                }
            }
            ends.put(parameter.name(), values);
        }
        List<Map<String, String>> settings = new ArrayList<>();
        settings.add(Map.of());
        ends.forEach((name, values) -> values.forEach(value -> settings.add(Map.of(name, value))));
        Random random = new Random(type.identity().toString().hashCode());
        for (int each = 0; each < 10; each++) {
            Map<String, String> several = new TreeMap<>();
            ends.forEach(
                    (name, values) -> {
                        if (!values.isEmpty() && random.nextBoolean()) {
                            several.put(name, values.get(random.nextInt(values.size())));
                        }
                    });
            settings.add(several);
        }
        return settings.stream()
                .filter(chosen -> new BlockShape(type, chosen).faults().isEmpty())
                .distinct()
                .toList();
    }

    private static void traffic(JsonNode definition, BlockType type, Map<String, String> chosen) {
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddBlock("subject", type.identity(), chosen));
        type.clocks()
                .forEach(clock -> edits.add(new Edit.SetDomain("subject", clock.name(), "main")));
        ElaboratedPlatform platform =
                Shipped.elaborate(
                        new Editor(Shipped.LIBRARY)
                                .apply(Shipped.demo(), new Edit.Several("subject", edits)));
        ElaboratedBlock block = platform.block("subject").orElseThrow();
        boolean isFirst = true;
        for (SizedInterface form : block.shape().busInterfaces()) {
            if (!form.isTarget() || form.isMemory()) {
                continue;
            }
            RegisterReference reference =
                    new RegisterReference(
                            definition,
                            form.name(),
                            isFirst,
                            block.shape().parameters(),
                            platform.frequencyHz(block));
            isFirst = false;
            if (!reference.cells.isEmpty()) {
                BlockModel model =
                        BlockModels.create(platform, block, form, PROCESSOR_HZ).orElseThrow();
                new Traffic(type.identity() + " " + chosen + " " + form.name(), reference, model)
                        .run();
            }
        }
    }

    /** Random accesses to one model, and to the reference beside it. */
    private record Traffic(String what, RegisterReference reference, BlockModel model) {
        void run() {
            model.reset();
            int[] words =
                    reference.cells.stream()
                            .flatMapToInt(
                                    cell ->
                                            java.util.stream.IntStream.of(0, 4)
                                                    .map(at -> (int) (cell.offset & ~3L) + at))
                            .distinct()
                            .toArray();
            for (int word : words) {
                afterReset(word);
            }
            Random random = new Random(what.hashCode());
            long cycle = 0;
            for (int access = 0; access < ACCESSES; access++) {
                int word = words[random.nextInt(words.length)];
                cycle += random.nextInt(3);
                model.advance(cycle);
                synchronise();
                if (random.nextBoolean()) {
                    write(word, value(random), mask(random));
                } else {
                    read(word);
                }
                check(word, "after access " + access);
            }
            eventsWin();
        }

        private static int value(Random random) {
            return switch (random.nextInt(4)) {
                case 0 -> -1;
                case 1 -> 0;
                default -> random.nextInt();
            };
        }

        private static int mask(Random random) {
            int bytes = random.nextInt(3) == 0 ? 1 + random.nextInt(15) : 15;
            int mask = 0;
            for (int lane = 0; lane < 4; lane++) {
                mask |= (bytes >>> lane & 1) != 0 ? 0xFF << 8 * lane : 0;
            }
            return mask;
        }

        private void afterReset(int word) {
            int expected = reference.seen(word);
            for (RegisterReference.Cell cell : reference.cells) {
                boolean isOpen = cell.is("hardware", "value") || !reference.isSelected(cell);
                if (cell.isIn(word) && cell.reads() && !isOpen) {
                    int bits = cell.inWord(cell.bits, word);
                    assertThat(model.peek(word) & bits)
                            .as("%s: %s after reset", what, cell.name)
                            .isEqualTo(expected & bits);
                }
            }
        }

        /** What the block itself changes is taken over, so that locks and selections that follow it are known. */
        private void synchronise() {
            for (RegisterReference.Cell cell : reference.cells) {
                if (!cell.isSoftwares() && cell.reads() && reference.isSelected(cell)) {
                    long low =
                            cell.outOfWord(
                                    model.peek((int) cell.offset & ~3), (int) cell.offset & ~3);
                    cell.value = low;
                }
            }
        }

        private void write(int word, int value, int mask) {
            for (RegisterReference.Cell cell : reference.cells) {
                if (!cell.isIn(word) || !cell.writes() || cell.outOfWord(mask, word) == 0) {
                    continue;
                }
                TRIED.add(cell.field.path("onWrite").asString("store"));
                if (cell.selectedBy != null) {
                    TRIED.add("selected");
                }
                if (cell.outOfWord(mask, word) != cell.bits) {
                    TRIED.add(cell.bits >>> 32 == 0 ? "bytes" : "64 bits");
                }
                if (cell.field.has("implemented")) {
                    TRIED.add("implemented");
                }
                if (reference.holds(cell.field.path("lockedBy").asString(null))) {
                    TRIED.add("locked");
                }
            }
            model.write(word, value, mask);
            reference.write(word, value, mask);
        }

        private void read(int word) {
            for (RegisterReference.Cell cell : reference.cells) {
                if (cell.isIn(word) && reference.isSelected(cell)) {
                    TRIED.add(cell.field.path("onRead").asString("none"));
                }
            }
            int known = reference.known(word);
            assertThat(model.read(word) & known)
                    .as("%s: read of 0x%x", what, word)
                    .isEqualTo(reference.seen(word) & known);
            reference.read(word);
            for (RegisterReference.Cell cell : reference.cells) {
                if (cell.isIn(word) && cell.is("onRead", "clear") && reference.isSelected(cell)) {
                    assertThat(model.peek(word) & cell.inWord(cell.bits, word))
                            .as("%s: %s is cleared by reading", what, cell.name)
                            .isZero();
                }
            }
        }

        private void check(int word, String when) {
            int known = reference.known(word);
            assertThat(model.peek(word) & known)
                    .as("%s: word 0x%x %s", what, word, when)
                    .isEqualTo(reference.seen(word) & known);
        }

        /** An event that comes in the cycle in which software clears the field, and shows after it, stays. */
        private void eventsWin() {
            RegisterBank bank = ((BankModel) model).bank;
            for (RegisterReference.Cell cell : reference.cells) {
                if (!cell.is("hardware", "set")
                        || !cell.reads()
                        || !reference.isSelected(cell)
                        || reference.holds(cell.field.path("lockedBy").asString(null))) {
                    continue;
                }
                int word = (int) cell.offset & ~3;
                int bits = cell.inWord(cell.bits, word);
                clear(cell, word, bits);
                bank.raise(word, bits);
                assertThat(model.peek(word) & bits).as("%s: %s", what, cell.name).isEqualTo(bits);
                if (cell.is("onWrite", "clear-ones")) {
                    model.write(word, bits & 0x5555_5555, -1);
                    assertThat(model.peek(word) & bits)
                            .as("%s: %s, some of it cleared", what, cell.name)
                            .isEqualTo(bits & 0xAAAA_AAAA);
                }
                clear(cell, word, bits);
                TRIED.add("event and clear");
            }
        }

        private void clear(RegisterReference.Cell cell, int word, int bits) {
            if (cell.is("onWrite", "clear-ones")) {
                model.write(word, bits, -1);
            } else if (cell.is("onRead", "clear")) {
                model.read(word);
            } else {
                return;
            }
            assertThat(model.peek(word) & bits).as("%s: %s cleared", what, cell.name).isZero();
        }
    }
}
