package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** How many key presses and clicks frequent work takes; a letter that is typed is one, and so is a key with Ctrl. It may become less, not more. */
final class KeyPressesTest extends BrowserTest {
    private Page page;
    private int presses;

    KeyPressesTest(RunningServer server) {
        super(server);
    }

    private void press(String... keys) {
        for (String key : keys) {
            page.keyboard().press(key);
            presses++;
        }
    }

    private void type(String text) {
        page.keyboard().type(text);
        presses += text.length();
    }

    private void click(Locator where) {
        where.click();
        presses++;
    }

    private void end(String task, int most) {
        System.out.printf("%s: %s key presses and clicks%n", task, presses);
        assertThat(presses).as(task).isLessThanOrEqualTo(most);
    }

    private Locator button(String name) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
    }

    /** As fast as keys come: nothing is waited for in between. */
    private void add(String typed, String name) {
        press("a");
        type(typed);
        press("Control+Enter");
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
        assertThat(page.getByText(name, new Page.GetByTextOptions().setExact(true)).first())
                .isVisible();
    }

    private void emptyBoard() {
        page = browser.open("/p/" + server.create("Counted", null) + "/compose");
        assertThat(page.getByText("Nothing is on the board yet")).isVisible();
    }

    @Test
    void consoleLampsAndTimerOnAnEmptyBoard() {
        emptyBoard();
        add("cons", "console");
        add("lam", "lamps");
        add("gen", "interval");
        assertThat(page.getByTestId("findings-summary")).not().containsText("error");
        end("console, lamps and timer", 16);
    }

    @Test
    void theSameBlockByBlock() {
        emptyBoard();
        add("sma", "cpu");
        add("block", "memory");
        add("cons", "console");
        add("lam", "lamps");
        add("gen", "interval");
        assertThat(page.getByTestId("findings-summary")).not().containsText("error");
        end("console, lamps and timer, block by block", 28);
    }

    @Test
    void threeClocksFromOnePll() {
        page = browser.open("/p/" + server.create("Clocked", "station") + "/clocks");
        click(page.getByLabel("Frequency of clock 1"));
        type("100,25,12.5");
        press("Enter");
        Locator found = page.getByLabel("Settings found");
        assertThat(found.getByText("Use it").first()).isFocused();
        press("Enter");
        for (String clock : new String[] {"clock_100_mhz", "clock_25_mhz", "clock_12_5_mhz"}) {
            assertThat(page.getByLabel("Clock tree")).containsText(clock);
        }
        end("three clocks from one PLL", 14);
    }

    @Test
    void anInputOfEighteenLinesOnACopy() {
        server.create("Eighteen", "station");
        page = browser.open("/");
        click(page.getByLabel("Copy Eighteen", new Page.GetByLabelOptions().setExact(true)));
        click(page.getByText("Copy of Eighteen", new Page.GetByTextOptions().setExact(true)));
        assertThat(page.locator("[data-card][data-block=console]")).isVisible();
        add("gpio", "gpio");
        Locator inspector = page.getByLabel("Inspector");
        inspector.getByLabel("direction").selectOption("inputs");
        presses += 2;
        Locator width =
                inspector.getByLabel("width", new Locator.GetByLabelOptions().setExact(true));
        click(width);
        press("Control+a");
        type("18");
        press("Enter");
        click(page.getByText("Pins", new Page.GetByTextOptions().setExact(true)));
        assertThat(page.getByLabel("Lines that leave the chip")).containsText("18 without a pin");
        click(button("Assign the rest…"));
        click(
                page.getByRole(AriaRole.DIALOG)
                        .getByText("Assign", new Locator.GetByTextOptions().setExact(true)));
        assertThat(page.getByLabel("Lines that leave the chip")).containsText("all with a pin");
        end("an input of 18 lines on a copy", 18);
    }
}
