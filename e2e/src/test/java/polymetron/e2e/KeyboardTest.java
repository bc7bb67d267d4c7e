package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Everything without a mouse. */
final class KeyboardTest extends BrowserTest {
    private Page page;

    KeyboardTest(RunningServer server) {
        super(server);
    }

    private void press(String... keys) {
        for (String key : keys) {
            page.keyboard().press(key);
        }
    }

    private Locator card(String block) {
        return page.locator("[data-card][data-block='" + block + "']");
    }

    /** Presses Tab until something is focused. */
    private void tabTo(String name) {
        for (int times = 0; times < 60; times++) {
            press("Tab");
            Object focused =
                    page.evaluate(
                            "() => (document.activeElement.ariaLabel ||"
                                    + " document.activeElement.textContent || '').trim()");
            if (focused.toString().startsWith(name)) {
                return;
            }
        }
        throw new AssertionError("Tab does not lead to " + name);
    }

    @Test
    void aPlatformIsStartedAndChangedWithKeys() {
        page = browser.open("/");
        tabTo("New platform");
        press("Enter");
        assertThat(page.getByLabel("Name")).isVisible();
        tabTo("Foreland");
        press("Tab");
        // From the recipe that is chosen, round to the one with the most on it.
        while (page.getByRole(AriaRole.RADIO, new Page.GetByRoleOptions().setChecked(true))
                        .filter(new Locator.FilterOptions().setHasText("Earthquake field station"))
                        .count()
                == 0) {
            press("ArrowDown");
        }
        press("Tab");
        page.keyboard().type("By hand");
        press("Enter");
        assertThat(card("console")).isVisible();

        press("Control+k");
        page.keyboard().type("lamps");
        press("Enter");
        assertThat(card("lamps")).hasAttribute("aria-pressed", "true");
        press("ArrowRight");
        assertThat(page.locator("[data-card][aria-pressed=true]")).hasCount(1);
        assertThat(card("lamps")).hasAttribute("aria-pressed", "false");
        press("ArrowLeft");
        assertThat(card("lamps")).hasAttribute("aria-pressed", "true");
        press("Delete");
        assertThat(card("lamps")).hasCount(0);
        press("Control+z");
        assertThat(card("lamps")).isVisible();
        press("Control+Shift+z");
        assertThat(card("lamps")).hasCount(0);

        assertThat(card("console")).containsText("irq");
        press("-");
        assertThat(card("console")).not().containsText("irq");
        press("+");
        assertThat(card("console")).containsText("irq");

        press("w");
        assertThat(page.getByText("Nothing left to connect")).isVisible();
        press("Escape", "Control+k");
        page.keyboard().type("Go to Addresses");
        press("Enter");
        assertThat(page.getByLabel("Address or name to look up")).isVisible();
        browser.assertNoComplaints();
    }

    /** What is focused can be seen: every stop has an outline or a border that the others do not have. */
    @Test
    void theFocusIsVisible() {
        page = browser.open("/p/" + server.create("Focused", "station") + "/compose");
        assertThat(card("console")).isVisible();
        for (int stop = 0; stop < 25; stop++) {
            press("Tab");
            Object visible =
                    page.evaluate(
                            """
                            () => {
                                const focused = document.activeElement
                                const style = getComputedStyle(focused)
                                return focused === document.body || style.outlineStyle !== 'none' || style.boxShadow !== 'none'
                            }\
                            """);
            assertThat(visible)
                    .as(
                            "focus on "
                                    + page.evaluate(
                                            "() => document.activeElement.outerHTML.slice(0, 200)"))
                    .isEqualTo(true);
        }
    }

    @Test
    void darkColoursAreReadableToo() {
        String path = "/p/" + server.create("Dark", "station");
        page = browser.open(path + "/compose");
        page.getByLabel("Dark colours").click();
        for (String view :
                new String[] {"compose", "addresses", "hardware", "handoff", "boot", "bench"}) {
            page.navigate(path + "/" + view);
            assertThat(page.getByTestId("findings-summary")).isVisible();
            Browser.assertAccessible(page);
            Browser.assertNothingCut(page);
        }
        browser.assertNoComplaints();
    }
}
