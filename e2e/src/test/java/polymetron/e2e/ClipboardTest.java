package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.KeyboardModifier;
import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Several blocks at once: removed, duplicated, and carried from one platform to another. */
final class ClipboardTest extends BrowserTest {

    ClipboardTest(RunningServer server) {
        super(server);
    }

    private static void select(Page page, String first, String... more) {
        card(page, first).click();
        for (String block : more) {
            card(page, block)
                    .click(
                            new Locator.ClickOptions()
                                    .setModifiers(List.of(KeyboardModifier.CONTROL)));
        }
    }

    @Test
    void blocksGoFromOnePlatformToAnother() {
        Page page = browser.open("/p/" + server.create("From", "station") + "/compose");
        page.context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
        select(page, "lamps", "gain");
        assertThat(page.getByLabel("Inspector")).containsText("2 blocks");
        Browser.assertAccessible(page);
        page.keyboard().press("Control+c");
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("lamps, gain");

        page.navigate("/p/" + server.create("To", "console") + "/compose");
        assertThat(card(page, "console")).isVisible();
        page.keyboard().press("Control+v");
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("Paste blocks");
        assertThat(dialog).containsText("gain.lines → board part switches");
        dialog.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Paste")).click();
        assertThat(card(page, "lamps")).isVisible();
        assertThat(card(page, "gain")).isVisible();
        assertThat(page.getByTestId("findings-summary")).hasText("No findings");

        select(page, "lamps", "gain");
        page.keyboard().press("Delete");
        assertThat(card(page, "lamps")).hasCount(0);
        page.getByTitle("Undo: remove 2 blocks").click();
        assertThat(card(page, "gain")).isVisible();
        browser.assertNoComplaints();
    }

    @Test
    void aBlockIsDuplicatedAndOtherTextIsRefused() {
        Page page = browser.open("/p/" + server.create("Twice", "console") + "/compose");
        select(page, "console");
        page.keyboard().press("Control+d");
        page.getByRole(AriaRole.DIALOG)
                .getByText("Duplicate", new Locator.GetByTextOptions().setExact(true))
                .click();
        assertThat(card(page, "console_2")).isVisible();
        browser.assertNoComplaints();

        page.evaluate(
                """
                () => {
                    const data = new DataTransfer()
                    data.setData('text/plain', 'a shopping list')
                    window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data }))
                }\
                """);
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("pasted text");
    }

    @Test
    void aRemovalSaysWhatDependsOnTheBlock() {
        Page page = browser.open("/p/" + server.create("Needed", "station") + "/compose");
        select(page, "interrupts");
        page.keyboard().press("Delete");
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("interrupt irq of console is not connected");
        Browser.assertAccessible(page);
        dialog.getByText("Keep").click();
        assertThat(card(page, "interrupts")).isVisible();
        page.getByLabel("Remove interrupts").click();
        dialog.getByText("Remove", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(card(page, "interrupts")).hasCount(0);
        assertThat(page.getByTestId("findings-summary")).containsText("2");
        browser.assertNoComplaints();
    }
}
