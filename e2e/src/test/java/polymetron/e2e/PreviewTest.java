package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** What a parameter changes is shown while it is typed, before anything happens. */
final class PreviewTest extends BrowserTest {

    PreviewTest(RunningServer server) {
        super(server);
    }

    @Test
    void showsWhatAValueWouldChangeAndBreak() {
        Page page = browser.open("/p/" + server.create("Looked at", "station") + "/compose");
        page.locator("[data-card][data-block=gain]").click();
        Locator inspector = page.getByLabel("Inspector");
        Locator width = page.getByLabel("width").first();
        width.fill("18");
        assertThat(inspector).containsText("1 to 32 lines");
        assertThat(inspector).containsText("port lines.value: 8 input → 18 input");
        assertThat(inspector).containsText("value is 18 wide, switches has 8 lines");
        Browser.assertAccessible(page);
        width.fill("18 +");
        assertThat(inspector).containsText("expected a value");
        width.press("Escape");
        assertThat(width).hasValue("8");
        assertThat(page.getByText("revision 1")).isVisible();
        browser.assertNoComplaints();
    }
}
