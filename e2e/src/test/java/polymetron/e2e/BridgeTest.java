package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** A bus behind a bridge: made, filled, and seen from the processor. */
final class BridgeTest extends BrowserTest {

    BridgeTest(RunningServer server) {
        super(server);
    }

    @Test
    void blocksGoBehindABridge() {
        String path = "/p/" + server.create("Bridged", "console");
        Page page = browser.open(path + "/compose");
        assertThat(page.locator("[data-block=memory]")).isVisible();
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        page.keyboard().press("a");
        dialog.getByText("Bus bridge").click();
        assertThat(dialog.getByText("bus peripherals behind bridge, APB")).isVisible();
        page.getByText("Add bridge").click();
        Locator rail = page.getByLabel("Bus peripherals");
        assertThat(rail).isVisible();

        // Into the gap of the new rail: there it goes, through an adapter.
        rail.getByTitle("Free from 0x0000_0000").click();
        dialog.getByText("8 status lamps").click();
        assertThat(dialog.getByText("lamps.registers on peripherals at 0x0000_0000")).isVisible();
        page.getByText("Add lamps").click();
        Locator inspector = page.getByLabel("Inspector");
        assertThat(inspector).containsText("protocol AXI4-Lite → APB");
        // Software's address first, the offset in the window second.
        assertThat(inspector).containsText("address0x1010_0000");
        assertThat(inspector).containsText("cpu · data side, through bridge");
        assertThat(inspector.getByLabel("offset")).hasValue("0x0000_0000");
        assertThat(rail).containsText("0x1010_0000");
        assertThat(page.getByTestId("findings-summary")).hasText("No findings");
        Browser.assertAccessible(page);

        // With the protocol of the block no adapter is needed.
        rail.getByTitle("Protocol, widths and adapters of the bus").click();
        page.getByLabel("protocol").selectOption("AXI4-Lite");
        assertThat(inspector).containsText("None: everything on the bus");
        Browser.assertAccessible(page);

        page.navigate(path + "/addresses");
        // The table shows what software uses, and takes it; the bus behind the bridge has the
        // offset.
        assertThat(page.locator("[data-range=lamps]")).containsText("offset 0x0000_0000");
        Locator base = page.getByLabel("Base of lamps");
        assertThat(base).hasValue("0x1010_0000");
        base.fill("10102000");
        base.press("Enter");
        assertThat(page.locator("[data-range=lamps]")).containsText("write 0x1010_2000");
        base.fill("0x1010_0000 + 8 KiB");
        base.press("Enter");
        assertThat(base).hasValue("0x1010_2000");
        assertThat(page.locator("[data-range=lamps]")).containsText("offset 0x0000_2000");
        base.fill("0x1000");
        base.press("Enter");
        assertThat(page.locator("[data-range=lamps]"))
                .containsText("lies below the window of the bridge");
        browser.forgetComplaints();
        base.fill("32'h1010_0000");
        base.press("Enter");
        assertThat(base).hasValue("0x1010_0000");
        page.getByLabel("Address or name to look up").fill("0x1010_0004");
        assertThat(page.getByText("OUTPUT").first()).isVisible();
        Browser.assertAccessible(page);

        // Free space and what is reserved of it are addresses of software too.
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Ranges")).click();
        page.locator("tr")
                .filter(new Locator.FilterOptions().setHasText("offset 0x0000_1000"))
                .getByText("Reserve…")
                .click();
        Locator first = page.getByLabel("First", new Page.GetByLabelOptions().setExact(true));
        assertThat(first).hasValue("0x1010_1000");
        page.getByLabel("Last", new Page.GetByLabelOptions().setExact(true))
                .fill("0x1010_1000 + 4 KiB - 1");
        page.getByLabel("Kept for").fill("the next board");
        page.keyboard().press("Enter");
        assertThat(
                        page.locator("tr")
                                .filter(
                                        new Locator.FilterOptions()
                                                .setHasText("reserved for the next board")))
                .containsText("0x1010_1000 – 0x1010_1FFF");

        // Outside the window it is not reachable; the finding says so and widens the window.
        page.getByLabel("Base of lamps").fill("0x1020_0000");
        page.keyboard().press("Enter");
        assertThat(page.getByTestId("findings-summary")).containsText("error");
        page.getByTestId("findings-summary").click();
        page.getByTestId("fix")
                .filter(new Locator.FilterOptions().setHasText("Widen bridge to 2 MiB"))
                .click();
        assertThat(page.getByLabel("Size of bridge")).hasValue("2 MiB");
        browser.assertNoComplaints();
    }

    @Test
    void aTargetIsHiddenFromAnInitiator() {
        Page page = browser.open("/p/" + server.create("Hidden", "station") + "/addresses");
        Locator grid = page.getByLabel("Access matrix");
        Locator mark = grid.getByLabel("cpu · data side reaches lamps");
        mark.uncheck();
        assertThat(page.getByTestId("findings-summary")).containsText("1 warning");
        assertThat(page.getByLabel("Address spaces side by side")).containsText("lamps hidden");
        Browser.assertAccessible(page);
        page.getByText("Let cpu · data side reach lamps").first().click();
        assertThat(mark).isChecked();
        assertThat(page.getByTestId("findings-summary")).hasText("No findings");
        browser.assertNoComplaints();
    }
}
