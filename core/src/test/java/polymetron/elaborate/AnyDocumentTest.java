package polymetron.elaborate;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import polymetron.Shipped;
import polymetron.clock.Crossings;
import polymetron.clock.DerivedRates;
import polymetron.cost.BusLoad;
import polymetron.decode.BusDecode;
import polymetron.finding.Checks;
import polymetron.finding.FindingGroups;
import polymetron.fit.DeviceFit;
import polymetron.interrupt.InterruptMap;
import polymetron.json.DocumentException;
import polymetron.lookup.AddressRulers;
import polymetron.output.handoff.Delivery;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.pin.PinTable;
import polymetron.placement.PlatformPlacement;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.wiring.WiringPlan;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Documents written by hand, merged badly or meant to do harm: each is either refused with its place, or it
 * is worked out, checked and handed off without an exception. Elaboration never fails.
 */
final class AnyDocumentTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final List<String> DEMOS =
            List.of("ridge-station", "highland-station", "canal-lock", "first-steps");

    /** Words that are right somewhere, and values at the edges of what is allowed. */
    private static final List<String> WORDS =
            List.of(
                    "main",
                    "system",
                    "cpu",
                    "code",
                    "console",
                    "flash",
                    "bridge",
                    "peripherals",
                    "registers",
                    "port",
                    "irq",
                    "inputs",
                    "0",
                    "1",
                    "-1",
                    "64",
                    "4294967296",
                    "0x0",
                    "0xFFFF_FFFF",
                    "0xFFFF_FFFF_FFFF_F000",
                    "0x1000_0001",
                    "oscillator",
                    "axi4",
                    "apb",
                    "axi4-lite",
                    "wishbone-b4",
                    "SIZE",
                    "1 << 40",
                    "1/0",
                    "x",
                    "",
                    "polymetron:memory:block-memory:1.1",
                    "polymetron:io:gpio:1.0",
                    "polymetron:processor:rv32-fast:1.0",
                    "polymetron:infrastructure:bridge:1.0",
                    "none:of:these:1.0");

    private static int read;

    @AfterAll
    static void manyWereRead() {
        assertThat(read).isGreaterThan(50);
    }

    @RepeatedTest(150)
    void isRefusedOrWorkedOut(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        String demo = DEMOS.get(random.nextInt(DEMOS.size()));
        JsonNode document =
                JSON.readTree(
                        new String(Shipped.file("demo/" + demo + ".json"), StandardCharsets.UTF_8));
        int changes = 1 + random.nextInt(4);
        for (int change = 0; change < changes; change++) {
            mutate(document, random);
        }
        String text = JSON.writeValueAsString(document);
        Platform platform;
        try {
            platform = PlatformDocument.read("any.json", text);
        } catch (DocumentException refused) {
            assertThat(refused).hasMessageStartingWith("any.json");
            return;
        }
        read++;
        // What is read is written and read again as the same.
        assertThat(PlatformDocument.read("again.json", PlatformDocument.write(platform)))
                .isEqualTo(platform);
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        FindingGroups.of(Checks.run(elaborated));
        InterruptMap.of(elaborated);
        PinTable.of(elaborated);
        DeviceFit.of(elaborated);
        Crossings.of(elaborated);
        DerivedRates.of(elaborated);
        AddressRulers.of(elaborated.spaces());
        BusLoad.of(elaborated);
        elaborated.buses().forEach(BusDecode::of);
        PlatformPlacement.of(elaborated);
        WiringPlan.propose(platform, Shipped.LIBRARY, WiringPlan.Decisions.NONE);
        assertThat(Delivery.of(elaborated).zip()).isNotEmpty();
        ProgramImage.of(elaborated, ElfReader.read(Shipped.demoProgram()), (byte) 0);
    }

    private static void mutate(JsonNode root, Random random) {
        List<JsonNode> containers = new ArrayList<>();
        collect(root, containers);
        JsonNode chosen = containers.get(random.nextInt(containers.size()));
        if (chosen instanceof ObjectNode object && !object.isEmpty()) {
            List<String> keys = new ArrayList<>(object.propertyNames());
            String key = keys.get(random.nextInt(keys.size()));
            switch (random.nextInt(8)) {
                case 0 -> object.remove(key);
                case 1 -> object.set(key, copied(containers, random));
                case 2, 3, 4, 5 -> object.set(key, likewise(containers, key, random));
                default -> object.set(key, value(object.get(key), random));
            }
        } else if (chosen instanceof ArrayNode array && !array.isEmpty()) {
            int index = random.nextInt(array.size());
            switch (random.nextInt(3)) {
                case 0 -> array.remove(index);
                case 1 -> array.add(array.get(index).deepCopy());
                default -> array.insert(0, array.remove(index));
            }
        }
    }

    private static void collect(JsonNode node, List<JsonNode> containers) {
        if (node.isContainer()) {
            containers.add(node);
            node.forEach(child -> collect(child, containers));
        }
    }

    /** What the key has elsewhere in the document. */
    private static JsonNode likewise(List<JsonNode> containers, String key, Random random) {
        List<JsonNode> others =
                containers.stream()
                        .filter(node -> node.has(key))
                        .map(node -> node.get(key))
                        .toList();
        return others.get(random.nextInt(others.size())).deepCopy();
    }

    private static JsonNode copied(List<JsonNode> containers, Random random) {
        return containers.get(random.nextInt(containers.size())).deepCopy();
    }

    /** Another value, mostly of the same form, so that some documents are read. */
    private static JsonNode value(JsonNode before, Random random) {
        if (before.isNumber() && random.nextInt(8) > 0) {
            int[] numbers = {0, 1, 2, 8, 12, 31, 32, 63, 64, 65, 128, 4096, -1, Integer.MAX_VALUE};
            return JSON.valueToTree(numbers[random.nextInt(numbers.length)]);
        }
        if (before.isBoolean() && random.nextInt(8) > 0) {
            return JSON.valueToTree(!before.booleanValue());
        }
        if (before.isContainer() && random.nextInt(3) > 0) {
            return before.isArray() ? JSON.createArrayNode() : JSON.createObjectNode();
        }
        return JSON.valueToTree(WORDS.get(random.nextInt(WORDS.size())));
    }
}
