package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Many platforms: found, sorted, and the same after a reload; a link to a block of one. */
final class PlatformListTest extends BrowserTest {
    PlatformListTest(RunningServer server) {
        super(server);
    }

    @Test
    void platformsAreFoundAndSorted() {
        for (int number = 1; number <= 12; number++) {
            server.create("Pump %d".formatted(number), number % 2 == 0 ? "console" : "station");
        }
        Page page = browser.open("/");
        page.getByLabel("Find by name or board").fill("pump");
        Locator rows = page.locator("tbody tr");
        assertThat(rows).hasCount(12);
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("Platform").setExact(true))
                .click();
        assertThat(rows.first()).containsText("Pump 1");
        assertThat(rows.nth(1)).containsText("Pump 2");
        assertThat(rows.last()).containsText("Pump 12");
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("Platform").setExact(true))
                .click();
        assertThat(rows.first()).containsText("Pump 12");
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("Blocks").setExact(true))
                .click();
        assertThat(rows.first()).containsText("Pump 12");
        Browser.assertAccessible(page);

        page.reload();
        assertThat(page.getByLabel("Find by name or board")).hasValue("pump");
        assertThat(rows).hasCount(12);
        assertThat(rows.first()).containsText("Pump 12");
        page.getByLabel("Find by name or board").fill("pump 1 sluice");
        assertThat(page.getByText("No matches for “pump 1 sluice”.")).isVisible();
        page.getByText("Show all platforms").click();
        assertThat(page.getByLabel("Find by name or board")).hasValue("");
        assertThat(page.getByLabel("Download the document of Pump 7")).hasText("Download");
        browser.assertNoComplaints();
    }

    @Test
    void theSelectionIsInTheAddress() {
        String path = "/p/" + server.create("Linked", "console");
        Page page = browser.open(path + "/compose?select=memory");
        Locator inspector = page.getByLabel("Inspector");
        assertThat(inspector).containsText("memory");
        page.locator("[data-block=console]").first().click();
        page.waitForURL("**/compose?select=console");
        page.reload();
        assertThat(inspector).containsText("UART");
        // It goes along into another view, and Escape takes it out of the address.
        page.getByText("Addresses", new Page.GetByTextOptions().setExact(true)).first().click();
        page.waitForURL("**/addresses?select=console");
        page.keyboard().press("Escape");
        page.waitForURL("**/addresses");

        page.navigate(path + "/compose");
        assertThat(page.locator("[data-block=memory]")).isVisible();
        page.keyboard().press("Control+a");
        assertThat(page.locator("[data-card][aria-pressed=true]").first()).isVisible();
        assertThat(inspector).containsText("blocks");

        // It does not go along out of the platform.
        page.getByLabel("All platforms").first().click();
        assertThat(page.getByLabel("Find by name or board")).isVisible();
        page.waitForURL(url -> !url.contains("select"));
        browser.assertNoComplaints();
    }
}
