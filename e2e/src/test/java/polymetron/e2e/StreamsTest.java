package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Streams and groups: leading a source to a sink, what is put between, folding and duplicating. */
final class StreamsTest extends BrowserTest {
    StreamsTest(RunningServer server) {
        super(server);
    }

    private static Locator lane(Page page, String block) {
        return page.locator("[data-lane='%s']".formatted(block));
    }

    private Page station() {
        String id =
                server.post(
                                "/api/platforms",
                                "{\"name\": \"Streams\", \"board\":"
                                        + " \"polymetron:boards:terrace:1.0\", \"recipe\":"
                                        + " \"acquisition\"}")
                        .json()
                        .get("id")
                        .stringValue();
        Page page = browser.open("/p/" + id + "/compose");
        assertThat(lane(page, "ground_split")).isVisible();
        return page;
    }

    private static void add(Page page, String title) {
        page.keyboard().press("a");
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        dialog.getByLabel("Find a block").fill(title);
        dialog.getByText(title, new Locator.GetByTextOptions().setExact(true)).first().click();
        dialog.getByRole(AriaRole.BUTTON)
                .filter(new Locator.FilterOptions().setHasText("Add"))
                .last()
                .click();
        assertThat(dialog).not().isVisible();
    }

    @Test
    void aSecondSinkGetsASplitterAndAnotherWidthAnAdapter() {
        Page page = station();
        add(page, "Event counter");
        assertThat(lane(page, "events")).isVisible();
        Locator inspector = page.getByLabel("Inspector");
        inspector.getByLabel("word width").fill("64");
        page.keyboard().press("Enter");
        lane(page, "ground_reader").click();
        inspector.getByLabel("Where samples goes").selectOption("events.in");
        assertThat(inspector.getByRole(AriaRole.STATUS))
                .containsText("through splitter split and width adapter resize, 32 → 64 bit");
        inspector.getByText("Do it").click();
        assertThat(lane(page, "split")).isVisible();
        assertThat(lane(page, "resize")).isVisible();
        assertThat(page.getByTestId("findings-summary")).hasText("1 note");
        Browser.assertAccessible(page);
        Browser.assertNothingCut(page);

        page.keyboard().press("Control+z");
        assertThat(lane(page, "split")).not().isVisible();
        assertThat(page.getByTestId("findings-summary")).not().hasText("1 note");
        browser.assertNoComplaints();
    }

    @Test
    void aGroupFoldsIsNamedDuplicatedSavedAndDissolved() {
        Page page = station();
        Locator inspector = page.getByLabel("Inspector");
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("ground").setExact(true))
                .click();
        assertThat(inspector).containsText("three-channel converter");
        Browser.assertAccessible(page);
        inspector.getByText("Fold", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(lane(page, "group ground")).containsText("group of 8");
        assertThat(lane(page, "ground_split")).not().isVisible();
        assertThat(page.locator("[data-group=ground]")).containsText("group, 6 here");
        page.reload();
        assertThat(lane(page, "group ground")).isVisible();

        lane(page, "group ground").click();
        inspector.getByText("Save as recipe…").click();
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        dialog.getByLabel("Title").fill("Ground motion");
        dialog.getByText("Save", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("ground_motion");

        inspector.getByText("Duplicate…").click();
        dialog.getByText("Duplicate", new Locator.GetByTextOptions().setExact(true)).click();
        // The first of the new blocks is selected, and its group is named there as well.
        assertThat(inspector).containsText("in group ground_2");
        assertThat(lane(page, "ground_2_split")).isVisible();
        Locator group =
                page.getByLabel("Picture of the platform")
                        .getByRole(
                                AriaRole.BUTTON,
                                new Locator.GetByRoleOptions().setName("ground_2").setExact(true));
        group.click();
        inspector.getByText("Dissolve").click();
        assertThat(lane(page, "split")).isVisible();
        browser.assertNoComplaints();
    }

    @Test
    void blocksAreGroupedByHandAndFromTheMenu() {
        Page page = browser.open("/p/" + server.create("By hand", "station") + "/compose");
        card(page, "lamps").click();
        card(page, "gain")
                .click(
                        new Locator.ClickOptions()
                                .setModifiers(
                                        java.util.List.of(
                                                com.microsoft.playwright.options.KeyboardModifier
                                                        .CONTROL)));
        card(page, "gain")
                .click(
                        new Locator.ClickOptions()
                                .setButton(com.microsoft.playwright.options.MouseButton.RIGHT));
        page.getByRole(AriaRole.MENUITEM).getByText("Group…").click();
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        dialog.getByLabel("Name").fill("panel");
        assertThat(dialog).containsText("panel_lamps");
        dialog.getByText("Group them").click();
        assertThat(card(page, "panel_lamps")).isVisible();
        assertThat(page.getByLabel("Inspector")).containsText("Group of 2 blocks");
        browser.assertNoComplaints();
    }
}
