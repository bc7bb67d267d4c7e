package polymetron;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.Board;
import polymetron.library.Library;
import polymetron.library.LibraryLoader;
import polymetron.library.Recipe;
import polymetron.library.Vlnv;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.wiring.Starter;

/** The library and the demo that ship with the product, for tests. */
public final class Shipped {
    public static final Library LIBRARY = LibraryLoader.load();
    public static final Vlnv BOARD = Vlnv.parse("polymetron:boards:foreland:1.0");
    public static final Vlnv PROCESSOR = Vlnv.parse("polymetron:processor:rv32-small:1.0");
    public static final Vlnv MEMORY = Vlnv.parse("polymetron:memory:block-memory:1.0");
    public static final Vlnv UART = Vlnv.parse("polymetron:serial:uart:1.0");
    public static final Vlnv GPIO = Vlnv.parse("polymetron:io:gpio:1.0");
    public static final Vlnv TIMER = Vlnv.parse("polymetron:timer:machine-timer:1.0");
    public static final Vlnv CONTROLLER =
            Vlnv.parse("polymetron:interrupt:interrupt-controller:1.0");

    public static final Vlnv BRIDGE = Vlnv.parse("polymetron:infrastructure:bridge:1.0");

    private Shipped() {}

    public static byte[] file(String path) {
        try (var in = Shipped.class.getResourceAsStream("/polymetron/library/" + path)) {
            return in.readAllBytes();
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }

    public static String demoText() {
        return new String(file("demo/ridge-station.json"), StandardCharsets.UTF_8);
    }

    public static Platform demo() {
        return PlatformDocument.read("ridge-station.json", demoText());
    }

    public static byte[] demoProgram() {
        return file("demo/ridge-station.elf");
    }

    /** A platform from a recipe, on the first board that it fits. */
    public static Platform recipe(String name) {
        Recipe recipe = LIBRARY.recipe(name).orElseThrow();
        Vlnv board =
                LIBRARY.boards().stream()
                        .filter(recipe::fits)
                        .map(Board::identity)
                        .findFirst()
                        .orElseThrow();
        return Starter.start(LIBRARY, "Test platform", board, recipe);
    }

    public static ElaboratedPlatform elaborate(Platform platform) {
        return new Elaborator(LIBRARY).elaborate(platform);
    }

    /** A second processor, hart 1, on the bus of the demo's first. */
    public static Edit secondProcessor(String resetVector) {
        return new Edit.Several(
                "second processor",
                List.of(
                        new Edit.AddBlock(
                                "cpu2",
                                PROCESSOR,
                                Map.of("HART_ID", "1", "RESET_VECTOR", resetVector)),
                        new Edit.SetDomain("cpu2", "clk", "main"),
                        new Edit.SetDomain("cpu2", "rst", "main"),
                        new Edit.Attach("cpu2", "instruction", "system", null, null),
                        new Edit.Attach("cpu2", "data", "system", null, null)));
    }
}
