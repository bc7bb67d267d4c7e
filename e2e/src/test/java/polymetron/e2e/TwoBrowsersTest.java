package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Two people at one platform, and a connection that goes away. */
final class TwoBrowsersTest extends BrowserTest {

    TwoBrowsersTest(RunningServer server) {
        super(server);
    }

    private static void rename(Page page, String from, String to) {
        card(page, from).click();
        page.getByLabel("Inspector")
                .getByRole(
                        AriaRole.BUTTON,
                        new Locator.GetByRoleOptions().setName(from).setExact(true))
                .first()
                .click();
        page.getByLabel("Name of the block").fill(to);
        page.keyboard().press("Enter");
    }

    @Test
    void theOtherSeesAChangeAtOnce() {
        String path = "/p/" + server.create("Shared", "station") + "/compose";
        Page one = browser.open(path);
        Page other = browser.open(path);
        assertThat(card(other, "lamps")).isVisible();
        rename(one, "lamps", "bar");
        assertThat(card(other, "bar")).isVisible();
        other.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Undo").setExact(true))
                .click();
        // It is not theirs, so they are asked.
        Locator question = other.getByRole(AriaRole.DIALOG);
        assertThat(question).containsText("rename lamps to bar");
        question.getByText("Keep it").click();
        assertThat(card(other, "bar")).isVisible();
        other.keyboard().press("Control+z");
        question.getByText("Undo it").click();
        assertThat(card(one, "lamps")).isVisible();
        browser.assertNoComplaints();
    }

    @Test
    void anEditOfWhatSomebodyElseHasChangedIsRefusedAndExplained() {
        String id = server.create("Raced", "station");
        Page page = browser.open("/p/" + id + "/compose");
        assertThat(card(page, "lamps")).isVisible();
        // The news of the other's change does not arrive before the edit.
        page.route("**/api/platforms/" + id, route -> {});
        edit(
                id,
                "{\"edit\": \"set-parameter\", \"block\": \"lamps\", \"parameter\":"
                        + " \"WIDTH\", \"value\": \"4\"}");
        rename(page, "lamps", "bar");
        assertThat(page.getByRole(AriaRole.STATUS))
                .containsText("block lamps was changed meanwhile");
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("set WIDTH of lamps to 4");
        page.unrouteAll();
        page.reload();
        assertThat(card(page, "lamps")).isVisible();
    }

    @Test
    void editsOfDifferentThingsAreBothKept() {
        String id = server.create("Side by side", "station");
        Page page = browser.open("/p/" + id + "/compose");
        assertThat(card(page, "lamps")).isVisible();
        page.route("**/api/platforms/" + id, route -> {});
        edit(id, "{\"edit\": \"rename-block\", \"block\": \"gain\", \"name\": \"level\"}");
        page.waitForResponse(
                response -> response.url().endsWith("/edits") && response.status() == 200,
                () -> rename(page, "lamps", "bar"));
        page.unrouteAll();
        page.reload();
        assertThat(card(page, "level")).isVisible();
        assertThat(card(page, "bar")).isVisible();
        browser.assertNoComplaints();
    }

    private void edit(String id, String edit) {
        server.post(
                "/api/platforms/" + id + "/edits",
                "{\"revision\": 1, \"edit\": %s}".formatted(edit));
    }

    @Test
    void aLostConnectionIsShownAndRecovers() {
        String id = server.create("Remote", "station");
        Page page = browser.open("/p/" + id + "/compose");
        assertThat(card(page, "lamps")).isVisible();
        for (String block : new String[] {"gain", "lamps"}) {
            card(page, block).click();
            assertThat(page.getByLabel("Inspector").getByText(block).first()).isVisible();
            assertThat(page.getByLabel("Inspector")).containsText("GPIO");
        }
        page.context().setOffline(true);
        rename(page, "lamps", "bar");
        assertThat(page.getByRole(AriaRole.BANNER)).containsText("offline: 1 edit waiting");
        card(page, "gain").click();
        rename(page, "gain", "level");
        assertThat(page.getByRole(AriaRole.BANNER)).containsText("offline: 2 edits waiting");
        page.context().setOffline(false);
        assertThat(card(page, "bar")).isVisible();
        assertThat(card(page, "level")).isVisible();
        assertThat(page.getByRole(AriaRole.BANNER)).containsText("saved");
    }
}
