package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;

/** Makes the pictures of the documentation from the demo data; {@code ./polymetron screenshots} runs it. */
@ExtendWith(OneServer.class)
@EnabledIfSystemProperty(named = "polymetron.screenshots", matches = "true")
final class ScreenshotsTest {
    private static final Path FOLDER = Path.of("../docs/screenshots");

    private final RunningServer server;

    ScreenshotsTest(RunningServer server) {
        this.server = server;
    }

    @Test
    void everyMainView() {
        try (Browser browser = new Browser(server)) {
            Page page = browser.open("/");
            String demo = addressOf(page, "Ridge Station");
            String large = addressOf(page, "Highland Station");
            assertThat(page.getByText("being checked")).hasCount(0);
            save(page, "platforms");
            page.navigate("/library/polymetron:serial:uart:1.0");
            assertThat(page.getByText("ns16550a")).isVisible();
            assertThat(page.getByLabel("Block types")).containsText("UART");
            save(page, "library");
            page.navigate("/blocks/edit");
            page.getByText("Add an interrupt").click();
            page.getByText("Add a register").click();
            assertThat(
                            page.getByLabel(
                                    "Bits of REGISTER1",
                                    new Page.GetByLabelOptions().setExact(true)))
                    .isVisible();
            save(page, "block-editor");
            page.navigate("/boards/polymetron:boards:foreland:1.0");
            assertThat(page.getByText("8 switches").first()).isVisible();
            save(page, "boards");
            page.navigate("/boards/polymetron:boards:terrace:1.0/copy");
            assertThat(page.getByText("New board")).isVisible();
            save(page, "board-editor");
            page.navigate(large + "/compose");
            page.locator("[data-block=console]").click();
            assertThat(page.getByText("Where software finds it")).isVisible();
            save(page, "compose");
            page.getByLabel("Streams").getByRole(AriaRole.BUTTON).nth(1).click();
            page.mouse().wheel(0, 4000);
            page.waitForTimeout(300);
            save(page, "streams");
            page.keyboard().press("Escape");
            page.keyboard().press("a");
            page.getByText("Machine timer").last().click();
            assertThat(page.getByTestId("plan-line").first()).isVisible();
            save(page, "add-block");
            page.navigate(large + "/interrupts");
            page.getByText("thermometer.irq").first().click();
            save(page, "interrupts");
            page.navigate(large + "/clocks");
            page.getByLabel("Name of clock 1").fill("audio");
            page.getByLabel("Frequency of clock 1").fill("12.288");
            page.getByText("Find settings").click();
            assertThat(page.getByLabel("Settings found")).isVisible();
            save(page, "clocks");
            page.navigate(large + "/pins");
            page.getByText("thermometer.scl[0]").first().click();
            save(page, "pins");
            page.navigate(large + "/fit");
            page.getByText("code.words").click();
            save(page, "fit");
            page.navigate(demo + "/addresses");
            page.getByLabel("Address or name to look up").fill("0x1000_0014");
            assertThat(page.getByText("LSR", new Page.GetByTextOptions().setExact(true)))
                    .isVisible();
            assertThat(page.getByLabel("Address spaces side by side")).isVisible();
            save(page, "addresses");
            page.navigate(large + "/addresses");
            page.getByText("One initiator").click();
            assertThat(page.getByLabel("What one initiator sees")).containsText("bridge");
            save(page, "space");
            page.navigate(demo + "/hardware");
            assertThat(page.getByLabel("Preview")).containsText("module ridge_station");
            page.getByLabel("Module tree")
                    .getByText("system", new Locator.GetByTextOptions().setExact(true))
                    .click();
            assertThat(page.getByLabel("Preview")).containsText("polymetron_axi4_bus");
            save(page, "hardware");
            page.navigate(demo + "/handoff");
            assertThat(page.getByLabel("Preview")).containsText("FINGERPRINT");
            save(page, "handoff");
            page.navigate(demo + "/boot");
            assertThat(page.getByText("ridge_station.hex")).isVisible();
            save(page, "boot");
            page.navigate(large + "/bench");
            page.getByText("Load and run").click();
            page.getByLabel("Stream to plot").selectOption("ground_decimate.out");
            // The trigger compares once its long average is complete.
            page.waitForTimeout(11_000);
            page.getByLabel("Signal at three-channel converter").getByText("ground motion").click();
            assertThat(page.locator("[data-lamp=lit]").nth(3)).isVisible();
            page.waitForTimeout(3_000);
            save(page, "bench");
            server.post(
                    "/api/platforms/" + demo.substring(demo.lastIndexOf('/') + 1) + "/edits",
                    "{\"revision\": 1, \"edit\": {\"edit\": \"set-parameter\", \"block\":"
                            + " \"console\", \"parameter\": \"BAUD\", \"value\": \"57600\"}}");
            page.navigate(demo + "/history");
            assertThat(page.getByLabel("Changes")).containsText("console.BAUD");
            save(page, "history");
        }
    }

    private static String addressOf(Page page, String name) {
        return page.getByRole(
                        AriaRole.LINK, new Page.GetByRoleOptions().setName(name).setExact(true))
                .last()
                .getAttribute("href")
                .replace("/compose", "");
    }

    private static void save(Page page, String name) {
        page.screenshot(new Page.ScreenshotOptions().setPath(FOLDER.resolve(name + ".png")));
    }
}
