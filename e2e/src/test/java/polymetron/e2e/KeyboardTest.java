package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.microsoft.playwright.FileChooser;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.TimeoutError;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.server.RunningServer;

/** Everything without a mouse. */
final class KeyboardTest extends BrowserTest {
    private Page page;

    KeyboardTest(RunningServer server) {
        super(server);
    }

    private void press(String... keys) {
        for (String key : keys) {
            page.keyboard().press(key);
        }
    }

    private Locator card(String block) {
        return page.locator("[data-card][data-block='" + block + "']");
    }

    /** Presses Tab until something is focused. */
    private void tabTo(String name) {
        for (int times = 0; times < 60; times++) {
            press("Tab");
            Object focused =
                    page.evaluate(
                            "() => (document.activeElement.ariaLabel ||"
                                    + " document.activeElement.textContent || '').trim()");
            if (focused.toString().startsWith(name)) {
                return;
            }
        }
        throw new AssertionError("Tab does not lead to " + name);
    }

    /** A new platform on the first board, from a recipe that the arrow keys go to. */
    private void start(String recipe, String name) {
        page = browser.open("/");
        tabTo("New platform");
        press("Enter");
        assertThat(page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)))
                .isVisible();
        tabTo("Foreland");
        press("Tab");
        while (page.getByRole(AriaRole.RADIO, new Page.GetByRoleOptions().setChecked(true))
                        .filter(new Locator.FilterOptions().setHasText(recipe))
                        .count()
                == 0) {
            press("ArrowDown");
        }
        press("Tab");
        page.keyboard().type(name);
        press("Enter");
    }

    @Test
    void aPlatformIsStartedAndChangedWithKeys() {
        start("Earthquake field station", "By hand");
        assertThat(card("console")).isVisible();

        press("Control+k");
        page.keyboard().type("lamps");
        press("Enter");
        assertThat(card("lamps")).hasAttribute("aria-pressed", "true");
        press("ArrowRight");
        assertThat(page.locator("[data-card][aria-pressed=true]")).hasCount(1);
        assertThat(card("lamps")).hasAttribute("aria-pressed", "false");
        press("ArrowLeft");
        assertThat(card("lamps")).hasAttribute("aria-pressed", "true");
        press("Delete");
        assertThat(card("lamps")).hasCount(0);
        press("Control+z");
        assertThat(card("lamps")).isVisible();
        press("Control+Shift+z");
        assertThat(card("lamps")).hasCount(0);

        assertThat(card("console")).containsText("irq");
        press("-");
        assertThat(card("console")).not().containsText("irq");
        press("+");
        assertThat(card("console")).containsText("irq");

        // What is selected is renamed, also from another view; a parameter leads to its block.
        press("Control+z");
        assertThat(card("lamps")).isVisible();
        press("Control+k");
        page.keyboard().type("lamps gpio");
        press("Enter");
        press("F2");
        Locator name = page.getByLabel("Name of the block");
        assertThat(name).isFocused();
        page.keyboard().type("bar");
        press("Enter");
        assertThat(card("bar")).hasAttribute("aria-pressed", "true");
        press("Control+k");
        page.keyboard().type("rename bar");
        press("Enter");
        assertThat(name).isFocused();
        page.keyboard().type("lamps");
        press("Enter");
        assertThat(card("lamps")).hasAttribute("aria-pressed", "true");
        press("Control+k");
        page.keyboard().type("115200");
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("console, baud rate");
        press("Enter");
        assertThat(card("console")).hasAttribute("aria-pressed", "true");
        press("Control+f");
        page.keyboard().type("uart");
        assertThat(page.getByText("1 of 8")).isVisible();
        press("Escape", "Escape");
        page.evaluate("() => document.activeElement.blur()");

        press("w");
        assertThat(page.getByText("Nothing left to connect")).isVisible();
        press("Escape", "Control+k");
        page.keyboard().type("Go to Addresses");
        press("Enter");
        assertThat(page.getByLabel("Address or name to look up")).isVisible();
        browser.assertNoComplaints();
    }

    /** Finds a block by typing, takes the first offer and adds it with the proposed connections. */
    private void add(String title, String name) {
        press("a");
        page.keyboard().type(title);
        press("Enter");
        Locator field = page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true));
        assertThat(field).hasValue(name);
        assertThat(field).isFocused();
        press("Enter");
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
        assertThat(page.getByLabel("Inspector")).containsText(name);
    }

    /** From an empty board to a program that says hello, without a mouse. */
    @Test
    void anEmptyBoardBecomesAMachineThatRuns() {
        start("Empty", "From nothing");
        assertThat(page.getByText("Nothing is on the board yet")).isVisible();
        add("Small RISC-V processor", "cpu");
        add("Block memory", "memory");
        add("USB serial console", "console");
        assertThat(page.getByTestId("findings-summary")).not().containsText("error");

        press("Control+k");
        page.keyboard().type("Go to Boot");
        press("Enter");
        assertThat(page.getByText("Drop a program here")).isVisible();
        tabTo("Choose a program");
        assertThat(
                        page.getByRole(
                                AriaRole.BUTTON,
                                new Page.GetByRoleOptions().setName("Choose a program")))
                .isFocused();
        chooser()
                .setFiles(
                        new FilePayload(
                                "hello.hex",
                                "application/octet-stream",
                                hello().getBytes(StandardCharsets.US_ASCII)));
        assertThat(page.getByText("hello.hex").first()).isAttached();
        press("Control+k");
        page.keyboard().type("Go to Bench");
        press("Enter");
        assertThat(page.getByText("Load and run")).isEnabled();
        tabTo("Load and run");
        press("Enter");
        assertThat(page.getByLabel("Console")).containsText("hello");
        // A terminal takes the Tab key; behind Escape it leads on.
        String inside = "() => document.activeElement.closest('.xterm') !== null";
        page.locator(".xterm textarea").focus();
        press("Tab");
        assertTrue((Boolean) page.evaluate(inside));
        press("Escape", "Tab");
        assertFalse((Boolean) page.evaluate(inside));
        browser.assertNoComplaints();
    }

    /** The file dialog that Enter opens; now and then headless Chromium does not tell of the first one. */
    private FileChooser chooser() {
        for (int tries = 0; ; tries++) {
            try {
                return page.waitForFileChooser(
                        new Page.WaitForFileChooserOptions().setTimeout(4000),
                        () -> press("Enter"));
            } catch (TimeoutError missed) {
                if (tries == 3) {
                    throw missed;
                }
            }
        }
    }

    /** Stores h, e, l, l, o to the console's first register, and stays there (RISC-V Unprivileged ISA, RV32I). */
    private static String hello() {
        List<Integer> code = new ArrayList<>(List.of(0x10000537)); // lui a0, 0x10000
        for (char letter : "hello".toCharArray()) {
            code.add(0x01452603); // lw a2, 0x14(a0): the line status
            code.add(0x02067613); // andi a2, a2, 0x20: room for a character
            code.add(0xFE060CE3); // beq a2, zero, -8
            code.add(letter << 20 | 11 << 7 | 0x13); // addi a1, zero, letter
            code.add(0x00b52023); // sw a1, 0(a0)
        }
        code.add(0x0000006f); // jal zero, 0
        StringBuilder hex = new StringBuilder();
        for (int at = 0; at < code.size(); at++) {
            int word = Integer.reverseBytes(code.get(at));
            hex.append(record("04%04X00%08X".formatted(4 * at, word)));
        }
        return hex.append(record("0400000500000000")).append(record("00000001")).toString();
    }

    /** A line of Intel HEX with its checksum. */
    private static String record(String digits) {
        int sum = 0;
        for (int at = 0; at < digits.length(); at += 2) {
            sum += Integer.parseInt(digits.substring(at, at + 2), 16);
        }
        return ":%s%02X\n".formatted(digits, -sum & 0xFF);
    }

    /** What is focused can be seen: every stop has an outline or a border that the others do not have. */
    @Test
    void theFocusIsVisible() {
        page = browser.open("/p/" + server.create("Focused", "station") + "/compose");
        assertThat(card("console")).isVisible();
        for (int stop = 0; stop < 25; stop++) {
            press("Tab");
            Object visible =
                    page.evaluate(
                            """
                            () => {
                                const focused = document.activeElement
                                const style = getComputedStyle(focused)
                                return focused === document.body || style.outlineStyle !== 'none' || style.boxShadow !== 'none'
                            }\
                            """);
            assertThat(visible)
                    .as(
                            "focus on "
                                    + page.evaluate(
                                            "() => document.activeElement.outerHTML.slice(0, 200)"))
                    .isEqualTo(true);
        }
    }

    @Test
    void darkColoursAreReadableToo() {
        String path = "/p/" + server.create("Dark", "station");
        page = browser.open(path + "/compose");
        page.getByLabel("Dark colours").click();
        for (String view :
                new String[] {"compose", "addresses", "hardware", "handoff", "boot", "bench"}) {
            page.navigate(path + "/" + view);
            assertThat(page.getByTestId("findings-summary")).isVisible();
            Browser.assertAccessible(page);
            Browser.assertNothingCut(page);
        }
        browser.assertNoComplaints();
    }
}
