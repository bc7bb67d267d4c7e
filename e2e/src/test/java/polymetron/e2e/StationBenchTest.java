package polymetron.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.server.RunningServer;

/** The large demo station on the bench: voltages, the ground, satellites, and what the streams bring. */
final class StationBenchTest extends BrowserTest {
    /** Board time until the trigger has heard enough, on a machine that is busy. */
    private static final double LONG_MILLIS = 60_000;

    StationBenchTest(RunningServer server) {
        super(server);
    }

    private Page station() {
        String id =
                server.upload(
                                "/api/platforms/import?name=station.json",
                                Shipped.file("demo/highland-station.json"))
                        .json()
                        .path("id")
                        .stringValue();
        server.upload(
                "/api/platforms/" + id + "/programs?name=station.elf",
                Shipped.file("demo/highland-station.elf"));
        return browser.open("/p/" + id + "/bench");
    }

    private static LocatorAssertions.ContainsTextOptions soon() {
        return new LocatorAssertions.ContainsTextOptions().setTimeout(LONG_MILLIS);
    }

    @Test
    void theGroundShakesAndTheBatteryFalls() {
        Page page = station();
        page.getByText("Load and run").click();
        Locator console = page.getByLabel("Console");
        assertThat(console).containsText("battery above 12.80 V");
        Locator volts = page.getByLabel("battery voltage in volts");
        volts.fill("11,0 V");
        volts.press("Enter");
        assertThat(console).containsText("battery below 12.80 V");
        assertThat(console).containsText("battery below 11.20 V");
        // More than the full scale is refused where it was typed.
        volts.fill("17");
        volts.press("Enter");
        assertThat(volts).hasJSProperty("validationMessage", "0 to 16.5 V");

        Locator streams = page.getByLabel("Streams");
        streams.getByLabel("Stream to plot").selectOption("ground_decimate.out");
        assertThat(streams).containsText("samples of 24 bits");
        assertThat(streams.locator("canvas")).isVisible();
        Locator signals = page.getByLabel("Signal at three-channel converter");
        Locator quiet = signals.getByText("quiet");
        assertThat(quiet).hasAttribute("aria-pressed", "true");
        assertThat(page.getByLabel("State of the bench"))
                .containsText(
                        java.util.regex.Pattern.compile("board time (9|[1-9][0-9])\\."), soon());
        signals.getByText("ground motion").click();
        assertThat(page.locator("[data-lamp=lit]").first()).isVisible();
        assertThat(console).containsText("event on channel", soon());
        assertThat(console).containsText("record 0: at", soon());
        Locator receiver =
                page.getByRole(
                        AriaRole.CHECKBOX,
                        new Page.GetByRoleOptions().setName("pulse and message each second"));
        receiver.uncheck();
        assertThat(receiver).not().isChecked();
    }
}
