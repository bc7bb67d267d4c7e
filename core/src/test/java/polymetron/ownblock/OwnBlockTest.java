package polymetron.ownblock;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.board.Parts;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.json.DocumentException;
import polymetron.library.BlockType;
import polymetron.library.Board;
import polymetron.library.Library;
import polymetron.library.ResetInput;
import polymetron.library.StreamType;
import polymetron.outside.Tool;
import polymetron.platform.Platform;

final class OwnBlockTest {
    static final String DOCUMENT =
            """
            {
              "format": "polymetron-own-block/1",
              "definition": {
                "format": "polymetron-block-type/2", "identity": "bellworks:io:chime:1.0", "kind": "peripheral",
                "title": "Chime", "summary": "Hammers", "description": "It strikes.", "defaultName": "chime",
                "clocks": [{ "name": "clk" }], "resets": [{ "name": "rst", "clock": "clk" }],
                "busInterfaces": [{ "name": "registers", "role": "target", "protocols": ["apb"], "dataWidth": 32,
                  "size": 4096, "usage": "registers", "executable": false }],
                "interrupts": [{ "name": "irq", "end": "source", "line": "device", "trigger": "high" }],
                "outward": [{ "name": "hammers", "title": "hammers", "partKinds": ["lamps"],
                  "ports": [{ "name": "value", "direction": "\\"out\\"", "width": 4 }] }],
                "registers": [
                  { "name": "STATUS", "explains": "", "fields": [
                    { "name": "DONE", "software": "read-write", "onWrite": "clear-ones", "hardware": "set",
                      "explains": "struck" },
                    { "name": "COUNT", "width": 6, "software": "read-only", "hardware": "value", "explains": "" }] },
                  { "name": "TIME", "width": 64, "explains": "", "fields": [
                    { "name": "CYCLES", "width": 64, "software": "read-only", "hardware": "value", "explains": "" }] },
                  { "name": "LEVEL", "explains": "", "count": 3, "fields": [
                    { "name": "LOUD", "width": 4, "software": "read-write", "explains": "" },
                    { "name": "SOFT", "lowBit": 8, "software": "read-write", "explains": "" }] }
                ],
                "resources": { "lookupTables": 20, "flipFlops": 20, "multipliers": 0 },
                "hardware": { "module": "bellworks_chime", "files": ["bellworks_chime.v"] },
                "software": { "compatible": ["bellworks,chime-1.0"], "driver": "chime.h" }
              }
            }
            """;

    private static OwnBlock with(OwnBlock block, String module) {
        TreeMap<String, String> files = new TreeMap<>();
        files.put("bellworks_chime.v", module);
        TreeMap<String, String> drivers = new TreeMap<>();
        drivers.put("chime.h", DriverSkeleton.of(block.type()));
        return new OwnBlock(block.type(), block.definition(), files, drivers);
    }

    private static List<String> problems(OwnBlock block) {
        return OwnBlockChecks.of(block, Shipped.LIBRARY).stream()
                .map(each -> each.at() + ": " + each.what())
                .toList();
    }

    @Test
    void openPlacesAreFilled() {
        BlockType type = OwnBlockDocument.read("chime.json", DOCUMENT).type();
        assertThat(type.registers())
                .extracting(each -> each.name() + " " + each.offset())
                // 64 bits begin at a multiple of eight.
                .containsExactly("STATUS 0", "TIME 8", "LEVEL 16");
        assertThat(type.registers().getLast().fields())
                .extracting(each -> each.name() + " " + each.lowBit())
                .containsExactly("LOUD 0", "SOFT 8");
    }

    @Test
    void theSkeletonFitsAndSaysWhatItLeaves() {
        OwnBlock block = OwnBlockDocument.read("chime.json", DOCUMENT);
        String module = LogicSkeleton.of(block.type());
        assertThat(module)
                .contains("output wire STATUS_DONE_set")
                .contains("output wire [5:0] STATUS_COUNT,")
                .contains("input  wire [(3 * 4)-1:0] LEVEL_LOUD")
                .contains("assign irq = 1'b0; // at rest until there is logic for it");
        assertThat(problems(with(block, module))).isEmpty();
    }

