package polymetron.library;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.Register;
import polymetron.json.DocumentException;

/** Definitions as people write them: of the first format, and with names that lead nowhere. */
final class BlockTypeDocumentTest {
    private static final String FIRST =
            """
            {
              "format": "polymetron-block-type/1",
              "identity": "example:io:siren:1.0",
              "kind": "peripheral",
              "title": "Siren", "summary": "Sounds", "description": "Sounds.", "defaultName": "siren",
              "parameters": [],
              "clocks": [{ "name": "clk", "minimumHz": 1, "maximumHz": 200000000 }],
              "resets": [{ "name": "rst", "clock": "clk" }],
              "busInterfaces": [
                {
                  "name": "registers", "role": "target", "protocols": ["axi4-lite"], "dataWidth": 32,
                  "size": 4096, "usage": "registers", "executable": false
                }
              ],
              "interrupts": [{ "name": "irq", "end": "source", "line": "device", "trigger": "high" }],
              "registers": [
                {
                  "name": "CONTROL", "offset": 0, "access": "read-write", "reset": 5, "explains": "How.",
                  "fields": [
                    { "name": "ON", "lowBit": 0, "explains": "1 sounds" },
                    { "name": "PITCH", "lowBit": 1, "width": 3, "explains": "how high" },
                    { "name": "HEARD", "lowBit": 8, "access": "write-one-to-clear", "explains": "it was heard" }
                  ]
                },
                { "name": "NEXT", "offset": 4, "access": "read-only", "readEffect": "takes the word", "explains": "A word." },
                {
                  "name": "LIMIT", "offset": 8, "access": "read-write", "reset": "100", "explains": "Longest time.",
                  "condition": "CONTROL.ON is 0"
                },
                {
                  "name": "SPENT", "offset": 8, "access": "read-only", "explains": "Time.", "condition": "CONTROL.ON is 1",
                  "fields": [{ "name": "CYCLES", "lowBit": 0, "width": 32, "explains": "in cycles" }]
                }
              ],
              "resources": { "lookupTables": 1, "flipFlops": 1 },
              "software": {}
            }
            """;

    private static final String SECOND =
            FIRST.substring(0, FIRST.indexOf("  \"registers\": ["))
                            .replace("block-type/1", "block-type/2")
                            .replace(
                                    "\"parameters\": []",
                                    """
                                    "parameters": [
                                      { "name": "WIDTH", "title": "width", "form": "integer", "initial": "4", "minimum": 1, "maximum": 16, "explains": "Bits." },
                                      { "name": "VOICES", "title": "voices", "form": "integer", "initial": "2", "minimum": 1, "maximum": 8, "explains": "Tones." }
                                    ]\
                                    """)
                    + """
                      "registers": [
                        {
                          "name": "CONTROL", "offset": 0, "explains": "How.",
                          "fields": [
                            {
                              "name": "ON", "lowBit": 0, "software": "read-write", "lockedBy": "CONTROL.LOCK",
                              "explains": "1 sounds"
                            },
                            { "name": "LOCK", "lowBit": 1, "software": "read-write", "explains": "keeps ON" },
                            {
                              "name": "HEARD", "lowBit": 8, "software": "read-write", "onWrite": "clear-ones",
                              "hardware": "set", "interrupt": { "source": "irq", "enable": "CONTROL.ON" },
                              "explains": "it was heard"
                            },
                            { "name": "LEVEL", "lowBit": 16, "software": "read-only", "hardware": "value", "explains": "now" }
                          ]
                        },
                        {
                          "name": "LIMIT", "offset": 8, "count": "VOICES", "stride": 4, "explains": "Longest time.",
                          "fields": [
                            { "name": "CYCLES", "lowBit": 4, "width": "WIDTH", "software": "read-write", "reset": 1, "explains": "it" }
                          ]
                        },
                        {
                          "name": "LAST", "offset": "4 * VOICES + 8", "explains": "Behind them.", "selectedBy": "CONTROL.ON == 1",
                          "fields": [{ "name": "IT", "lowBit": 0, "software": "read-only", "hardware": "value", "explains": "it" }]
                        }
                      ],
                      "provides": [{ "lines": { "registers": "registers", "count": "WIDTH", "direction": "\\"in\\"", "input": "CONTROL.LEVEL" } }],
                      "resources": { "lookupTables": 1, "flipFlops": 1 },
                      "software": {}
                    }
                    """;

    private static Register register(BlockType type, String name) {
        return new BlockShape(type, Map.of())
                .registers().stream()
                        .filter(register -> register.name().equals(name))
                        .findFirst()
                        .orElseThrow();
    }

