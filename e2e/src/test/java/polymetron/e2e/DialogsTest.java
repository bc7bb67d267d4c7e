package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Dialogs own the keyboard, what is typed is what is added, and an address that leads nowhere says so. */
final class DialogsTest extends BrowserTest {
    DialogsTest(RunningServer server) {
        super(server);
    }

    private static Locator dialogs(Page page) {
        return page.getByRole(AriaRole.DIALOG);
    }

    private static Locator button(Page page, String name) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
    }

    private static void latency(CDPSession network, int milliseconds) {
        JsonObject conditions = new JsonObject();
        conditions.addProperty("offline", false);
        conditions.addProperty("latency", milliseconds);
        conditions.addProperty("downloadThroughput", -1);
        conditions.addProperty("uploadThroughput", -1);
        network.send("Network.emulateNetworkConditions", conditions);
    }

    @Test
    void noShortcutActsBehindADialogAndNoneIsPutOnTop() {
        String id = server.create("Owned", "station");
        server.post(
                "/api/platforms/" + id + "/edits",
                "{\"revision\": 1, \"edit\": {\"edit\": \"rename-platform\", \"name\": \"Owned"
                        + " again\"}}");
        Page page = browser.open("/p/" + id + "/compose");
        card(page, "lamps").click();
        for (String opens : new String[] {"a", "w", "g", "Control+k"}) {
            page.keyboard().press(opens);
            assertThat(dialogs(page)).hasCount(1);
            // Away from the field, where a letter would only be typed.
            page.evaluate("document.activeElement.blur()");
            for (String key : new String[] {"Control+z", "w", "a", "Control+k", "Delete", "g"}) {
                page.keyboard().press(key);
                assertThat(dialogs(page)).hasCount(1);
            }
            page.keyboard().press("Escape");
            assertThat(dialogs(page)).hasCount(0);
        }
        assertThat(page.getByRole(AriaRole.BANNER)).containsText("Owned again");
        assertThat(card(page, "lamps")).isVisible();
        // Another view is gone to, as with the browser's buttons: the dialog stays behind.
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Addresses")).click();
        assertThat(page.getByLabel("Ranges").first()).isVisible();
        page.keyboard().press("w");
        assertThat(dialogs(page)).hasCount(1);
        page.goBack();
        assertThat(card(page, "lamps")).isVisible();
        assertThat(dialogs(page)).hasCount(0);
    }

    @Test
    void theNameThatIsTypedIsTheNameThatIsAdded() {
        Page page = browser.open("/p/" + server.create("Named", "station") + "/compose");
        assertThat(card(page, "lamps")).isVisible();
        page.keyboard().press("a");
        page.getByLabel("Find a block").fill("general timer");
        page.locator("[data-offer]").first().click();
        Locator name = page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true));
        assertThat(name).not().hasValue("");
        name.fill("pace");
        // Straight from the field to the button.
        button(page, "Add pace").click();
        assertThat(card(page, "pace")).isVisible();

        // While the proposal is still on its way.
        page.keyboard().press("a");
        page.getByLabel("Find a block").fill("general timer");
        CDPSession network = page.context().newCDPSession(page);
        network.send("Network.enable");
        latency(network, 1500);
        page.locator("[data-offer]").first().click();
        name.fill("beat");
        latency(network, 0);
        assertThat(button(page, "Add beat")).isEnabled();
        assertThat(name).hasValue("beat");
        name.press("Enter");
        assertThat(card(page, "beat")).isVisible();

        // A name that cannot be is refused where it is typed, and nothing is added.
        page.keyboard().press("a");
        page.getByLabel("Find a block").fill("general timer");
        page.locator("[data-offer]").first().click();
        assertThat(name).not().hasValue("");
        name.fill("beat");
        button(page, "Add beat").click();
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("beat");
        assertThat(dialogs(page)).hasCount(1);
        assertThat(name).hasValue("beat");
    }

    @Test
    void anAddressThatLeadsNowhereSaysSo() {
        Page page = browser.open("/nowhere/at/all");
        assertThat(page.getByRole(AriaRole.HEADING)).containsText("There is no such page");
        Browser.assertAccessible(page);
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("All platforms")).click();
        assertThat(page.getByRole(AriaRole.HEADING)).containsText("Platforms");
        page.navigate("/p/00000000-0000-4000-8000-000000000000/compose");
        assertThat(page.getByRole(AriaRole.HEADING)).containsText("cannot be shown");
    }
}