    /** Each deviation of the module from the definition is said, with its line. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    output wire irq                     | input wire irq                 | port irq has to be an output
                    output wire [3:0] value             | output wire [4:0] value        | port value has 5 bits, and the definition says 4
                    output wire [3:0] value             | output wire [3:0] shown        | module bellworks_chime needs an output [3:0] value: of hammers
                    output wire STATUS_DONE_set         | output wire STATUS_STRUCK_set  | port STATUS_STRUCK_set is nothing that the definition has
                    module bellworks_chime              | module polymetron_fifo         | there is a module polymetron_fifo in the library or in another block; rename it
                    assign irq = 1'b0;                  | initial $system("ls");         | $system is refused: a block may compute and report, and read its own memory files; it reaches nothing else of the machine
                    assign irq = 1'b0;                  | initial $readmemh("../x", m);  | $readmemh("../x" is refused: only files beside it can be named
                    `default_nettype none               | `include "/etc/passwd"         | `include "/etc/passwd" is refused: only files beside it can be named
                    `default_nettype none               | `define A(x) $sys``x           | `` is refused: with it a macro makes names that cannot be looked at
                    assign irq = 1'b0;                  | import "DPI-C" function int f(); | import "DPI-C" is refused: DPI calls foreign code
                    """)
    void deviationsAreSaid(String from, String to, String what) {
        OwnBlock block = OwnBlockDocument.read("chime.json", DOCUMENT);
        String module = LogicSkeleton.of(block.type());
        assertThat(module).contains(from);
        assertThat(problems(with(block, module.replace(from, to))))
                .anySatisfy(
                        each ->
                                assertThat(each)
                                        .matches("bellworks_chime\\.v:\\d+: .*")
                                        .endsWith(": " + what));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    bellworks:io:chime:1.0     | polymetron:io:chime:1.0 | /definition/identity: polymetron is the vendor of the blocks that come with Polymetron; write your own
                    "defaultName": "chime"     | "defaultName": "Chime"  | /definition/defaultName: 'Chime' is no name of lower-case letters, digits and single underscores that begins with a letter, 32 at most
                    "name": "STATUS"           | "name": "STATUS*/"      | /definition/registers/0/name: 'STATUS*/' is no name of upper-case letters, digits and single underscores that begins with a letter, 32 at most
                    bellworks,chime-1.0        | a\\";evil            | /definition/software/compatible: 'a";evil' is no compatible of a devicetree; write vendor,name-1.0
                    "name": "irq"              | "name": "value"         | /definition: value is an interrupt and a line; one of them needs another name
                    """)
    void namesAreLegalEverywhere(String from, String to, String problem) {
        OwnBlock block = OwnBlockDocument.read("chime.json", DOCUMENT.replace(from, to));
        assertThat(problems(block)).contains(problem);
    }

    @Test
    void wrongDocumentsSayWhere() {
        assertThatThrownBy(
                        () ->
                                OwnBlockDocument.read(
                                        "chime.json",
                                        DOCUMENT.replace("\"lowBit\": 8", "\"lowBit\": 2")))
                .isInstanceOf(DocumentException.class)
                .hasMessageContaining("chime.json, line ")
                .hasMessageContaining("at /definition/registers/2")
                .hasMessageContaining("SOFT");
        assertThatThrownBy(
                        () ->
                                OwnBlockDocument.read(
                                        "chime.json",
                                        DOCUMENT.replaceFirst(
                                                "(?s)\\}\\s*\\}\\s*$",
                                                "}, \"hardware\": [{\"name\": \"../x.v\","
                                                        + " \"lines\": []}]}")))
                .hasMessageContaining("'../x.v' is not a file name");
    }

    @Test
    void tablesBecomeRegisters() {
        String read =
                RegisterTable.read(
                        "Register\tOffset\tField\tBits\tAccess\tReset\tDescription\n"
                                + "Control\t0x00\tEnable\t0\tRW\t0\tstarts it\n"
                                + "\t\tMode\t[3:1]\tRW\t5\t\"two, three\"\n"
                                + "Status\t4\tDone\t0\tW1C\t\tstruck\n"
                                + "\t\tCount\t15:8\tRO\t\t\n");
        assertThat(read.replace(" : ", ": "))
                .contains("\"name\": \"CONTROL\"", "\"lowBit\": 1", "\"width\": 3", "\"reset\": 5")
                .contains("\"explains\": \"two, three\"", "\"onWrite\": \"clear-ones\"")
                .contains("\"hardware\": \"set\"", "\"hardware\": \"value\"");
        String whole =
                DOCUMENT.replaceFirst(
                        "(?s)\"registers\": \\[\\s*\\{ \"name\":"
                                + " \"STATUS\".*?\\],\\s*\"resources\"",
                        "\"registers\": "
                                + read.replace("\\", "\\\\").replace("$", "\\$")
                                + ", \"resources\"");
        assertThat(OwnBlockDocument.read("chime.json", whole).type().registers()).hasSize(2);
        assertThat(
                        RegisterTable.read(
                                        "register,width,whole,field,bits\n"
                                                + "TIME,64,yes,TICKS,63:0\n"
                                                + "MASK,64,,BITS,63:0\n")
                                .split("\"whole\" : true"))
                .hasSize(2)
                .satisfies(parts -> assertThat(parts[0]).contains("TIME").doesNotContain("MASK"));
        assertThatThrownBy(() -> RegisterTable.read("register,whole\nTIME,perhaps"))
                .hasMessage("row 2: 'perhaps' is neither yes nor no for whole");
        assertThatThrownBy(() -> RegisterTable.read("CONTROL,0,ENABLE,0,RX,0,"))
                .hasMessage(
                        "row 1: 'RX' is no access; write read-only, write-only, read-write, or RO,"
                                + " WO, RW, W1C, W1S, RC");
        assertThatThrownBy(() -> RegisterTable.read("CONTROL,0,ENABLE,a:b,RW,0,"))
                .hasMessage("row 1: 'a:b' are no bits; write 7:0 or 3");
        assertThatThrownBy(() -> RegisterTable.read("register,colour\nA,B"))
                .hasMessageContaining("row 1: there is no column 'colour'");
        assertThatThrownBy(() -> RegisterTable.read(""))
                .hasMessageContaining("there is no register");
    }

    /** No module can be made of such names, and nothing breaks on them. */
    @Test
    void namesThatComeToOneAreSaid() {
        String chime = OwnBlockExamples.chime();
        String fields =
                chime.replace("\"SOFT\"", "\"A_B\"")
                        .replace("\"TIME\"", "\"LEVEL_A\"")
                        .replace("\"CYCLES\"", "\"B\"");
        assertThat(problems(OwnBlockDocument.read("chime.json", fields)))
                .containsExactly(
                        "/definition/registers/2/fields/1/name: LEVEL.A_B and LEVEL_A.B are both"
                                + " called LEVEL_A_B in hardware; rename one of them");
        String line = chime.replaceFirst("\"name\"\\s*:\\s*\"value\"", "\"name\" : \"clk\"");
        assertThat(problems(OwnBlockDocument.read("chime.json", line)))
                .containsExactly(
                        "/definition: clk is a clock and a line; one of them needs another name");
    }

    @Test
    void onlyWideRegistersAreWhole() {
        String whole =
                DOCUMENT.replace(
                        "\"width\": 64, \"explains\"",
                        "\"width\": 64, \"whole\": true, \"explains\"");
        assertThat(OwnBlockDocument.read("chime.json", whole).type().registers().get(1).meaning())
                .startsWith("Whole: the lower word is read first");
        assertThatThrownBy(
                        () ->
                                OwnBlockDocument.read(
                                        "chime.json",
                                        DOCUMENT.replace(
                                                "\"LEVEL\",", "\"LEVEL\", \"whole\": true,")))
                .hasMessageContaining("/definition/registers/2/whole: an access has 32 bits");
    }

    @Test
    void changesOfTheInterfaceAreNamed() {
        BlockType before = OwnBlockDocument.read("chime.json", DOCUMENT).type();
        assertThat(
                        InterfaceChanges.between(
                                before,
                                OwnBlockDocument.read(
                                                "chime.json",
                                                DOCUMENT.replace("It strikes.", "It strikes hard."))
                                        .type()))
                .isEmpty();
        assertThat(
                        InterfaceChanges.between(
                                before,
                                OwnBlockDocument.read(
                                                "chime.json",
                                                DOCUMENT.replace(
                                                                "\"width\": 4 }] }]",
                                                                "\"width\": 5 }] }]")
                                                        .replace(
                                                                "\"name\": \"irq\"",
                                                                "\"name\": \"struck\"")
                                                        .replace(
                                                                "\"name\": \"SOFT\", \"lowBit\": 8",
                                                                "\"name\": \"SOFT\", \"lowBit\":"
                                                                        + " 9"))
                                        .type()))
                .containsExactly(
                        "interrupt irq is gone",
                        "outward interface hammers is another",
                        "field of LEVEL SOFT is another");
    }

    /** After a change of one file the others are looked at: what is connected that is gone, and what is new and is not. */
    @Test
    void whatNoLongerFitsAfterAChangeIsListed() {
        String inner =
                """
                module unit #(parameter W = 4) (
                    input clk,
                    input rst,
                    output [W-1:0] leds
                );
                    assign leds = {W{clk & rst}};
                endmodule
                """;
        TreeMap<String, String> files = new TreeMap<>();
        files.put("unit.v", inner);
        var module = polymetron.hdl.VerilogReader.read(files).modules().getFirst();
        OwnBlock block = HdlProposal.of(files, module, "bellworks").block();
        assertThat(problems(block)).isEmpty();
        TreeMap<String, String> changed = new TreeMap<>(block.hardware());
        changed.put(
                "unit.v",
                inner.replace("input rst", "input reset")
                        .replace("clk & rst", "clk & reset")
                        .replace("output [W-1:0] leds", "output [W-1:0] leds, output spare"));
        assertThat(
                        problems(
                                new OwnBlock(
                                        block.type(),
                                        block.definition(),
                                        changed,
                                        block.drivers())))
                .containsExactly(
                        "unit_fitted.v:11: module unit has no port rst any more; take its"
                                + " connection out",
                        "unit_fitted.v:11: input reset of module unit is not connected; add"
                                + " .reset(…)");
    }

    @Test
    void aDriverOfTheLibraryIsNotReplaced() {
        OwnBlock block = OwnBlockDocument.read("chime.json", DOCUMENT.replace("chime.h", "uart.h"));
        TreeMap<String, String> drivers = new TreeMap<>();
        drivers.put("uart.h", DriverSkeleton.of(block.type()));
        assertThat(
                        problems(
                                new OwnBlock(
                                        block.type(),
                                        block.definition(),
                                        new TreeMap<>(),
                                        drivers)))
                .contains(
                        "/drivers: uart.h is the driver of polymetron:processor:hard-complex:1.0;"
                                + " give it another name");
    }

    /** What asks at a bus has all of its addresses. */
    @Test
    void anInitiatorHasWholeAddresses() {
        String text =
                DOCUMENT.replaceFirst(
                        "\"busInterfaces\": \\[",
                        "\"busInterfaces\": [{ \"name\": \"memory\", \"role\": \"initiator\","
                                + " \"protocols\": [\"axi4-lite\"], \"dataWidth\": 32,"
                                + " \"addressWidth\": 32, \"executable\": false },");
        String module = LogicSkeleton.of(OwnBlockDocument.read("chime.json", text).type());
        assertThat(module)
                .contains("output wire [31:0] memory_address", "input  wire memory_done")
                .contains("// memory: an access is requested, until the cycle in which it is done");
    }

    /** With several clocks a stream that is taken for one of another clock would lose words. */
    @Test
    void interfacesAreInTheClockThatIsNamedLikeThem() {
        TreeMap<String, String> files = new TreeMap<>();
        files.put(
                "m.v",
                """
                module m (
                    input axis_aclk, input s_axi_aclk, input sys_clk, input s_axi_aresetn, input axis_aresetn,
                    input [7:0] s_apb_paddr, input s_apb_psel, input s_apb_penable, input s_apb_pwrite,
                    input [31:0] s_apb_pwdata, output s_apb_pready, output [31:0] s_apb_prdata, output s_apb_pslverr,
                    input [7:0] s_axis_tdata, input s_axis_tvalid, output s_axis_tready,
                    output [7:0] s_axi_out_tdata, output s_axi_out_tvalid, input s_axi_out_tready,
                    output [7:0] other_tdata, output other_tvalid, input other_tready
                );
                endmodule
                """);
        BlockFromHdl found = BlockFromHdl.of(files, null, "own");
        assertThat(found.problems()).isEmpty();
        BlockType type = found.block().type();
        // The first clock is called clk.
        assertThat(type.resets())
                .extracting(ResetInput::clock)
                .containsExactly("s_axi_aclk", "clk");
        assertThat(type.streams())
                .extracting(StreamType::clock)
                .containsExactly("clk", "s_axi_aclk", "clk");
        assertThat(found.reasons())
                .filteredOn(each -> each.port().matches("(s_axis|other)_tdata"))
                .extracting(HdlProposal.Reason::why)
                .containsExactly(
                        "named like tdata, with its direction; in axis_aclk, which is named like"
                                + " it",
                        "named like tdata, with its direction; in axis_aclk, as no clock is named"
                                + " like it");
    }

    /** A port that is called as a clock is in many a circuit diagram. */
    @Test
    void aNameThatIsAWordOfSystemVerilogIsExplained() {
        TreeMap<String, String> files = new TreeMap<>();
        files.put("m.v", "module m (input clk, input ref, output reg q);\nendmodule\n");
        assertThat(BlockFromHdl.of(files, null, "own").problems())
                .anyMatch(
                        each ->
                                each.at().equals("m.v:1")
                                        && each.what().startsWith("'ref' cannot be read here: ")
                                        && each.what().contains("word of SystemVerilog"));
    }

    /** A memory file that is named by a parameter: then no string of the block is a path, wherever it stands. */
    @Test
    void memoryFilesAreThoseBeside() {
        String text =
                """
                module m #(parameter FILE = "") (input clk);
                    reg [7:0] words [0:3];
                    initial if (FILE != "") $readmemh(FILE, words);
                    initial $display("a/b and ../c are only printed");
                endmodule
                """;
        TreeMap<String, String> files = new TreeMap<>();
        files.put("m.v", text);
        assertThat(RefusedHdl.of(files)).isEmpty();
        files.put(
                "n.v",
                "module n (input clk);\n m #(.FILE(\"/etc/passwd\")) i (.clk(clk));\nendmodule\n");
        assertThat(RefusedHdl.of(files))
                .singleElement()
                .satisfies(
                        each -> {
                            assertThat(each.at()).isEqualTo("n.v:2");
                            assertThat(each.what()).startsWith("\"/etc/passwd\" is refused");
                        });
    }

    /** What is written to take long is looked at in time that grows with its length only. */
    @Test
    @Timeout(30)
    void nothingHangs() {
        TreeMap<String, String> files = new TreeMap<>();
        files.put("m.v", "$ ".repeat(500_000));
        assertThat(RefusedHdl.of(files)).hasSize(100);
        StringBuilder uses =
                new StringBuilder("module u (input a); endmodule\nmodule m (input b);\n");
        uses.append("u u (.a(b));\n".repeat(70_000)).append("endmodule\n");
        files.put("m.v", uses.toString());
        assertThat(BlockFromHdl.of(files, null, "own").module()).isEqualTo("m");
    }

    /** A map of 10,000 registers is not compared pair by pair: what would take hours has no part in it. */
    @Test
    @Timeout(120)
    void tenThousandRegistersHaveModuleAndDriver() {
        StringBuilder rows = new StringBuilder("register,field,bits,access\n");
        for (int at = 0; at < 10_000; at++) {
            rows.append("R%s,VALUE,31:0,RW\n".formatted(at));
        }
        String registers = RegisterTable.read(rows.toString());
        int from = DOCUMENT.indexOf("\"registers\": [");
        int to = DOCUMENT.indexOf("\"resources\"");
        OwnBlock block =
                OwnBlockDocument.read(
                        "large",
                        (DOCUMENT.substring(0, from)
                                        + "\"registers\": "
                                        + registers
                                        + ", "
                                        + DOCUMENT.substring(to))
                                .replace("\"size\": 4096", "\"size\": 65536"));
        assertThat(block.type().registers()).hasSize(10_000);
        assertThat(DriverSkeleton.of(block.type())).contains("chime_set_r9999_value(");
        assertThat(LogicSkeleton.of(block.type())).contains("R9999_VALUE");
    }

    /** Buses of each protocol and both ends, with nothing but what they cannot do without, are found and fitted. */
    @ParameterizedTest
    @CsvSource({
        "axi4-lite, target", "axi4-lite, initiator", "axi4, target", "axi4, initiator",
                "ahb-lite, target",
        "ahb-lite, initiator", "apb, target", "apb, initiator", "wishbone-b4, target",
                "wishbone-b4, initiator"
    })
    void bothEndsOfEachProtocolAreFound(String protocol, String role, @TempDir Path folder) {
        Map<String, String> signals =
                Map.of(
                        "axi4-lite",
                        "awaddr32 awvalid awready< wdata32 wvalid wready< bvalid< bready araddr32"
                                + " arvalid arready< rdata32< rvalid< rready",
                        "axi4",
                        "awaddr32 awlen8 awvalid awready< wdata32 wvalid wready< bvalid< bready"
                            + " araddr32 arlen8 arvalid arready< rdata32< rlast< rvalid< rready",
                        "ahb-lite",
                        "haddr32 htrans2 hwrite hwdata32 hrdata32< hready<",
                        "apb",
                        "paddr32 psel penable pwrite pwdata32 prdata32<",
                        "wishbone-b4",
                        "cyc stb we adr32 dat_w32 dat_r32< ack<");
        StringBuilder ports = new StringBuilder("input clk, input rst_n");
        for (String each : signals.get(protocol).split(" ")) {
            boolean back = each.endsWith("<");
            String name = each.replaceAll("[0-9<]+$", "");
            String digits = each.replaceAll("\\D", "");
            ports.append(
                    ",\n    %s %sx_%s"
                            .formatted(
                                    back == role.equals("initiator") ? "input" : "output",
                                    digits.isEmpty()
                                            ? ""
                                            : "[%s:0] ".formatted(Integer.parseInt(digits) - 1),
                                    name));
        }
        TreeMap<String, String> files = new TreeMap<>();
        files.put("any_end.v", "module any_end (%s);\nendmodule\n".formatted(ports));
        BlockFromHdl found = BlockFromHdl.of(files, null, "bellworks");
        assertThat(found.reasons()).allSatisfy(each -> assertThat(each.became()).isNotEmpty());
        assertThat(found.block().type().busInterfaces())
                .singleElement()
                .satisfies(
                        each -> {
                            assertThat(each.protocols())
                                    .extracting(Object::toString)
                                    .containsExactly(protocol);
                            assertThat(each.role().toString()).isEqualTo(role);
                        });
        assertThat(problems(found.block())).isEmpty();
        assertThat(found.block().type().outward()).isEmpty();
        found.block().hardware().forEach((name, text) -> Tool.write(folder, name, text));
        String fitted = found.block().hardware().get("any_end_fitted.v");
        if (role.equals("initiator")) {
            assertThat(fitted)
                    .contains(
                            switch (protocol) {
                                case "axi4" -> "_awsize = 3'd2;";
                                case "ahb-lite" -> "_hready = x_hreadyout;";
                                case "wishbone-b4" -> "_sel = {4{1'b1}};";
                                case "apb" -> "_pstrb = {4{1'b1}};";
                                default -> "_wstrb = {4{1'b1}};";
                            });
        }
        Tool.run(
                folder,
                "iverilog -g2005 -Wall -s any_end_fitted -o x any_end.v any_end_fitted.v"
                        .split(" "));
    }

    /** Lines of HDL go to the board part that their name, direction and width fit, whatever the part calls its signal. */
    @ParameterizedTest
    @CsvSource({
        "output [7:0] leds, lamps header, lamps",
        "input [3:0] btn_i, buttons header, buttons",
        "input [7:0] sw, switches header, switches",
        "output [3:0] leds, lamps header, ",
        "input [7:0] leds, header, ",
        "output [7:0] skewed, header, "
    })
    void linesOfHdlAreProposedForPartsByName(String port, String kinds, String part) {
        TreeMap<String, String> files = new TreeMap<>();
        files.put("unit.v", "module unit (input clk, input rst, %s); endmodule\n".formatted(port));
        OwnBlock block = BlockFromHdl.of(files, null, "bellworks").block();
        assertThat(block.type().outward().getFirst().partKinds()).containsExactly(kinds.split(" "));
        Library library = Shipped.LIBRARY.with(block.type(), block.hardware(), block.drivers());
        Platform platform =
                new Editor(library)
                        .apply(
                                Platform.empty("Unit", Shipped.BOARD),
                                new Edit.AddBlock("unit", block.type().identity(), Map.of()));
        ElaboratedPlatform elaborated = new Elaborator(library).elaborate(platform);
        assertThat(new Parts(elaborated).fitting(elaborated.outward().getFirst()))
                .extracting(Board.Part::name)
                .isEqualTo(part == null ? List.of() : List.of(part));
    }
}
