package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.server.RunningServer;

/** What goes wrong shows itself at once, with a button that puts it right. */
final class FindingsTest extends BrowserTest {

    FindingsTest(RunningServer server) {
        super(server);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    "edit": "attach", "block": "gain", "busInterface": "registers", "bus": "system", "base": "0x1000_2000" | overlap
                    "edit": "attach", "block": "timer", "busInterface": "registers", "bus": "system", "base": "0x1001_8000" | multiple
                    "edit": "detach", "block": "cpu", "busInterface": "data" | memory
                    "edit": "detach", "block": "lamps", "busInterface": "registers" | lamps
                    "edit": "set-domain", "block": "lamps", "port": "clk" | clock
                    "edit": "set-domain", "block": "lamps", "port": "rst" | reset
                    "edit": "disconnect-interrupt", "block": "console", "source": "irq" | irq
                    "edit": "connect-interrupt", "block": "console", "source": "irq", "sinkBlock": "interrupts", "sink": "inputs", "input": 2 | 2
                    "edit": "unbind", "block": "lamps", "outward": "lines" | lines
                    "edit": "set-parameter", "block": "lamps", "parameter": "WIDTH", "value": "4" | 8
                    "edit": "set-parameter", "block": "cpu", "parameter": "RESET_VECTOR", "value": "0x2000_0000" | reset vector
                    "edit": "set-parameter", "block": "console", "parameter": "BAUD", "value": "3000000" | Bd
                    """)
    void isPutRightByItsFirstButton(String edit, String says) {
        String id = server.create("Broken", "station");
        server.post(
                "/api/platforms/" + id + "/edits", "{\"revision\": 1, \"edit\": {" + edit + "}}");
        Page page = browser.open("/p/" + id + "/compose");
        Locator summary = page.getByTestId("findings-summary");
        assertThat(summary).not().hasText("No findings");
        summary.click();
        // What follows from one cause is one line at first.
        for (Locator folded : page.getByText("each of them").all()) {
            folded.click();
        }
        Locator finding =
                page.getByTestId("finding")
                        .filter(new Locator.FilterOptions().setHasText(says))
                        .first();
        assertThat(finding).isVisible();
        // Some things hang together: one fix after the other, until nothing is left.
        for (int times = 0; times < 4 && page.getByTestId("fix").count() > 0; times++) {
            page.getByTestId("fix").first().click();
            assertThat(page.getByText("revision " + (3 + times))).isVisible();
        }
        assertThat(summary).hasText("No findings");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Undo").setExact(true))
                .click();
        assertThat(summary).not().hasText("No findings");
        browser.assertNoComplaints();
    }
}
