package polymetron.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import polymetron.server.RunningServer;

/** Debian's headless Chromium in front of the running application. */
final class Browser implements AutoCloseable {
    private static final Path AXE = Path.of("../ui/node_modules/axe-core/axe.min.js");

    private final RunningServer server;
    private final Playwright playwright;
    private final com.microsoft.playwright.Browser chromium;
    private final List<String> complaints = new ArrayList<>();

    Browser(RunningServer server) {
        // A busy machine is slow; only what never comes is an error.
        PlaywrightAssertions.setDefaultAssertionTimeout(15_000);
        this.server = server;
        this.playwright =
                Playwright.create(
                        new Playwright.CreateOptions()
                                .setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        this.chromium =
                playwright
                        .chromium()
                        .launch(
                                new BrowserType.LaunchOptions()
                                        .setExecutablePath(chromium())
                                        .setArgs(
                                                List.of(
                                                        "--no-sandbox",
                                                        "--disable-gpu",
                                                        "--disable-quic",
                                                        "--no-first-run",
                                                        "--disable-background-networking",
                                                        "--disable-component-update",
                                                        "--disable-sync")));
    }

    private static Path chromium() {
        for (String folder : System.getenv("PATH").split(":")) {
            Path program = Path.of(folder, "chromium");
            if (Files.isExecutable(program)) {
                return program;
            }
        }
        throw new IllegalStateException("Chromium is not installed; ./polymetron test installs it");
    }

    /** A page of its own, as another user would have it; what its console complains about is kept. */
    Page open(String path) {
        BrowserContext context =
                chromium.newContext(
                        new com.microsoft.playwright.Browser.NewContextOptions()
                                .setViewportSize(1280, 800)
                                .setBaseURL(server.address()));
        context.setDefaultTimeout(15_000);
        Page page = context.newPage();
        page.onConsoleMessage(
                message -> {
                    if (List.of("error", "warning").contains(message.type())) {
                        complaints.add(page.url() + ": " + message.text());
                    }
                });
        page.onPageError(error -> complaints.add(page.url() + ": " + error));
        page.navigate(path);
        return page;
    }

    /** What the console is expected to complain about from here on: a connection that is cut, an edit refused. */
    void forgetComplaints() {
        complaints.clear();
    }

    void assertNoComplaints() {
        assertThat(complaints).isEmpty();
    }

    /** Checks a view against the rules of WCAG 2.1 A and AA, as axe-core has them. */
    static void assertAccessible(Page page) {
        try {
            // The policy of the application forbids scripts of others in its pages; a test may
            // still evaluate one.
            page.evaluate(Files.readString(AXE));
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
        Object violations =
                page.evaluate(
                        """
                        async () => (await axe.run(document, {
                            runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'],
                        })).violations.map((each) =>
                            each.id + ': ' + each.nodes.map((node) => node.html.slice(0, 200)).slice(0, 3).join(' | '))
                        """);
        assertThat((List<?>) violations).as("accessibility of " + page.url()).isEmpty();
    }

    /** Nothing is wider than the window. */
    static void assertNothingCut(Page page) {
        Object wide =
                page.evaluate("() => document.documentElement.scrollWidth > window.innerWidth");
        assertThat(wide).as("a horizontal scroll bar on " + page.url()).isEqualTo(false);
    }

    @Override
    public void close() {
        chromium.close();
        playwright.close();
    }
}
