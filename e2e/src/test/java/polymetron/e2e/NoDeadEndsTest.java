package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.net.URI;
import java.net.http.HttpRequest;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** What used to lead nowhere: clock domains, another board, inputs that are taken, plans that can be taken in part. */
final class NoDeadEndsTest extends BrowserTest {
    private Page page;

    NoDeadEndsTest(RunningServer server) {
        super(server);
    }

    private Locator dialog() {
        return page.getByRole(AriaRole.DIALOG);
    }

    private Locator button(String name) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    private Locator region(String name) {
        return page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(name));
    }

    private String document(String id) {
        return server.get("/api/platforms/" + id + "/document").text();
    }

    private void edit(String id, long revision, String edit) {
        server.post(
                "/api/platforms/" + id + "/edits",
                "{\"revision\": %s, \"edit\": %s}".formatted(revision, edit));
    }

    @Test
    void aClockDomainIsRenamedGivenAnotherFrequencyAndRemoved() {
        String id = server.create("Clocked", "station");
        page = browser.open("/p/" + id + "/clocks");
        page.getByLabel("Name of clock 1").fill("audio");
        page.getByLabel("Frequency of clock 1").fill("12.288");
        button("Find settings").click();
        button("Use it").first().click();
        Locator tree = page.getByLabel("Clock tree");
        tree.getByText("audio", new Locator.GetByTextOptions().setExact(true)).click();
        Locator domain = region("Clock domain audio");
        assertThat(domain).containsText("made by pll");
        Browser.assertAccessible(page);
        Browser.assertNothingCut(page);

        domain.getByLabel("requested").fill("20");
        domain.getByLabel("requested").press("Enter");
        domain.getByLabel("Settings for the requested frequency")
                .getByText("Use it")
                .first()
                .click();
        assertThat(tree).containsText("20 MHz");
        domain.getByLabel("requested").fill("much");
        domain.getByLabel("requested").press("Enter");
        assertThat(domain).containsText("Write a frequency, such as");
        domain.getByLabel("requested").press("Escape");

        domain.getByLabel("name", new Locator.GetByLabelOptions().setExact(true)).fill("sound");
        page.keyboard().press("Enter");
        assertThat(region("Clock domain sound")).isVisible();

        // A block goes there, its reset with it.
        long revision = server.get("/api/platforms/" + id).json().path("revision").asLong();
        edit(
                id,
                revision,
                "{\"edit\": \"set-domain\", \"block\": \"lamps\", \"port\": \"clk\","
                        + " \"domain\": \"sound\"}");
        domain = region("Clock domain sound");
        assertThat(domain.getByLabel("What it clocks")).containsText("clk, rst");

        // Removed, what is in it goes to the other domain.
        button("Remove clock domain sound").click();
        assertThat(dialog()).containsText("1 block");
        dialog().getByLabel("They go to").selectOption("main");
        dialog().getByText("Remove", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(tree).not().containsText("sound");
        assertThat(server.get("/api/platforms/" + id + "/domains/main").text()).contains("lamps");
        browser.assertNoComplaints();
    }

    @Test
    void whatMakesAClockIsRemovedAndItsBlocksGoElsewhere() {
        String id = server.create("Divided", "station");
        page = browser.open("/p/" + id + "/clocks");
        page.getByLabel("Name of clock 1").fill("slow");
        page.getByLabel("Frequency of clock 1").fill("25");
        button("Find settings").click();
        button("Use it").first().click();
        assertThat(page.getByLabel("Clock tree")).containsText("slow");
        edit(
                id,
                2,
                "{\"edit\": \"set-domain\", \"block\": \"lamps\", \"port\": \"clk\","
                        + " \"domain\": \"slow\"}");
        page.navigate("/p/" + id + "/compose");
        card(page, "pll").click();
        page.keyboard().press("Delete");
        assertThat(dialog()).containsText("It makes clocks");
        dialog().getByLabel("slow").selectOption("main");
        dialog().getByText("Remove", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(card(page, "pll")).hasCount(0);
        assertThat(page.getByTestId("findings-summary")).not().containsText("error");
        browser.assertNoComplaints();
    }

    @Test
    void anotherBoardIsLookedAtFirstAndUndoGivesTheSameBytes() {
        String id = server.create("Moved", "station");
        String before = document(id);
        page = browser.open("/p/" + id + "/compose");
        assertThat(card(page, "lamps")).isVisible();
        button("Foreland field board").click();
        dialog().getByRole(AriaRole.RADIO)
                .filter(new Locator.FilterOptions().setHasText("Terrace"))
                .click();
        assertThat(dialog()).containsText("Changes");
        assertThat(dialog().getByLabel("Changes")).containsText("instead of 50 MHz");
        Browser.assertAccessible(page);
        button("Change to Terrace recorder board").click();
        assertThat(button("Terrace recorder board")).isVisible();
        assertThat(document(id)).contains("polymetron:boards:terrace");
        page.keyboard().press("Control+z");
        assertThat(button("Foreland field board")).isVisible();
        assertThat(document(id)).isEqualTo(before);
        browser.assertNoComplaints();
    }

    @Test
    void aTakenInterruptInputIsSwappedAndADisconnectionIsSaid() {
        String id = server.create("Swapped", "station");
        page = browser.open("/p/" + id + "/interrupts");
        Locator grid = page.getByLabel("Inputs of interrupts");
        Locator.GetByLabelOptions exact = new Locator.GetByLabelOptions().setExact(true);
        assertThat(grid.getByLabel("console.irq to 1", exact)).hasAttribute("aria-pressed", "true");
        grid.getByLabel("console.irq to 2", exact).click();
        assertThat(dialog()).containsText("IRQ 2 is taken by service.irq");
        dialog().getByText("Swap: service.irq to input 1").click();
        assertThat(grid.getByLabel("console.irq to 2", exact)).hasAttribute("aria-pressed", "true");
        assertThat(grid.getByLabel("service.irq to 1", exact)).hasAttribute("aria-pressed", "true");
        assertThat(page.getByTestId("findings-summary")).hasText("No findings");
        grid.getByLabel("service.irq to 1", exact).click();
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("Disconnected");
        assertThat(grid).containsText("open");
        browser.assertNoComplaints();
    }

    @Test
    void automaticPlacementIsTakenInPart() {
        String id = server.create("Placed", "station");
        edit(
                id,
                1,
                "{\"edit\": \"attach\", \"block\": \"lamps\", \"busInterface\": \"registers\","
                        + " \"bus\": \"system\", \"base\": \"0x2000_0000\"}");
        edit(
                id,
                2,
                "{\"edit\": \"attach\", \"block\": \"gain\", \"busInterface\": \"registers\","
                        + " \"bus\": \"system\", \"base\": \"0x2100_0000\"}");
        page = browser.open("/p/" + id + "/addresses");
        button("Place automatically…").click();
        assertThat(dialog().getByLabel("Move lamps")).isChecked();
        dialog().getByLabel("Move lamps").uncheck();
        assertThat(dialog()).containsText("stays");
        dialog().getByText("fewest moves").click();
        assertThat(dialog()).containsText("Nothing else moves");
        dialog().getByText("compact").click();
        dialog().getByText(Pattern.compile("Move \\d+ ranges?")).click();
        assertThat(page.getByLabel("Base of lamps")).hasValue("0x2000_0000");
        assertThat(page.getByLabel("Base of gain")).not().hasValue("0x2100_0000");
        browser.assertNoComplaints();
    }

    @Test
    void anEarlierRevisionIsUnmistakableAndHandOffShowsIt() {
        String id = server.create("Earlier", "station");
        edit(id, 1, "{\"edit\": \"rename-block\", \"block\": \"lamps\", \"name\": \"bar\"}");
        page = browser.open("/p/" + id + "/handoff?at=1");
        assertThat(page.getByText("Viewing revision 1 of")).isVisible();
        assertThat(page.getByRole(AriaRole.BANNER)).containsText("read-only");
        assertThat(page.getByLabel("Files")).containsText("from revision 1");
        assertThat(page.getByLabel("Contents of earlier.h")).containsText("LAMPS_");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Boot")).click();
        assertThat(page.getByText("Viewing revision 1 of")).isVisible();
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Hand-off")).click();
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Back to the newest"))
                .click();
        assertThat(page.getByLabel("Contents of earlier.h")).containsText("BAR_");
        browser.assertNoComplaints();
    }

    @Test
    void whoRemovedAPlatformIsSaidToWhoeverComesByItsLink() {
        String id = server.create("Left", "station");
        Page colleague = browser.open("/p/" + id + "/compose");
        assertThat(card(colleague, "lamps")).isVisible();
        page = browser.open("/p/" + id + "/history");
        page.getByLabel("Your name").fill("Anna");
        page.getByLabel("Your name").press("Enter");
        page.navigate("/");
        page.onceDialog(asked -> asked.accept());
        page.evaluate(
                "async (id) => { const name = localStorage.getItem('browser') + ' ' +"
                        + " encodeURIComponent(localStorage.getItem('author'));"
                        + " await fetch('/api/platforms/' + id, { method: 'DELETE', headers:"
                        + " { 'Polymetron-Author': name } }) }",
                id);
        assertThat(colleague.getByRole(AriaRole.BANNER)).containsText("removed");
        assertThat(colleague.getByRole(AriaRole.ALERT)).containsText("removed");
        page.navigate("/p/" + id + "/compose");
        assertThat(page.getByText("Left was removed by Anna")).isVisible();
        browser.forgetComplaints();
    }

    @Test
    void aFixThatBreaksSomethingElseAsksFirst() {
        String id = server.create("Fixed", "station");
        edit(
                id,
                1,
                "{\"edit\": \"set-parameter\", \"block\": \"lamps\", \"parameter\":"
                        + " \"WIDTH\", \"value\": \"4\"}");
        page = browser.open("/p/" + id + "/compose");
        page.getByTestId("findings-summary").click();
        Locator fix =
                page.getByTestId("fix")
                        .filter(new Locator.FilterOptions().setHasText("Let lamps go"));
        Locator header = page.getByRole(AriaRole.BANNER);
        fix.click();
        assertThat(dialog()).containsText("no board part or pin is connected to");
        dialog().getByText("Cancel").click();
        assertThat(header).containsText("revision 2");
        fix.click();
        dialog().getByText("Apply").click();
        assertThat(header).containsText("revision 3");
        browser.assertNoComplaints();
    }

    /** With 700 ms to the server each way is seen, and what is not stored yet is not called saved. */
    @Test
    void onASlowConnectionNothingIsCalledSavedThatIsNot() {
        String id = server.create("Slow", "station");
        page = browser.open("/p/" + id + "/compose");
        assertThat(card(page, "lamps")).isVisible();
        card(page, "lamps").click();
        assertThat(page.getByLabel("Inspector")).containsText("GPIO");
        var network = page.context().newCDPSession(page);
        network.send("Network.enable");
        var slow = new com.google.gson.JsonObject();
        slow.addProperty("offline", false);
        slow.addProperty("latency", 700);
        slow.addProperty("downloadThroughput", -1);
        slow.addProperty("uploadThroughput", -1);
        network.send("Network.emulateNetworkConditions", slow);
        page.getByLabel("Inspector").getByLabel("width").first().fill("4");
        page.keyboard().press("Enter");
        Locator header = page.getByRole(AriaRole.BANNER);
        assertThat(header).containsText("saving");
        assertThat(header).containsText("revision 2 · saved");
        page.navigate("/p/" + id + "/addresses");
        assertThat(page.getByLabel("Base of lamps")).isVisible();

        // A colleague removes it while nothing gets through.
        slow.addProperty("offline", true);
        network.send("Network.emulateNetworkConditions", slow);
        assertThat(header).containsText("offline");
        server.send(
                HttpRequest.newBuilder(URI.create(server.address() + "/api/platforms/" + id))
                        .DELETE()
                        .build());
        slow.addProperty("offline", false);
        network.send("Network.emulateNetworkConditions", slow);
        assertThat(header).containsText("removed");
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("Slow was removed");
        page.getByText("Bring it back").click();
        assertThat(header).containsText("saved");
        browser.forgetComplaints();
    }
}