    @Test
    void theFirstFormatIsTakenOverWithoutLoss() {
        BlockType type = BlockTypeDocument.read("siren/block-type.json", FIRST);
        Register control = register(type, "CONTROL");
        assertThat(control.reset(0, 0)).isEqualTo(5);
        assertThat(control.field("PITCH").orElseThrow().reset(0, 0)).isEqualTo(2);
        FieldType heard = control.field("HEARD").orElseThrow().type();
        assertThat(heard.onWrite()).isEqualTo(OnWrite.CLEAR_ONES);
        assertThat(heard.hardware()).isEqualTo(HardwareAccess.SET);
        assertThat(heard.access()).isEqualTo(Access.WRITE_ONE_TO_CLEAR);
        FieldType next = register(type, "NEXT").fields().getFirst().type();
        assertThat(next.onRead()).isEqualTo(OnRead.TAKE);
        assertThat(next.software()).isEqualTo(SoftwareAccess.READ_ONLY);
        assertThat(register(type, "NEXT").fields().getFirst().mask()).isEqualTo(0xFFFF_FFFFL);
        assertThat(register(type, "LIMIT").reset(0, 0)).isEqualTo(100);
        assertThat(register(type, "LIMIT").condition()).isEqualTo("CONTROL.ON == 0");
        assertThat(register(type, "SPENT").condition()).isEqualTo("CONTROL.ON == 1");
    }

    @Test
    void wordsThatCannotBeTakenOverAreNamedWithTheWayOut() {
        String vague = FIRST.replace("\"CONTROL.ON is 0\"", "\"nothing sounds\"");
        assertThatThrownBy(() -> BlockTypeDocument.read("siren/block-type.json", vague))
                .isInstanceOf(DocumentException.class)
                .hasMessageContainingAll(
                        "siren/block-type.json", "/registers/2/condition", "selectedBy");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "CONTROL.LOCK|CONTROL.LOOK|/registers/0/fields/0/lockedBy|CONTROL.LOCK",
                "\"source\": \"irq\"|\"source\":"
                        + " \"ring\"|/registers/0/fields/2/interrupt/source|irq",
                "\"enable\": \"CONTROL.ON\"|\"enable\":"
                        + " \"ON\"|/registers/0/fields/2/interrupt/enable|CONTROL.ON",
                "\"hardware\": \"value\"|\"onWrite\":"
                        + " \"pulse\"|/registers/0/fields/3/onWrite|software cannot write",
                "\"lowBit\": 16|\"lowBit\": \"PLACE\"|/registers/0/fields/3|no parameter PLACE",
                "\"hardware\": \"set\"|\"hardware\": \"sets\"|/registers/0/fields/2/hardware|load",
                "\"software\": \"read-only\", ||/registers/0/fields/3|software",
                "\"lowBit\": 16|\"lowBit\": 32|/registers/0/fields/3/lowBit|0 to 31",
                "\"lowBit\": 16|\"lowBit\": 8|/registers/0/fields/3/lowBit|bits 31:9, 7:2 are free",
                "\"lowBit\": 4|\"lowBit\": 20|/registers/1/fields/0/lowBit|with WIDTH = 16",
                "\"width\": \"WIDTH\"|\"width\": \"WIDTH - 1\"|/registers/1/fields/0/width|1 to 32",
                "\"width\": \"WIDTH\"|\"width\": \"1 + 8 / (16 -"
                        + " WIDTH)\"|/registers/1/fields/0/width|division by zero",
                "\"lookupTables\": 1|\"lookupTables\": \"\\\"few\\\"\"|/resources/lookupTables|a"
                        + " number is needed",
                "\"reset\": 1|\"reset\": 17|/registers/1/fields/0/reset|-8 to 15",
                "\"reset\": 1|\"reset\": \"7 +\"|/registers/1/fields/0/reset|7 +",
                "\"offset\": 8|\"offset\": 6|/registers/1/offset|0x8 is the next one",
                "\"offset\": 8|\"offset\": 4088|/registers/1/offset|with VOICES = 8",
                "\"offset\": \"4 * VOICES + 8\"|\"offset\": 16|/registers/2/offset|0x28 is free",
                "\"offset\": \"4 * VOICES + 8\"|\"offset\": 0|/registers/2/offset|lies on CONTROL",
                "\"count\": \"VOICES\"|\"count\": \"VOICES - 1\"|/registers/1/count|1 to 1048576",
                "\"stride\": 4|\"stride\": 2|/registers/1/stride|at least 4",
                "\"initial\": \"4\"|\"initial\": \"40\"|/parameters/0/initial|1 to 16",
                "\"name\": \"VOICES\"|\"name\": \"CLOCK\"|/parameters/1/name|another name",
                "\"input\": \"CONTROL.LEVEL\"|\"input\":"
                        + " \"CONTROL.LEVELS\"|/provides/0/lines/input|CONTROL.LEVEL",
                "{ \"lines\": { \"registers\": \"registers\", |{ \"lines\":"
                        + " {|/provides/0/lines|registers",
                "\"lines\": { \"registers\": \"registers\"|\"lines\": { \"registers\":"
                        + " \"bus\"|/provides/0/lines/registers|there is registers"
            })
    void aNameThatLeadsNowhereIsAnErrorWithLineAndKey(
            String from, String to, String place, String says) {
        assertThat(SECOND).contains(from);
        String changed = SECOND.replace(from, to == null ? "" : to);
        BlockTypeDocument.read("siren/block-type.json", SECOND);
        assertThatThrownBy(() -> BlockTypeDocument.read("siren/block-type.json", changed))
                .isInstanceOf(DocumentException.class)
                .hasMessageContainingAll("siren/block-type.json", "line ", place, says);
    }
}
