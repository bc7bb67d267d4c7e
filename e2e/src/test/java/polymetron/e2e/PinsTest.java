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
        // By hand, in any order: a pin waits for that of the line before it.
        Locator first = page.getByLabel("Pin of spare.value[0]");
        Locator second = page.getByLabel("Pin of spare.value[1]");
        second.fill("d8");
        second.press("Tab");
        assertThat(lines).containsText("after spare.value[0]");
        assertThat(lines).containsText("2 without a pin");
        second.fill("");
        second.press("Tab");
        assertThat(lines).not().containsText("after spare.value[0]");
        // Or with a press on the package, which goes on to the next line.
        first.focus();
        page.getByLabel("D7, bank north, 3.3 V: free").click();
        assertThat(lines).containsText("1 without a pin");
        assertThat(first).hasValue("D7");
        assertThat(second).isFocused();
        button(page, "Undo").click();
        assertThat(lines).containsText("2 without a pin");
        // Or as a list.
        first.focus();
        page.evaluate(
                "() => { const data = new DataTransfer(); data.setData('text/plain', 'd7\\nE6');"
                        + " document.activeElement.dispatchEvent(new ClipboardEvent('paste',"
                        + " {clipboardData: data, bubbles: true, cancelable: true})) }");
        assertThat(second).hasValue("E6");
        assertThat(lines).containsText("all with a pin");
        button(page, "Undo").click();
        assertThat(lines).containsText("2 without a pin");
        first.fill("d7");
        first.press("Tab");
        assertThat(lines).containsText("1 without a pin");
        // What is found and how it is sorted is in the address.
        page.keyboard().press("Control+f");
        page.keyboard().type("spare.value[1]");
        assertThat(lines.getByRole(AriaRole.ROW)).hasCount(2);
        assertThat(lines).containsText("1 of");
        page.reload();
        assertThat(lines.getByRole(AriaRole.ROW)).hasCount(2);
        page.getByLabel("Find a line").fill("");
        button(page, "Pin").click();
        assertThat(page).hasURL(java.util.regex.Pattern.compile(".*sort=pin.*"));
        assertThat(lines.getByRole(AriaRole.ROW).last()).containsText("spare.value[1]");

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

    private static Locator button(Page page, String name) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    private static void take(Page page, String table) {
        page.getByLabel("Pin table")
                .setInputFiles(
                        new FilePayload(
                                "pins.csv", "text/csv", table.getBytes(StandardCharsets.UTF_8)));
    }
}
