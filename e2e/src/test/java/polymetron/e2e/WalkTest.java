package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.output.handoff.Handoff;
import polymetron.server.RunningServer;

/** The whole walk, from a bare board to a console that says hello. */
final class WalkTest extends BrowserTest {
    private Page page;

    WalkTest(RunningServer server) {
        super(server);
    }

    @AfterEach
    void keepTheLastPicture() {
        // What there was to see at the end, for whoever has to find out why it failed.
        page.screenshot(new Page.ScreenshotOptions().setPath(Path.of("target/walk-end.png")));
    }

    private Locator button(String name) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    private Locator field(String label) {
        return page.getByLabel(label, new Page.GetByLabelOptions().setExact(true));
    }

    private Locator card(String block) {
        return page.locator("[data-card][data-block='" + block + "']");
    }

    /** The name at the top of the inspector. */
    private Locator inspected(String block) {
        return page.getByLabel("Inspector")
                .getByRole(
                        AriaRole.BUTTON,
                        new Locator.GetByRoleOptions().setName(block).setExact(true))
                .first();
    }

    private Locator summary() {
        return page.getByTestId("findings-summary");
    }

    private void look() {
        Browser.assertNothingCut(page);
        Browser.assertAccessible(page);
    }

    private void goTo(String view) {
        page.getByRole(AriaRole.NAVIGATION, new Page.GetByRoleOptions().setName("Views"))
                .getByText(view, new Locator.GetByTextOptions().setExact(true))
                .click();
    }

    @Test
    void fromABareBoardToAConsoleThatSaysHello() throws IOException {
        start();
        compose();
        addresses();
        findings();
        handOff();
        boot();
        bench();
        browser.assertNoComplaints();
    }

    private void start() {
        page = browser.open("/");
        assertThat(
                        page.getByText("Ridge Station", new Page.GetByTextOptions().setExact(true))
                                .first())
                .isVisible();
        look();
        page.getByText("New platform").click();
        page.getByRole(AriaRole.RADIO)
                .filter(new Locator.FilterOptions().setHasText("Empty"))
                .click();
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Valley Station");
        look();
        button("Start").click();
        assertThat(page.getByText("Nothing is on the board yet")).isVisible();
        look();
    }

    /** Picks something in the dialog, reads the plan, and adds it. */
    private void add(String title, String name, String planned) {
        page.keyboard().press("a");
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        dialog.getByRole(AriaRole.BUTTON)
                .filter(
                        new Locator.FilterOptions()
                                .setHas(
                                        page.getByText(
                                                title, new Page.GetByTextOptions().setExact(true))))
                .first()
                .click();
        if (planned != null) {
            assertThat(
                            dialog.getByTestId("plan-line")
                                    .filter(new Locator.FilterOptions().setHasText(planned))
                                    .first())
                    .isVisible();
        }
        button("Add " + name).click();
        assertThat(inspected(name)).isVisible();
    }

    private void compose() {
        add("Small RISC-V processor", "cpu", "clk");
        add("Block memory", "memory", "0x0000_0000");
        add("USB serial console", "console", "0x1000_0000");
        add("8 status lamps", "lamps", "lamps");
        add("8 switches", "switches", "switches");
        add("Machine timer", "timer", "timer");
        add("Interrupt controller", "interrupts", "external");
        assertThat(card("console")).isVisible();
        page.keyboard().press("Escape");

        // The console was there before the interrupt controller: its interrupt is not connected.
        page.keyboard().press("w");
        Locator plan = page.getByRole(AriaRole.DIALOG);
        Locator close = plan.getByText("Close");
        assertThat(plan.getByText("Wiring plan")).isVisible();
        close.click();
        assertThat(summary()).hasText("No findings");

        card("lamps").click();
        look();
        inspected("lamps").click();
        field("Name of the block").fill("bar");
        page.keyboard().press("Enter");
        assertThat(card("bar")).isVisible();
        button("Undo").click();
        assertThat(card("lamps")).isVisible();
        button("Redo").click();
        assertThat(card("bar")).isVisible();
        page.keyboard().press("Control+z");
        assertThat(card("lamps")).isVisible();

        card("memory").click();
        field("size").fill("64K");
        page.keyboard().press("Enter");
        assertThat(card("memory").getByText("64 KiB")).isVisible();
        assertThat(summary()).containsText("error");
        assertThat(page.getByText("FL9-40 has 30").first()).isVisible();
        field("size").fill("16K");
        page.keyboard().press("Enter");
        assertThat(card("memory").getByText("16 KiB")).isVisible();

        card("switches").click();
        page.keyboard().press("Delete");
        assertThat(card("switches")).hasCount(0);
        page.keyboard().press("Control+z");
        assertThat(card("switches")).isVisible();

        page.keyboard().press("Control+k");
        page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Find or do"))
                .fill("LSR");
        assertThat(
                        page.getByRole(AriaRole.OPTION)
                                .filter(new Locator.FilterOptions().setHasText("LSR")))
                .isVisible();
        page.keyboard().press("Enter");
        assertThat(inspected("console")).isVisible();
        look();
    }

