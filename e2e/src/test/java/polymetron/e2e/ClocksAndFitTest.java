package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Settings of a PLL are chosen, and the tiles of the device are read. */
final class ClocksAndFitTest extends BrowserTest {
    ClocksAndFitTest(RunningServer server) {
        super(server);
    }

    @Test
    void aClockIsWishedForAndMade() {
        String id = server.create("Clocked", "station");
        Page page = browser.open("/p/" + id + "/clocks");
        assertThat(page.getByLabel("Clock tree")).containsText("50 MHz oscillator");
        assertThat(page.getByLabel("Derived rates")).containsText("requested 115200 Bd");
        page.getByLabel("Name of clock 1").fill("main");
        page.getByLabel("Frequency of clock 1").fill("25000 kHz");
        page.getByText("Find settings").click();
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("there is a clock domain main");
        page.getByLabel("Name of clock 1").fill("slow");
        page.getByText("Add clock").click();
        page.getByLabel("Name of clock 2").fill("fast");
        page.getByLabel("Frequency of clock 2").fill("100 MHz");
        page.getByText("Find settings").click();
        Locator found = page.getByLabel("Settings found");
        assertThat(found.getByRole(AriaRole.LISTITEM).first()).containsText("Exact");
        Browser.assertAccessible(page);
        Browser.assertNothingCut(page);
        found.getByText("Use it").first().click();
        assertThat(page.getByLabel("Clock tree")).containsText("pll.out1");
        assertThat(page.getByLabel("Clock tree")).containsText("100 MHz");
        assertThat(page.getByLabel("More clocks")).containsText("PLLs free: 0 of 1");
        assertThat(page.getByTestId("findings-summary")).not().containsText("error");
        page.getByLabel("Name of clock 1").fill("third");
        page.getByLabel("Frequency of clock 1").fill("10000000");
        page.getByText("Find settings").click();
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("at most 10 GHz");
        page.getByTitle("Undo: make clocks from main").click();
        assertThat(page.getByLabel("Clock tree")).not().containsText("pll.out1");
    }

    @Test
    void theTilesSayWhatIsInThem() {
        String id = server.create("Fitted", "station");
        Page page = browser.open("/p/" + id + "/fit");
        assertThat(page.getByText("It fits FL9-40")).isVisible();
        Locator tiles = page.getByLabel("Memory blocks of the device");
        assertThat(tiles.getByRole(AriaRole.LISTITEM)).hasCount(30);
        assertThat(tiles.getByRole(AriaRole.BUTTON)).hasCount(16);
        assertThat(tiles.getByRole(AriaRole.BUTTON).first())
                .hasAttribute("title", java.util.regex.Pattern.compile("code.words: words 0–.*"));
        page.getByText("lookup tables").first().click();
        assertThat(page.getByLabel("Logic, clocks and pins")).containsText("bus system");
        Browser.assertAccessible(page);
        Browser.assertNothingCut(page);
        server.post(
                "/api/platforms/" + id + "/edits",
                "{\"revision\": 1, \"edit\": {\"edit\": \"set-parameter\", \"block\": \"code\","
                        + " \"parameter\": \"SIZE\", \"value\": \"32768\"}}");
        assertThat(page.getByText("It does not fit FL9-40")).isVisible();
        assertThat(page.getByText("it would fit FL9-80")).isVisible();
        assertThat(page.getByTestId("findings-summary")).containsText("1 error");
        browser.assertNoComplaints();
    }
}
