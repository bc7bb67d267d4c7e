package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** A newcomer gets from nothing to a checked platform by doing what the guide says, and is then left alone. */
final class GuideTest extends BrowserTest {
    GuideTest(RunningServer server) {
        super(server);
    }

    @Test
    void leadsFromNothingToACheckedPlatformOnce() {
        Page page = browser.open("/");
        page.getByText("Show me").click();
        Locator guide = page.getByLabel("First platform, step by step");
        assertThat(guide).isVisible();
        Browser.assertAccessible(page);
        for (String block :
                new String[] {"cpu", "memory", "console", "lamps", "timer", "interrupts"}) {
            guide.getByText("Add…").click();
            Locator dialog = page.getByRole(AriaRole.DIALOG);
            dialog.locator("[data-offer]").first().click();
            dialog.getByText("Add " + block).click();
            assertThat(dialog).not().isVisible();
        }
        assertThat(guide).containsText("That is a platform");
        assertThat(page.getByTestId("findings-summary")).hasText("No findings");
        guide.getByText("Done", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(guide).not().isVisible();

        page.navigate(server.address() + "/");
        assertThat(page.getByText("My first platform").first()).isVisible();
        assertThat(page.getByText("Show me")).not().isVisible();
        browser.assertNoComplaints();
    }
}
