package polymetron.ownblock;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.json.DocumentException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;

/** Memory maps of IEEE 1685 become registers; what they say in the editions of 2009 and 2014 is from memory. */
final class RegisterXmlTest {
    private static final String COMPONENT =
            """
            <?xml version="1.0" encoding="UTF-8"?>
            <ipxact:component xmlns:ipxact="http://www.accellera.org/XMLSchema/IPXACT/1685-2014">
              <ipxact:vendor>mill</ipxact:vendor><ipxact:name>stone</ipxact:name>
              <ipxact:memoryMaps><ipxact:memoryMap><ipxact:name>map</ipxact:name>
                <ipxact:addressBlock>
                  <ipxact:name>block</ipxact:name><ipxact:baseAddress>'h100</ipxact:baseAddress>
                  <ipxact:range>4096</ipxact:range><ipxact:width>32</ipxact:width>
                  %s
                </ipxact:addressBlock>
              </ipxact:memoryMap></ipxact:memoryMaps>
            </ipxact:component>
            """;

    private static JsonNode read(String registers) {
        return new ObjectMapper().readTree(RegisterImport.read(COMPONENT.formatted(registers)));
    }

    private static String register(String inside) {
        return """
        <ipxact:register><ipxact:name>Speed control</ipxact:name>
          <ipxact:description>How fast
            it turns.</ipxact:description>
          <ipxact:addressOffset>0x8</ipxact:addressOffset><ipxact:size>32</ipxact:size>
          %s
        </ipxact:register>
        """
                .formatted(inside);
    }

    private static String field(String name, String inside) {
        return """
        <ipxact:field><ipxact:name>%s</ipxact:name><ipxact:bitOffset>4</ipxact:bitOffset>
          <ipxact:resets><ipxact:reset><ipxact:value>3'd5</ipxact:value></ipxact:reset></ipxact:resets>
          <ipxact:bitWidth>3</ipxact:bitWidth>%s</ipxact:field>
        """
                .formatted(name, inside);
    }

    @Test
    void aRegisterHasWhatItsElementsSay() {
        JsonNode made =
                read(
                        register(
                                "<ipxact:dim>4</ipxact:dim>"
                                        + field("rate", "<ipxact:access>read-write</ipxact:access>")
                                        + field("reserved", "")));
        assertThat(made)
                .isEqualTo(
                        new ObjectMapper()
                                .readTree(
                                        """
                                        [ { "name": "SPEED_CONTROL", "offset": 264, "count": 4,
                                            "explains": "How fast it turns.",
                                            "fields": [ { "name": "RATE", "lowBit": 4, "width": 3,
                                              "software": "read-write", "reset": 5, "explains": "" } ] } ]
                                        """));
    }

    @ParameterizedTest
    @CsvSource(
            nullValues = "-",
            value = {
                "read-only, -, -, read-only, -, -, value",
                "read-write, oneToClear, -, read-write, clear-ones, -, set",
                "read-write, oneToSet, -, read-write, set-ones, -, -",
                "read-only, -, clear, read-only, -, clear, set",
                "write-only, -, -, write-only, -, -, -"
            })
    void accessesAndEffectsAreTranslated(
            String access,
            String onWrite,
            String onRead,
            String software,
            String written,
            String taken,
            String hardware) {
        String inside = "<ipxact:access>%s</ipxact:access>".formatted(access);
        if (onWrite != null) {
            inside +=
                    "<ipxact:modifiedWriteValue>%s</ipxact:modifiedWriteValue>".formatted(onWrite);
        }
        if (onRead != null) {
            inside += "<ipxact:readAction>%s</ipxact:readAction>".formatted(onRead);
        }
        JsonNode field = read(register(field("f", inside))).get(0).path("fields").get(0);
        assertThat(field.path("software").asString()).isEqualTo(software);
        assertThat(field.path("onWrite").asString("")).isEqualTo(written == null ? "" : written);
        assertThat(field.path("onRead").asString("")).isEqualTo(taken == null ? "" : taken);
        assertThat(field.path("hardware").asString("")).isEqualTo(hardware == null ? "" : hardware);
    }

