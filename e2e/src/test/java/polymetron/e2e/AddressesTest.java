package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Ranges are moved by the picture and by the table, swapped, shifted, held, and a heap of conflicts is settled. */
final class AddressesTest extends BrowserTest {
    AddressesTest(RunningServer server) {
        super(server);
    }

    private Page open(String name) {
        return browser.open("/p/" + server.create(name, "station") + "/addresses");
    }

    private static Locator field(Page page, String label) {
        return page.getByLabel(label, new Page.GetByLabelOptions().setExact(true));
    }

    private static Locator button(Page page, String name) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    @Test
    void aRangeIsMovedByThePicture() {
        Page page = open("Dragged");
        Locator rulers = page.getByLabel("Address spaces side by side");
        String before = field(page, "Base of lamps").inputValue();
        Locator lamps =
                rulers.getByText("lamps", new Locator.GetByTextOptions().setExact(true)).first();
        // The last row of the ruler is the large gap above everything.
        Locator gap = rulers.locator("[data-ruler-row]").last().locator("td").first();
        lamps.dragTo(gap);
        assertThat(field(page, "Base of lamps")).not().hasValue(before);
        assertThat(page.getByTestId("findings-summary")).hasText("No findings");
        button(page, "Undo").click();
        assertThat(field(page, "Base of lamps")).hasValue(before);
        browser.assertNoComplaints();
    }

    @Test
    void rangesAreSwappedShiftedHeldAndEndWhereTheyShould() {
        Page page = open("Exact");
        String lamps = field(page, "Base of lamps").inputValue();
        String gain = field(page, "Base of gain").inputValue();
        page.getByLabel("Choose lamps").check();
        page.getByLabel("Choose gain").check();
        Locator tools = page.getByLabel("Chosen ranges");
        tools.getByText("Swap").click();
        assertThat(field(page, "Base of lamps")).hasValue(gain);
        assertThat(field(page, "Base of gain")).hasValue(lamps);
        page.getByLabel("Distance of the shift").fill("16M");
        tools.getByText("Up").click();
        assertThat(field(page, "Base of lamps")).not().hasValue(gain);
        Browser.assertAccessible(page);
        Browser.assertNothingCut(page);
        tools.getByText("Lock", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(page.getByLabel("Lock lamps")).isChecked();
        tools.getByText("Swap").click();
        assertThat(page.getByText("is locked; unlock it first").first()).isVisible();

        field(page, "Last address of code").fill("0x0000_1FFF");
        field(page, "Last address of code").press("Enter");
        assertThat(field(page, "Size of code")).hasValue("8 KiB");
        field(page, "Address or name to look up").fill("console.lsr");
        assertThat(page.getByText("0x1000_0014")).isVisible();
        assertThat(page.getByText("for cpu · data side")).isVisible();
    }

    @Test
    void whatOneInitiatorSeesAndWhatTheBusesCarry() {
        Page page = open("Seen");
        button(page, "One initiator").click();
        Locator seen = page.getByLabel("What one initiator sees");
        assertThat(seen).containsText("code");
        Browser.assertAccessible(page);
        Browser.assertNothingCut(page);
        field(page, "Required bandwidth in MB/s").fill("60");
        field(page, "Required bandwidth in MB/s").press("Enter");
        button(page, "Buses").click();
        assertThat(page.getByLabel("What the buses carry")).containsText("60 MB/s");
        assertThat(page.getByLabel("What the buses carry")).containsText("120 %");
        Browser.assertAccessible(page);
        button(page, "Ranges").click();
        button(page, "Reserve addresses…").click();
        page.getByLabel("First", new Page.GetByLabelOptions().setExact(true)).fill("0x2000_0000");
        page.getByLabel("Last", new Page.GetByLabelOptions().setExact(true)).fill("0x2FFF_FFFF");
        page.getByLabel("Kept for").fill("the recorder");
        button(page, "Reserve").click();
        assertThat(page.getByText("reserved for the recorder").first()).isVisible();
        browser.assertNoComplaints();
    }

    /** Four targets at one address are one line, and settled together after a look. */
    @Test
    void aHeapOfConflictsIsSettledAtOnce() {
        String id = server.create("Heap", "station");
        for (int at = 0; at < 3; at++) {
            String block = new String[] {"lamps", "gain", "service"}[at];
            server.post(
                    "/api/platforms/" + id + "/edits",
                    """
                    {"revision": %s, "edit": {"edit": "attach", "block": "%s", "busInterface":
                    "registers", "bus": "system", "base": "0x1000_0000"}}
                    """
                            .formatted(at + 1, block));
        }
        Page page = browser.open("/p/" + id + "/addresses");
        assertThat(page.getByText("overlaps").first()).isVisible();
        page.getByTestId("findings-summary").click();
        Locator group = page.getByTestId("finding-group").first();
        assertThat(group).containsText("error × 3");
        Browser.assertAccessible(page);
        group.getByText("each of them").click();
        assertThat(page.getByTestId("finding")).hasCount(3);
        group.getByText("Settle all 3…").click();
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog.getByRole(AriaRole.LISTITEM)).hasCount(3);
        dialog.getByText("Apply", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(page.getByTestId("findings-summary")).hasText("No findings");
        browser.assertNoComplaints();
    }
}
