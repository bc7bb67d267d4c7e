package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Pins are assigned, changed by hand, exported and imported. */
final class PinsTest extends BrowserTest {
    PinsTest(RunningServer server) {
        super(server);
    }

    @Test
    void whatIsLeftIsAssignedAndATableIsTaken() {
        String id = server.create("Pinned", "station");
        server.post(
                "/api/platforms/" + id + "/edits",
                "{\"revision\": 1, \"edit\": {\"edit\": \"add-block\", \"name\": \"spare\","
                        + " \"type\": \"polymetron:io:gpio:1.0\", \"parameters\": {\"WIDTH\":"
                        + " \"2\"}}}");
        Page page = browser.open("/p/" + id + "/pins");
        Locator lines = page.getByLabel("Lines that leave the chip");
        assertThat(lines).containsText("2 without a pin");
        Browser.assertAccessible(page);
        Browser.assertNothingCut(page);
        // By hand, one after the other; the second can be typed when the first has its pin.
        Locator first = page.getByLabel("Pin of spare.value[0]");
        assertThat(page.getByLabel("Pin of spare.value[1]")).hasCount(0);
        first.fill("d7");
        first.press("Tab");
        assertThat(page.getByLabel("Pin of spare.value[1]")).isVisible();
        assertThat(lines).containsText("1 without a pin");

        page.getByText("Assign the rest…").click();
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("spare.lines");
        dialog.getByText("Assign", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(lines).containsText("all with a pin");
        Locator pin = page.getByLabel("Pin of spare.value[1]");
        pin.fill("d8");
        pin.press("Tab");
        assertThat(page.getByLabel("D8, bank north, 3.3 V: spare.value[1]")).isVisible();

        assertThat(page.getByText("Export", new Page.GetByTextOptions().setExact(true)))
                .hasAttribute("href", java.util.regex.Pattern.compile(".*path=pinned_pins.csv"));
        byte[] table =
                server.get("/api/platforms/" + id + "/handoff/file?path=pinned_pins.csv").bytes();
        String text = new String(table, StandardCharsets.UTF_8);
        org.assertj.core.api.Assertions.assertThat(text).contains("spare.value[1],D8,north");
        take(page, text.replace("spare.value[1],D8", "spare.value[1],X1"));
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("FL9-40 has no pin X1");
        page.getByRole(AriaRole.DIALOG).getByText("Close").click();
        take(page, text.replace("spare.value[1],D8", "spare.value[1],D6"));
        assertThat(pin).hasValue("D6");
        browser.assertNoComplaints();
    }

    private static void take(Page page, String table) {
        page.getByLabel("Pin table")
                .setInputFiles(
                        new FilePayload(
                                "pins.csv", "text/csv", table.getBytes(StandardCharsets.UTF_8)));
    }
}
