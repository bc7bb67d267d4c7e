package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** A board of one's own: copied, changed with checks, used, exported, removed, imported. */
final class BoardsTest extends BrowserTest {
    BoardsTest(RunningServer server) {
        super(server);
    }

    @Test
    void aBoardIsCopiedChangedUsedAndRemoved() {
        Page page = browser.open("/boards");
        page.getByText("Foreland field board").first().click();
        page.getByText("Copy…").click();
        page.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("Cove board");
        Locator name = page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true));
        name.fill("cove");
        name.press("Tab");
        Locator save = page.getByText("Save", new Page.GetByTextOptions().setExact(true));

        Locator pin = page.getByLabel("Pin of the clock");
        pin.fill("H1");
        assertThat(page.getByRole(AriaRole.STATUS).first())
                .containsText("pin H1 takes no clock; E1, E2 do");
        assertThat(page.getByText("pin H1 is already used by oscillator").first()).isVisible();
        assertThat(save).isDisabled();
        pin.fill("Q77");
        assertThat(page.getByRole(AriaRole.STATUS).first()).containsText("FL9-40 has no pin Q77");
        Browser.assertAccessible(page);
        Browser.assertNothingCut(page);
        pin.fill("E1");
        assertThat(page.getByRole(AriaRole.STATUS).first()).containsText("Nothing is wrong");
        save.click();
        assertThat(page.getByRole(AriaRole.ARTICLE)).containsText("own:boards:cove:1.0");
        assertThat(page.getByText("yours", new Page.GetByTextOptions().setExact(true))).isVisible();

        String board = "own:boards:cove:1.0";
        server.post(
                "/api/platforms",
                "{\"name\": \"Cove Station\", \"board\": \"%s\", \"recipe\": \"panel\"}"
                        .formatted(board));
        byte[] exported = server.get("/api/library/boards/" + board + "/document").bytes();
        page.getByText("Remove…").click();
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("Cove Station is built on it");
        dialog.getByText("Remove it").click();
        assertThat(page.getByText("Cove board")).hasCount(0);

        Page left = browser.open("/");
        left.getByText("Cove Station").click();
        assertThat(left.getByTestId("findings-summary")).containsText("error");
        left.getByTestId("findings-summary").click();
        assertThat(left.getByTestId("finding").first())
                .containsText("board %s is not in the library".formatted(board));

        page.getByLabel("Board document")
                .setInputFiles(new FilePayload("cove.json", "application/json", exported));
        assertThat(page.getByRole(AriaRole.ARTICLE)).containsText("own:boards:cove:1.0");
        page.getByLabel("Board document")
                .setInputFiles(
                        new FilePayload(
                                "bad.json",
                                "application/json",
                                new String(exported, StandardCharsets.UTF_8)
                                        .replace(
                                                "\"frequencyHz\" : 50000000", "\"frequencyHz\" : 0")
                                        .getBytes(StandardCharsets.UTF_8)));
        assertThat(page.getByRole(AriaRole.STATUS).last()).containsText("bad.json, line");
        left.reload();
        assertThat(left.getByTestId("findings-summary")).hasText("No findings");
        page.evaluate(
                "board => fetch(`/api/library/boards/${board}`, { method: 'DELETE' })", board);
    }

    @Test
    void aBankGetsAnotherSupplyAndNothingTypedIsLostByLeaving() {
        Page page = browser.open("/boards/polymetron:boards:foreland:1.0/copy");
        Locator supply = page.getByLabel(Pattern.compile("Supply of bank .*")).first();
        Locator status = page.getByRole(AriaRole.STATUS).first();
        assertThat(status).containsText("Nothing is wrong");
        String usual = supply.inputValue();
        String other =
                supply.locator("option").all().stream()
                        .map(option -> option.getAttribute("value"))
                        .filter(value -> !value.equals(usual))
                        .findFirst()
                        .orElseThrow();
        supply.selectOption(other);
        assertThat(status).containsText(other);
        assertThat(page.getByText("Save", new Page.GetByTextOptions().setExact(true))).isDisabled();
        supply.selectOption(usual);
        assertThat(status).containsText("Nothing is wrong");

        page.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("Half a board");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Library")).click();
        Locator question = page.getByRole(AriaRole.DIALOG);
        assertThat(question).containsText("Leave without saving?");
        question.getByText("Stay").click();
        assertThat(page.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)))
                .hasValue("Half a board");
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Library")).click();
        question.getByText("Leave", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(page.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)))
                .hasCount(0);
        browser.assertNoComplaints();
    }
}
