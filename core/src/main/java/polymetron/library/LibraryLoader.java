package polymetron.library;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.BiFunction;
import polymetron.json.DocumentText;
import polymetron.json.Documents;
import tools.jackson.databind.JsonNode;

/**
 * Reads the library from the class path: {@code polymetron/library/index.json} lists the folders of the block
 * types and the files of devices, boards and recipes.
 */
public final class LibraryLoader {
    private static final String ROOT = "polymetron/library/";

    private LibraryLoader() {}

    /**
     * @throws polymetron.json.DocumentException when a definition is wrong; the message names file, line and key
     */
    public static Library load() {
        JsonNode index = Documents.tree("index.json", text("index.json"));
        List<BlockType> types = new ArrayList<>();
        Map<Vlnv, SortedMap<String, String>> drivers = new HashMap<>();
        Map<Vlnv, SortedMap<String, String>> hardware = new HashMap<>();
        SortedMap<String, String> common = texts("hdl/", names(index.path("hdl")));
        SortedMap<String, String> parts = new TreeMap<>();
        for (String kind : names(index.path("parts"))) {
            parts.put(kind, text("parts/polymetron_part_%s.v".formatted(kind.replace('-', '_'))));
        }
        for (JsonNode folder : index.path("blockTypes")) {
            String at = "block-types/" + folder.stringValue() + "/";
            String path = at + "block-type.json";
            BlockType type = BlockTypeDocument.read(path, text(path));
            types.add(type);
            drivers.put(type.identity(), driverFiles(at, type));
            if (type.hardware() != null) {
                SortedMap<String, String> own = texts(at + "hdl/", type.hardware().files());
                hardware.put(type.identity(), own);
                String file = type.hardware().module() + ".v";
                if (!own.containsKey(file) && !common.containsKey(file)) {
                    throw new DocumentText(path, text(path))
                            .wrong(
                                    "/hardware/module",
                                    "%s is neither among the files nor a common module: list %s under files"
                                            .formatted(type.hardware().module(), file));
                }
            }
        }
        return new Library(
                types,
                readAll(index.path("boards"), "boards/", Board::read),
                readAll(index.path("devices"), "devices/", Device::read),
                readAll(index.path("recipes"), "recipes/", Recipe::read),
                drivers,
                new HardwareSources(
                        common,
                        hardware,
                        parts,
                        Documents.read(
                                "evidence.json", text("evidence.json"), Evidence.Kept.class)));
    }

    private static List<String> names(JsonNode list) {
        List<String> names = new ArrayList<>();
        list.forEach(name -> names.add(name.stringValue()));
        return names;
    }

    private static SortedMap<String, String> texts(String folder, List<String> names) {
        SortedMap<String, String> texts = new TreeMap<>();
        names.forEach(name -> texts.put(name, text(folder + name)));
        return texts;
    }

    private static SortedMap<String, String> driverFiles(String folder, BlockType type) {
        SortedMap<String, String> files = new TreeMap<>();
        addDriver(files, folder, type.software());
        for (BusInterfaceType form : type.busInterfaces()) {
            if (form.software() != null) {
                addDriver(files, folder, form.software());
            }
        }
        return files;
    }

    private static void addDriver(
            SortedMap<String, String> files, String own, SoftwareBinding software) {
        if (software.driver() != null) {
            String folder =
                    software.driverFolder() == null
                            ? own
                            : "block-types/" + software.driverFolder() + "/";
            files.put(software.driver(), text(folder + "driver/" + software.driver()));
        }
    }

    private static <T> List<T> readAll(
            JsonNode names, String folder, BiFunction<String, String, T> reader) {
        List<T> entries = new ArrayList<>();
        for (JsonNode name : names) {
            String path = folder + name.stringValue() + ".json";
            entries.add(reader.apply(path, text(path)));
        }
        return entries;
    }

    private static String text(String path) {
        try (InputStream in =
                LibraryLoader.class.getClassLoader().getResourceAsStream(ROOT + path)) {
            if (in == null) {
                throw new IllegalStateException("the library has no file %s".formatted(path));
            }
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }
}
