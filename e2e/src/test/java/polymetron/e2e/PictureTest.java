package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Ways to look at the picture and to move in it: dragging, fitting, filtering, versions. */
final class PictureTest extends BrowserTest {
    PictureTest(RunningServer server) {
        super(server);
    }

    @Test
    void aBlockIsDraggedIntoAGapWithTheEditShownBefore() {
        Page page = browser.open("/p/" + server.create("Dragged", "station") + "/compose");
        Locator gap = page.getByTitle("Free from 0x1800_0000 to 0xFFFF_FFFF: add a block here");
        card(page, "lamps").hover();
        page.mouse().down();
        gap.hover();
        gap.hover();
        assertThat(page.getByText("Dropping will place lamps at 0x1800_0000 on system."))
                .isVisible();
        page.mouse().up();
        assertThat(page.locator("[data-block=lamps]")).containsText("0x1800_0000");
        page.keyboard().press("Control+z");
        assertThat(page.locator("[data-block=lamps]")).containsText("0x1000_2000");
        browser.assertNoComplaints();
    }

    @Test
    void theWholePictureFitsAndTheFilterFadesTheRest() {
        String id =
                server.post(
                                "/api/platforms",
                                "{\"name\": \"Large\", \"board\":"
                                        + " \"polymetron:boards:terrace:1.0\", \"recipe\":"
                                        + " \"acquisition\"}")
                        .json()
                        .get("id")
                        .stringValue();
        Page page = browser.open("/p/" + id + "/compose");
        assertThat(card(page, "console")).isVisible();
        page.keyboard().press("f");
        page.waitForFunction(
                "() => { const frame = document.querySelector('[aria-label=\"Picture of the"
                        + " platform\"]'); return frame.scrollHeight <= frame.clientHeight + 1 }");
        page.keyboard().press("f");
        page.keyboard().press("/");
        page.keyboard().type("gpio");
        assertThat(page.locator(".opacity-35 [data-block=console]")).hasCount(1);
        assertThat(page.locator(".opacity-35 [data-block=lamps]")).hasCount(0);
        page.keyboard().press("Escape");
        assertThat(page.locator(".opacity-35")).hasCount(0);
        browser.assertNoComplaints();
    }

    @Test
    void anotherVersionShowsWhatItChangesBeforeItDoes() {
        Page page = browser.open("/p/" + server.create("Versions", "station") + "/compose");
        card(page, "code").click();
        Locator inspector = page.getByLabel("Inspector");
        inspector.getByText("newer: 1.1…").click();
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("PORTS: 1, new");
        Browser.assertAccessible(page);
        dialog.getByText("Change to 1.1").click();
        assertThat(inspector.getByLabel("ports")).hasValue("1");
        assertThat(page.getByTestId("findings-summary")).hasText("No findings");
        browser.assertNoComplaints();
    }
}
