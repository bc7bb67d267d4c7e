package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.library.BlockType;
import polymetron.server.RunningServer;

/** The library: found by name, read as a data sheet. */
final class LibraryViewTest extends BrowserTest {

    LibraryViewTest(RunningServer server) {
        super(server);
    }

    @Test
    void aBlockTypeIsFoundAndRead() {
        Page page = browser.open("/");
        page.getByText("Library").click();
        page.getByLabel("Find a block type").fill("two-wire");
        page.getByText("I2C controller").click();
        assertThat(page.getByRole(AriaRole.ARTICLE)).containsText("polymetron,i2c-controller-1.0");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("COMMAND")).click();
        assertThat(page.getByText("a start or repeated start first")).isVisible();
        page.getByText("i2c_controller.h").click();
        assertThat(page.getByRole(AriaRole.ARTICLE)).containsText("static inline bool i2c_step");
        page.getByLabel("Find a block type").fill("nothing of the kind");
        assertThat(page.getByText("No matches.")).isVisible();
        browser.assertNoComplaints();
    }

    @Test
    void everyDataSheetIsComplete() {
        Page page = browser.open("/library");
        for (BlockType type : Shipped.LIBRARY.types()) {
            page.navigate("/library/" + type.identity());
            assertThat(page.getByRole(AriaRole.ARTICLE)).containsText(type.description());
            Browser.assertNothingCut(page);
        }
        Browser.assertAccessible(page);
        browser.assertNoComplaints();
    }

    @Test
    void aBoardShowsItsPartsAndWhoDrivesThem() {
        Page page = browser.open("/boards");
        page.getByText("Terrace recorder board").click();
        assertThat(page.getByRole(AriaRole.ARTICLE)).containsText("41 of 64 pins wired");
        assertThat(page.getByRole(AriaRole.ARTICLE))
                .containsText("DIVIDER 8, MODE 1, SELECTS 1, WORD 24");
        Browser.assertAccessible(page);
        Browser.assertNothingCut(page);
        page.getByText("I2C controller").click();
        assertThat(page.getByRole(AriaRole.ARTICLE)).containsText("polymetron,i2c-controller-1.0");
        browser.assertNoComplaints();
    }
}
