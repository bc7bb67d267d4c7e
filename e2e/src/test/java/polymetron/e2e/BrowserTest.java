package polymetron.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;

/** A test in a browser of its own, in front of the application that all tests share. */
@ExtendWith(OneServer.class)
abstract class BrowserTest {
    final RunningServer server;
    final Browser browser;

    BrowserTest(RunningServer server) {
        this.server = server;
        this.browser = new Browser(server);
    }

    @AfterEach
    final void closeBrowser() {
        browser.close();
    }

    /** The card of a block in the picture. */
    static Locator card(Page page, String block) {
        return page.locator("[data-card][data-block='" + block + "']");
    }
}
