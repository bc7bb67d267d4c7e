package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** An interrupt gets another number, by the grid, by typing, and by keyboard. */
final class InterruptsTest extends BrowserTest {
    InterruptsTest(RunningServer server) {
        super(server);
    }

    @Test
    void anInterruptIsNumbered() {
        String id = server.create("Interrupting", "station");
        Page page = browser.open("/p/" + id + "/interrupts");
        Locator grid = page.getByLabel("Inputs of interrupts");
        Locator first =
                grid.getByLabel("console.irq to 1", new Locator.GetByLabelOptions().setExact(true));
        Locator third =
                grid.getByLabel("console.irq to 3", new Locator.GetByLabelOptions().setExact(true));
        assertThat(first).hasAttribute("aria-pressed", "true");
        third.click();
        assertThat(third).hasAttribute("aria-pressed", "true");
        Locator details = page.getByLabel("Interrupt source");
        assertThat(details).containsText("console.irq → interrupts.inputs 3 → cpu.external");
        assertThat(details).containsText("0x1400_000C");
        Browser.assertAccessible(page);
        Browser.assertNothingCut(page);
        page.getByLabel("IRQ number").fill("2");
        page.getByLabel("IRQ number").press("Enter");
        assertThat(page.getByTestId("findings-summary")).containsText("1 error");
        assertThat(
                        grid.getByLabel(
                                "console.irq to 2", new Locator.GetByLabelOptions().setExact(true)))
                .hasAttribute("aria-pressed", "true");
        grid.getByLabel("console.irq to 2", new Locator.GetByLabelOptions().setExact(true)).focus();
        page.keyboard().press("ArrowRight");
        page.keyboard().press("Enter");
        assertThat(third).hasAttribute("aria-pressed", "true");
        assertThat(page.getByTestId("findings-summary")).hasText("No findings");
        browser.assertNoComplaints();
    }
}