    /** In the edition of 2009 the reset value is that of the register; a file of registers gives its name to them. */
    @Test
    void resetsOfRegistersAndFilesOfRegisters() {
        JsonNode made =
                read(
                        """
                        <ipxact:registerFile><ipxact:name>unit</ipxact:name><ipxact:dim>2</ipxact:dim>
                          <ipxact:addressOffset>16</ipxact:addressOffset><ipxact:range>8</ipxact:range>
                          <ipxact:register><ipxact:name>level</ipxact:name><ipxact:addressOffset>4</ipxact:addressOffset>
                            <ipxact:size>16</ipxact:size><ipxact:reset><ipxact:value>0x00_A5</ipxact:value></ipxact:reset>
                            <ipxact:field><ipxact:name>low</ipxact:name><ipxact:bitOffset>0</ipxact:bitOffset><ipxact:bitWidth>4</ipxact:bitWidth></ipxact:field>
                            <ipxact:field><ipxact:name>high</ipxact:name><ipxact:bitOffset>4</ipxact:bitOffset><ipxact:bitWidth>4</ipxact:bitWidth></ipxact:field>
                          </ipxact:register>
                        </ipxact:registerFile>
                        """);
        assertThat(made).hasSize(2);
        assertThat(made.get(0).path("name").asString()).isEqualTo("UNIT0_LEVEL");
        assertThat(made.get(1).path("name").asString()).isEqualTo("UNIT1_LEVEL");
        assertThat(made.get(1).path("offset").asInt()).isEqualTo(0x100 + 16 + 8 + 4);
        assertThat(made.get(1).path("width").asInt()).isEqualTo(16);
        assertThat(made.get(1).path("fields").get(0).path("reset").asInt()).isEqualTo(5);
        assertThat(made.get(1).path("fields").get(1).path("reset").asInt()).isEqualTo(0xA);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<ipxact:modifiedWriteValue>zeroToClear</ipxact:modifiedWriteValue> |"
                    + " SPEED_CONTROL.F: a write that does zeroToClear cannot be described here;"
                    + " oneToClear and oneToSet can",
                "<ipxact:readAction>set</ipxact:readAction> | SPEED_CONTROL.F: a read that does set"
                        + " cannot be described here",
                "<ipxact:access>often</ipxact:access> | SPEED_CONTROL.F: there is no access 'often'"
            })
    void whatCannotBeDescribedIsNamed(String inside, String message) {
        assertThatThrownBy(() -> read(register(field("f", inside))))
                .isInstanceOf(DocumentException.class)
                .hasMessage(message);
    }

    @Test
    void textThatIsNoComponentIsRefused() {
        assertThatThrownBy(() -> read("<ipxact:register>"))
                .isInstanceOf(DocumentException.class)
                .hasMessageStartingWith("it is no XML: ");
        assertThatThrownBy(() -> RegisterImport.read("<a/>"))
                .hasMessageStartingWith("there is no register in it; a component of IEEE 1685");
        String bomb =
                "<!DOCTYPE a [<!ENTITY b \"bb\"><!ENTITY c \"&b;&b;\">]>"
                        + COMPONENT.replaceFirst("<\\?xml.*\\?>", "").formatted("&c;");
        assertThatThrownBy(() -> RegisterImport.read(bomb))
                .isInstanceOf(DocumentException.class)
                .hasMessageContaining("DOCTYPE");
        assertThatThrownBy(
                        () ->
                                read(
                                        register("")
                                                .replace(
                                                        "0x8</ipxact:addressOffset>",
                                                        "OFFSET</ipxact:addressOffset>")))
                .hasMessage(
                        "SPEED_CONTROL: addressOffset is no number: OFFSET is a parameter; write"
                                + " its value");
    }

    @Test
    void filesWithoutEndAndDeepTextAreRefused() {
        String file =
                "<ipxact:registerFile><ipxact:name>f</ipxact:name><ipxact:dim>90000</ipxact:dim>";
        assertThatThrownBy(() -> read(file.repeat(3) + "</ipxact:registerFile>".repeat(3)))
                .hasMessageEndingWith("there are more than 100000 register files");
        String deep = "<a>".repeat(50_000) + "</a>".repeat(50_000);
        assertThatThrownBy(() -> read(register("<ipxact:size>" + deep + "</ipxact:size>")))
                .isInstanceOf(DocumentException.class);
    }

    @Test
    void tablesAreReadAsBefore() {
        String table = "register,field,bits,access\nLINES,VALUE,3:0,RW\n";
        assertThat(RegisterImport.read("\uFEFF" + table)).isEqualTo(RegisterTable.read(table));
    }
}
