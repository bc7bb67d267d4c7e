package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** What changed when, and the way back. */
final class HistoryTest extends BrowserTest {

    HistoryTest(RunningServer server) {
        super(server);
    }

    @Test
    void anEarlierRevisionIsComparedAndTakenBack() {
        String id = server.create("Remembered", "station");
        String edits = "/api/platforms/" + id + "/edits";
        server.post(
                edits,
                "{\"revision\": 1, \"edit\": {\"edit\": \"set-parameter\", \"block\": \"console\","
                        + " \"parameter\": \"BAUD\", \"value\": \"9600\"}}");
        server.post(
                edits,
                "{\"revision\": 2, \"edit\": {\"edit\": \"rename-block\", \"block\": \"lamps\","
                        + " \"name\": \"bar\"}}");
        Page page = browser.open("/p/" + id + "/compose");
        page.getByTitle("All revisions").click();
        Locator changes = page.getByLabel("Changes");
        assertThat(changes).containsText("named lamps");
        page.getByLabel("Revisions").getByText("set BAUD of console to 9600").click();
        assertThat(changes).containsText("console.BAUD");
        page.getByLabel("Revisions").getByText("start from recipe").click();
        page.getByLabel("compare with").selectOption("the newest");
        assertThat(changes).containsText("console.BAUD");
        assertThat(changes).containsText("named bar");
        Browser.assertAccessible(page);
        Browser.assertNothingCut(page);
        page.getByText("Look at it").click();
        assertThat(page.getByText("Viewing revision 1 of")).isVisible();
        Locator lamps = page.locator("[data-card][data-block=lamps]");
        lamps.click();
        assertThat(page.getByLabel("Inspector")).containsText("Where software finds it");
        page.keyboard().press("Delete");
        assertThat(page.getByText("Revision 1 is read-only")).isVisible();
        page.getByText("Addresses", new Page.GetByTextOptions().setExact(true)).click();
        assertThat(page.getByLabel("Base of lamps")).isVisible();
        assertThat(page.getByText("Viewing revision 1 of")).isVisible();
        page.getByText("Back to the newest").click();
        assertThat(page.getByLabel("Base of bar")).isVisible();
        page.getByTitle("All revisions").click();
        page.getByLabel("Revisions").getByText("start from recipe").click();
        page.getByText("Go back to revision 1").click();
        assertThat(page.getByLabel("Revisions")).containsText("go back to revision 1");
        page.getByText("Compose").click();
        assertThat(page.locator("[data-card][data-block=lamps]")).isVisible();
        page.getByTitle("Undo: go back to revision 1").click();
        assertThat(page.locator("[data-card][data-block=bar]")).isVisible();
        page.keyboard().press("Control+Shift+Z");
        assertThat(page.locator("[data-card][data-block=lamps]")).isVisible();

        // Undo and redo are one line; a revision gets a name, and any two are compared.
        page.getByTitle("All revisions").click();
        Locator revisions = page.getByLabel("Revisions");
        assertThat(revisions.getByRole(AriaRole.LISTITEM)).hasCount(5);
        page.getByLabel("1 more, undo and redo, before revision 6").click();
        assertThat(revisions.getByRole(AriaRole.LISTITEM)).hasCount(6);
        revisions.getByText("set BAUD of console to 9600").click();
        page.getByLabel("name of revision 2").fill("handed over");
        page.getByLabel("name of revision 2").press("Enter");
        assertThat(revisions).containsText("handed over");
        revisions.getByText("go back to revision 1").last().click();
        page.getByLabel("compare with").selectOption("2, handed over");
        assertThat(changes).containsText("From revision 2 to 4");
        assertThat(changes).containsText("console.BAUD");
        Browser.assertAccessible(page);
        browser.assertNoComplaints();
    }
}
