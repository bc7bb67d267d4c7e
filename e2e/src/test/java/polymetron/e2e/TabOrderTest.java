package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.LinkedHashSet;
import java.util.Set;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Tab goes through each dialog in the order in which it is read, every stop has a name, and Escape closes it. */
final class TabOrderTest extends BrowserTest {
    private static final int MOST = 200;

    /** Name, whether it is inside the dialog, and place of what has the focus; a group of choices is one stop. */
    private static final String FOCUSED =
            """
            () => {
                const e = document.activeElement;
                const label = e.labels && e.labels[0] ? e.labels[0].textContent : '';
                const name = e.ariaLabel || label || e.textContent || e.title || e.placeholder || '';
                const inside = e.closest('[role=dialog]') !== null;
                const all = [...document.querySelectorAll('[role=dialog] *')];
                return [inside, name.trim(), all.indexOf(e)].join('|');
            }
            """;

    private Page page;

    TabOrderTest(RunningServer server) {
        super(server);
    }

    private void goesThrough(String dialog, int fewest) {
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(1);
        Set<Integer> places = new LinkedHashSet<>();
        int last = -1;
        for (int stop = 0; stop < MOST; stop++) {
            page.keyboard().press("Tab");
            String[] focused = page.evaluate(FOCUSED).toString().split("\\|", -1);
            assertThat(focused[0]).as("%s, stop %s is inside", dialog, stop).isEqualTo("true");
            assertThat(focused[1]).as("%s, stop %s has a name", dialog, stop).isNotEmpty();
            int place = Integer.parseInt(focused[2]);
            if (!places.add(place)) {
                break;
            }
            if (places.size() > 1 && place < last) {
                // Once round, from the last to the first.
                assertThat(places.stream().filter(each -> each < place).count())
                        .as("%s, stops before the first", dialog)
                        .isZero();
            }
            last = place;
        }
        assertThat(places).as(dialog).hasSizeGreaterThanOrEqualTo(fewest);
        Browser.assertAccessible(page);
        page.keyboard().press("Escape");
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
    }

    @Test
    void tabGoesThroughEachDialog() {
        String id = server.create("Tabbed", "station");
        page = browser.open("/p/" + id + "/compose");
        assertThat(page.locator("[data-card][data-block=lamps]")).isVisible();
        page.keyboard().press("a");
        goesThrough("adding a block", 10);
        page.keyboard().press("a");
        page.getByLabel("Find a block").fill("general");
        page.keyboard().press("Enter");
        assertThat(page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)))
                .hasValue("interval");
        goesThrough("adding a chosen block", 6);
        page.keyboard().press("w");
        goesThrough("the wiring plan", 1);
        page.getByTitle("Change the board").click();
        goesThrough("changing the board", 3);
        page.locator("[data-card][data-block=lamps]").click();
        page.keyboard().press("g");
        goesThrough("a group", 2);
        page.keyboard().press("Control+d");
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("The blocks are added");
        goesThrough("a duplicate", 3);
        page.locator("[data-card][data-block=memory]")
                .or(page.locator("[data-card][data-block=code]"))
                .first()
                .click();
        page.keyboard().press("Delete");
        goesThrough("a removal", 2);
        page.navigate("/p/" + id + "/addresses");
        page.getByText("Place automatically…").click();
        goesThrough("automatic placement", 2);
        browser.assertNoComplaints();
    }
}
