package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.server.RunningServer;

/** One person with many tabs: a browser opens six connections to a server at most. */
final class TwelveTabsTest extends BrowserTest {
    private static final int ON_COMPOSE = 8;
    private static final int ON_BENCH = 4;

    TwelveTabsTest(RunningServer server) {
        super(server);
    }

    @Test
    void everyTabSavesAndHearsOfTheOthers() {
        String shared = server.create("In all tabs", "station");
        String bench =
                server.upload(
                                "/api/platforms/import?name=ridge-station.json",
                                Shipped.file("demo/ridge-station.json"))
                        .json()
                        .path("id")
                        .stringValue();
        server.upload("/api/platforms/" + bench + "/programs?name=demo.elf", Shipped.demoProgram());
        Page first = browser.open("/p/" + shared + "/compose");
        List<Page> composing = new ArrayList<>(List.of(first));
        while (composing.size() < ON_COMPOSE) {
            composing.add(another(first, "/p/" + shared + "/compose"));
        }
        List<Page> running = new ArrayList<>();
        while (running.size() < ON_BENCH) {
            running.add(another(first, "/p/" + bench + "/bench"));
        }
        for (int tab = 0; tab < ON_COMPOSE; tab++) {
            String name = "Saved in tab " + tab;
            rename(composing.get(tab), name);
            for (Page each : composing) {
                assertThat(each.getByRole(AriaRole.BANNER)).containsText(name);
            }
        }
        // What one tab loads and types is seen on all that show the bench, whenever they came.
        running.getFirst().getByText("Load and run").click();
        for (Page each : running) {
            assertThat(each.getByLabel("Console")).containsText("say help");
        }
        Page late = another(first, "/p/" + bench + "/bench");
        assertThat(late.getByLabel("Console")).containsText("say help");
        // The tab that was there first is closed; the others go on.
        composing.removeFirst().close();
        rename(composing.getFirst(), "Still told");
        assertThat(composing.getLast().getByRole(AriaRole.BANNER)).containsText("Still told");
        server.post("/api/platforms/" + bench + "/bench/console", "{\"text\": \"status\\r\"}");
        assertThat(late.getByLabel("Console")).containsText("gain");
        browser.assertNoComplaints();
    }

    private static Page another(Page first, String path) {
        Page page = first.context().newPage();
        page.navigate(path);
        return page;
    }

    private static void rename(Page page, String name) {
        Locator banner = page.getByRole(AriaRole.BANNER);
        banner.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("In all tabs"))
                .or(
                        banner.getByRole(
                                AriaRole.BUTTON,
                                new Locator.GetByRoleOptions().setName("Saved in")))
                .first()
                .click();
        page.getByLabel("Name of the platform").fill(name);
        page.keyboard().press("Enter");
    }

    @Test
    void aPlatformThatSomebodyElseRemovesSaysSo() {
        String id = server.create("Removed by another", "station");
        Page page = browser.open("/p/" + id + "/compose");
        assertThat(card(page, "lamps")).isVisible();
        server.send(server.request("/api/platforms/" + id).DELETE().build());
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("removed");
        assertThat(card(page, "lamps")).isVisible();
        Browser.assertAccessible(page);
        page.getByText("Bring it back").click();
        assertThat(page.getByRole(AriaRole.ALERT)).not().isVisible();
        // From the list as well.
        page.navigate("/");
        page.getByLabel("Remove Removed by another").first().click();
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("Remove").setExact(true))
                .click();
        page.getByText("that can still be brought back").click();
        page.getByLabel("Bring back Removed by another").click();
        assertThat(page.getByLabel("Remove Removed by another").first()).isVisible();
    }
}
