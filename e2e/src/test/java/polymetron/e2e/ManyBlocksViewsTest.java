package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.platform.LargeDocument;
import polymetron.server.RunningServer;

/** No view gets wider than the window with 200 blocks, and long lists draw only what is in sight. */
final class ManyBlocksViewsTest extends BrowserTest {
    ManyBlocksViewsTest(RunningServer server) {
        super(server);
    }

    private String imported(int blocks) {
        byte[] document = LargeDocument.of(blocks).getBytes(StandardCharsets.UTF_8);
        return server.upload("/api/platforms/import?name=many.json", document)
                .json()
                .path("id")
                .asString();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "compose|port199",
                "addresses|port11",
                "interrupts|console.irq",
                "clocks|main",
                "pins|port11.value[0]",
                "fit|lookup tables",
                "handoff|large_200.h",
                "boot|",
                "bench|",
                "history|"
            })
    void nothingIsWiderThanTheWindow(String viewAndText) {
        String[] parts = viewAndText.split("\\|", -1);
        Page page = browser.open("/p/" + imported(200) + "/" + parts[0]);
        if (!parts[1].isEmpty()) {
            assertThat(page.getByText(parts[1]).first()).isAttached();
        }
        assertThat(page.getByTestId("findings-summary")).isVisible();
        page.waitForTimeout(300);
        Browser.assertNothingCut(page);
    }

    /** Ten thousand ranges: the last one is not in the page until it is scrolled to. */
    @Test
    void longTablesDrawWhatIsInSight() {
        Page page = browser.open("/p/" + imported(10_000) + "/addresses");
        assertThat(page.getByLabel("Base of port11")).isVisible();
        int drawn = page.locator("tr").count();
        org.assertj.core.api.Assertions.assertThat(drawn).isBetween(20, 1500);
        assertThat(page.getByLabel("Base of port9999")).hasCount(0);
        page.evaluate(
                "document.querySelector('[data-range=port11]').closest('[data-scrolls]').scrollTo(0,"
                    + " document.querySelector('[data-range=port11]').closest('table').offsetHeight)");
        assertThat(page.getByLabel("Base of port9999")).isVisible();
    }
}
