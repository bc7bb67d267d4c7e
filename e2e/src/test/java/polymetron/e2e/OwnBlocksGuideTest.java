package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.bench.foreign.ForeignModels;
import polymetron.server.RunningServer;

/** Follows docs/own-blocks.md step by step: each step that is written is done here, in the same words, and no other. */
final class OwnBlocksGuideTest extends BrowserTest {
    private final String guide;
    private final List<String> done = new ArrayList<>();
    private Page page;

    OwnBlocksGuideTest(RunningServer server) throws IOException {
        super(server);
        guide = Files.readString(Path.of("../docs/own-blocks.md"));
    }

    /** The next step of the guide, as it is written. */
    private void step(String text) {
        int number = done.size() + 1;
        assertThat(guide).contains("\n%s. %s\n".formatted(number, text));
        done.add(text);
    }

    private Locator button(String name) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    private Locator named(String label) {
        return page.getByLabel(label, new Page.GetByLabelOptions().setExact(true));
    }

    private void write(String label, String text) {
        named(label).fill(text);
        named(label).blur();
    }

    private void file(String label, String name, String text) {
        named(label)
                .setInputFiles(
                        new FilePayload(name, "text/plain", text.getBytes(StandardCharsets.UTF_8)));
    }

    @Test
    void theGuideLeadsToWhatItSays() {
        step("Open *Library* and choose *New block type*.");
        page = browser.open("/library");
        page.getByText("New block type").click();
        step(
                "Write `Chime` as the title and `bellworks`, `io`, `chime`, `1.0` as the identity,"
                        + " and `chime` as the default name.");
        write("Title", "Chime");
        write("vendor", "bellworks");
        write("library", "io");
        write("name", "chime");
        write("version", "1.0");
        write("Default name", "chime");
        step(
                "There is a register `LINES` already, with a bit for each of the four lines. Choose"
                        + " *Add a register*, name it `STROKES`, and its field `MOST`.");
        button("Add a register").click();
        assertThat(named("Name of register 1")).isFocused();
        page.keyboard().type("STROKES");
        write("Name of field 0 of STROKES", "MOST");
        step("Write `+8` as the bits of `MOST` (the next eight), and `9` as its reset value.");
        write("Bits of STROKES.MOST", "+8");
        write("Reset value of STROKES.MOST", "9");
        assertThat(page.getByLabel("Bits of STROKES", new Page.GetByLabelOptions().setExact(true)))
                .containsText("7:0");
        Browser.assertAccessible(page);
        step("Choose *Begin with a module*, then *Begin with a driver*.");
        button("Begin with a module").click();
        button("Begin with a driver").click();
        assertThat(page.getByText("Nothing is wrong.", new Page.GetByTextOptions().setExact(true)))
                .isVisible();
        step("Choose *Save*.");
        button("Save").click();
        assertThat(page.getByText("Block saved")).isVisible();

        step("Start a platform `Bells` on the *Sluice control board* from the recipe *Console*.");
        String id =
                server.post(
                                "/api/platforms",
                                "{\"name\": \"Bells\", \"board\": \"polymetron:boards:sluice:1.0\","
                                        + " \"recipe\": \"console\"}")
                        .json()
                        .get("id")
                        .stringValue();
        page.navigate("/p/" + id + "/compose");
        assertThat(page.locator("[data-card][data-block=console]")).isVisible();
        step(
                "In *Compose* press `a`, type `chime`, and press Enter twice: the block is on the"
                    + " bus, and its lines go to the four gate drives, the only part that fits.");
        page.keyboard().press("a");
        page.keyboard().type("chime");
        page.keyboard().press("Enter");
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("gate_drives");
        page.keyboard().press("Enter");
        assertThat(page.getByLabel("Inspector")).containsText("chime");
        assertThat(page.getByTestId("findings-summary")).hasText("No findings");
        step("In *Boot* choose a program that writes 5 to `LINES`.");
        server.upload(
                "/api/platforms/" + id + "/programs?name=five.hex",
                fiveToTheLines().getBytes(StandardCharsets.US_ASCII));
        step(
                "In *Bench* choose *Load and run*: gate drives 0 and 2 are on. It is the Verilog"
                        + " that runs, in a process of its own.");
        page.navigate("/p/" + id + "/bench");
        page.getByText("Load and run").click();
        // The model is built first, which takes a loaded machine a while.
        assertThat(page.getByLabel("Lamp 0 lit"))
                .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(90_000));
        assertThat(page.getByLabel("Lamp 2 lit")).isVisible();
        assertThat(page.getByLabel("Lamp 1 dark").first()).isVisible();
        page.getByLabel("Registers")
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("chime"))
                .click();
        if (new ForeignModels(Path.of("target/models")).isPossible()) {
            assertThat(page.getByText("The HDL of this block runs here.")).isVisible();
        }

        verilog();
        newVersion(id);
        assertThat(guide).doesNotContain("\n%s. ".formatted(done.size() + 1));
        browser.assertNoComplaints();
    }

    private void verilog() {
        step(
                "Open *Library*, choose *New block type*, then *From HDL files …* and the file: its"
                        + " bus stays unassigned, because `s_axi_bvalid` has to be an output.");
        String begun = guide.substring(guide.indexOf("```verilog\n") + 11);
        String text = begun.substring(0, begun.indexOf("```"));
        page.navigate("/blocks/edit");
        file("HDL files of the block", "strobe_unit.v", text);
        Locator found = page.getByLabel("What the files have");
        assertThat(found).containsText("unassigned");
        assertThat(found)
                .containsText("target of AXI4-Lite but for this: s_axi_bvalid has to be an output");
        step(
                "Change that line of the file to `output reg s_axi_bvalid`, and choose *From HDL"
                        + " files …* again: now the ports are a clock, a reset that is inverted,"
                        + " AXI4-Lite, and lines.");
        file(
                "HDL files of the block",
                "strobe_unit.v",
                text.replace("input reg s_axi_bvalid", "output reg s_axi_bvalid"));
        assertThat(found).containsText("target of AXI4-Lite registers");
        assertThat(found).containsText("it is inverted");
        assertThat(found).not().containsText("unassigned");
        Browser.assertAccessible(page);
        step("Choose *Compile*: Verilator looks at the files, and nothing is wrong.");
        if (new ForeignModels(Path.of("target/models")).compilers().isPresent()) {
            button("Compile").click();
            assertThat(page.getByLabel("Compilers"))
                    .containsText("Verilator, 1 set of parameters: nothing is wrong.");
            Browser.assertAccessible(page);
        }
        if (new ForeignModels(Path.of("target/models")).sizes().isPresent()) {
            button("Measure the size").click();
            assertThat(page.getByLabel("Size", new Page.GetByLabelOptions().setExact(true)))
                    .containsText("flip-flops66100");
            button("Put into the definition").click();
            assertThat(page.getByLabel("Size", new Page.GetByLabelOptions().setExact(true)))
                    .containsText("flip-flops6666");
            assertThat(page.getByText("Put into the definition")).not().isVisible();
        }
        registersOfTheUnit();
        step("Write `lamps` as the board parts of `strobes`, and choose *Save*.");
        write("Board parts for strobes", "lamps");
        assertThat(page.getByText("Nothing is wrong.", new Page.GetByTextOptions().setExact(true)))
                .isVisible();
        button("Save").click();
        assertThat(page.getByText("Block saved").last()).isVisible();
        page.navigate("/library");
        assertThat(page.getByLabel("Block types")).containsText("Strobe unit");
    }

    private void registersOfTheUnit() {
        step(
                "Choose *Add a register*, name it `LEVEL`, and its field `WORD`; write `31:0` as"
                        + " its bits.");
        button("Add a register").click();
        page.keyboard().type("LEVEL");
        write("Name of field 0 of LEVEL", "WORD");
        write("Bits of LEVEL.WORD", "31:0");
        boolean runs = new ForeignModels(Path.of("target/models")).isPossible();
        Locator test = page.getByLabel("Self-test of the registers");
        LocatorAssertions.ContainsTextOptions patient =
                new LocatorAssertions.ContainsTextOptions().setTimeout(90_000);
        step(
                "Choose *Test the registers*: a byte that is written alone changes the others too,"
                        + " for the module does not look at `s_axi_wstrb`.");
        if (runs) {
            button("Test the registers").click();
            assertThat(test).containsText("after byte 0 alone is written", patient);
            Browser.assertAccessible(page);
        }
        step(
                "Choose the file `strobe_unit.v`, replace `level <= s_axi_wdata;` by the lines"
                        + " below, and choose *Test again*: the HDL does what the registers say.");
        String behind = guide.substring(guide.indexOf("replace `level <= s_axi_wdata;`"));
        String lines = behind.substring(behind.indexOf("```verilog\n") + 11);
        button("strobe_unit.v").click();
        Locator text = page.getByLabel("Text of strobe_unit.v");
        text.fill(
                text.inputValue()
                        .replace(
                                "level <= s_axi_wdata;",
                                lines.substring(0, lines.indexOf("```")).strip()));
        text.blur();
        if (runs) {
            assertThat(test).containsText("The block was changed since.");
            button("Test again").click();
            assertThat(test).containsText("the HDL does what the registers say", patient);
        }
        step(
                "Choose *Begin with a test*, then *Run the tests*: it gives the module inputs at"
                        + " random and passes, and notices none of the planted faults, for it looks"
                        + " at nothing yet.");
        button("Begin with a test").click();
        if (runs) {
            button("Run the tests").click();
            Locator tests = page.getByLabel("Tests of the HDL");
            assertThat(tests).containsText("strobe_unit_fitted_test.v passes", patient);
            assertThat(tests).containsText("0 of ");
            tests.getByText("Faults with which the tests pass").click();
            assertThat(tests).containsText("strobe_unit.v:");
            Browser.assertAccessible(page);
        }
    }

    private void newVersion(String platform) {
        step(
                "Open the chime in the *Library*, choose *Edit*, then *New version*; name the"
                    + " register `STROKES` `PACE` instead, remove the files, begin with both again,"
                    + " and choose *Save*.");
        page.navigate("/library/bellworks:io:chime:1.0");
        page.getByText("Edit", new Page.GetByTextOptions().setExact(true)).click();
        assertThat(page.getByText("Nothing is wrong.", new Page.GetByTextOptions().setExact(true)))
                .isVisible();
        button("New version").click();
        assertThat(named("version")).hasValue("1.1");
        write("Name of register 1", "PACE");
        button("Remove bellworks_chime.v").click();
        button("Remove chime.h").click();
        button("Begin with a module").click();
        button("Begin with a driver").click();
        button("Save").click();
        assertThat(page.getByText("Block saved").last()).isVisible();
        step(
                "On the platform choose the chime, then *newer: 1.1…*: what changes for software is"
                        + " listed, and *Change to 1.1* changes it in one step.");
        page.navigate("/p/" + platform + "/compose");
        page.locator("[data-card][data-block=chime]").click();
        page.getByLabel("Inspector").getByText("newer: 1.1…").click();
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("STROKES");
        page.getByText("Change to 1.1").click();
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
        assertThat(page.getByTestId("findings-summary")).hasText("No findings");
    }

    /** Stores 5 to the chime's first register at 0x1000_1000, and stays there (RISC-V Unprivileged ISA, RV32I). */
    private static String fiveToTheLines() {
        int[] code = {0x10001537, 0x00500593, 0x00b52023, 0x0000006f};
        StringBuilder hex = new StringBuilder();
        for (int at = 0; at < code.length; at++) {
            hex.append(record("04%04X00%08X".formatted(4 * at, Integer.reverseBytes(code[at]))));
        }
        return hex.append(record("0400000500000000")).append(record("00000001")).toString();
    }

    /** A line of Intel HEX with its checksum. */
    private static String record(String digits) {
        int sum = 0;
        for (int at = 0; at < digits.length(); at += 2) {
            sum += Integer.parseInt(digits.substring(at, at + 2), 16);
        }
        return ":%s%02X\n".formatted(digits, -sum & 0xFF);
    }
}