    private void addresses() {
        goTo("Addresses");
        Locator rulers = page.getByLabel("Address spaces side by side");
        assertThat(rulers.getByRole(AriaRole.COLUMNHEADER)).hasCount(2);
        look();
        String lamps = field("Base of lamps").inputValue();
        String before = field("Base of switches").inputValue();
        field("Base of switches").fill(lamps);
        page.keyboard().press("Enter");
        assertThat(page.getByText("overlaps").first()).isVisible();
        assertThat(summary()).containsText("error");
        button("Undo").click();
        assertThat(field("Base of switches")).hasValue(before);

        field("Lock console").check();
        field("Base of switches").fill("0x2000_0000");
        page.keyboard().press("Enter");
        assertThat(field("Last address of switches")).hasValue("0x2000_0FFF");
        String console = field("Base of console").inputValue();
        button("Place automatically…").click();
        page.getByRole(AriaRole.DIALOG).getByText("Move 1 range").click();
        assertThat(field("Base of switches")).not().hasValue("0x2000_0000");
        assertThat(field("Base of console")).hasValue(console);

        field("Address or name to look up").fill(console.substring(0, console.length() - 2) + "14");
        // The hint beside the field names a register too; the answer is the name alone.
        assertThat(page.getByText("LSR", new Page.GetByTextOptions().setExact(true))).hasCount(1);
        assertThat(summary()).hasText("No findings");
    }

    private void findings() {
        goTo("Compose");
        card("console").click();
        field("baud rate").fill("3000000");
        page.keyboard().press("Enter");
        assertThat(summary()).not().hasText("No findings");
        summary().click();
        Locator finding = page.getByTestId("finding").first();
        assertThat(finding).containsText("3000000");
        look();
        finding.getByText("Accept…").click();
        page.getByLabel("Reason for accepting").fill("a test that is not for the field");
        button("Accept").click();
        assertThat(finding).containsText("a test that is not for the field");
        finding.getByText("Reopen").click();
        finding.getByTestId("fix").first().click();
        assertThat(summary()).hasText("No findings");
        page.getByLabel("Close the findings").click();
    }

    private void handOff() throws IOException {
        goTo("Hand-off");
        assertThat(page.getByLabel("Contents of valley_station.h")).containsText("static_assert");
        look();
        page.getByText("valley_station.dts").first().click();
        assertThat(page.getByLabel("Contents of valley_station.dts")).containsText("ns16550a");
        Download download =
                page.waitForDownload(
                        () -> page.getByText("Download all as valley_station.zip").click());
        assertThat(Files.readAllBytes(download.path()).length).isGreaterThan(5_000);
    }

    private void boot() {
        goTo("Boot");
        assertThat(page.getByText("Drop a program here")).isVisible();
        look();
        field("Program file")
                .setInputFiles(
                        new FilePayload(
                                "note.elf",
                                "application/octet-stream",
                                "not a program"
                                        .getBytes(java.nio.charset.StandardCharsets.US_ASCII)));
        assertThat(page.getByText("the file begins neither as an ELF file (7F 45 4C 46)"))
                .isVisible();
        browser.forgetComplaints();
        field("Program file")
                .setInputFiles(
                        new FilePayload(
                                "ridge-station.elf",
                                "application/octet-stream",
                                Shipped.demoProgram()));
        assertThat(page.getByText(".text").first()).isVisible();
        look();
    }

    /** The demo program is made for the demo platform; the walk goes on there. */
    private void bench() throws IOException {
        page.navigate("/");
        page.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Ridge Station").setExact(true))
                .last()
                .click();
        goTo("Boot");
        assertThat(page.getByText("ridge_station_code_lane3.mem")).isVisible();
        Download hex = page.waitForDownload(() -> field("Download ridge_station.hex").click());
        assertThat(Files.readString(hex.path())).startsWith(":").endsWith(":00000001FF\n");
        look();
        goTo("Bench");
        button("Load and run").click();
        Locator console = page.getByLabel("Console");
        assertThat(console).containsText("Ridge Station");
        assertThat(console)
                .containsText(Handoff.of(Shipped.elaborate(Shipped.demo())).fingerprint());
        assertThat(page.locator("[data-lamp=lit]").first()).isVisible();
        look();

        field("Switch 0").click();
        field("Switch 1").click();
        console.click();
        page.keyboard().type("status\n");
        assertThat(console).containsText("gain 4");
        button("Pause").click();
        assertThat(page.getByLabel("State of the bench")).containsText("paused");
        String pc = page.getByLabel("State of the bench").textContent();
        button("Step").click();
        assertThat(page.getByLabel("State of the bench")).not().hasText(pc);

        page.getByLabel("Registers")
                .getByText("lamps", new Locator.GetByTextOptions().setExact(true))
                .click();
        field("Value of OUTPUT").fill("0x81");
        page.keyboard().press("Enter");
        assertThat(page.locator("[data-lamp=lit]")).hasCount(2);
        button("Reset").click();
        button("Run").click();
        assertThat(console).containsText("Ridge Station");
    }
}
