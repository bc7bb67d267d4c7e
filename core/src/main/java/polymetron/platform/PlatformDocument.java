package polymetron.platform;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.json.DocumentException;
import polymetron.json.DocumentFormat;
import polymetron.json.Documents;
import polymetron.json.SchemaFile;

/** Reads and writes platform documents, checking them against the published schema. */
public final class PlatformDocument {
    private static final DocumentFormat<Platform> FORMAT =
            new DocumentFormat<>(
                    Platform.FORMAT,
                    new SchemaFile(PlatformDocument.class, "platform.schema.json"),
                    Platform.class);

    private PlatformDocument() {}

    /** The JSON Schema of platform documents. */
    public static String schemaText() {
        return FORMAT.schemaText();
    }

    /** The canonical text of a platform: the same platform always gives the same bytes. */
    public static String write(Platform platform) {
        return Documents.write(platform);
    }

    /**
     * @param name what the document is called in messages, such as its file name
     * @throws DocumentException when it is no platform document; the message names line and key
     */
    public static Platform read(String name, String text) {
        return checked(name, FORMAT.read(name, text));
    }

    /** The same for one that is kept already, whatever characters it has. */
    public static Platform readKept(String name, String text) {
        return checked(name, FORMAT.readKept(name, text));
    }

    private static Platform checked(String name, Platform platform) {
        unique(name, platform.blocks().stream().map(Block::name).toList(), "blocks");
        unique(name, platform.buses().stream().map(Bus::name).toList(), "buses");
        unique(name, platform.domains().stream().map(ClockDomain::name).toList(), "domains");
        for (int bus = 0; bus < platform.buses().size(); bus++) {
            List<Reserved> reserved = platform.buses().get(bus).reserved();
            for (int at = 0; at < reserved.size(); at++) {
                Reserved region = reserved.get(at);
                if (region.base().compareTo(region.last()) > 0) {
                    String pointer = "/buses/%s/reserved/%s".formatted(bus, at);
                    throw new DocumentException(
                            "%s, at %s: the region ends at %s before it begins at %s"
                                    .formatted(name, pointer, region.last(), region.base()),
                            pointer);
                }
            }
        }
        return platform;
    }

    private static void unique(String document, List<String> names, String what) {
        Set<String> seen = new HashSet<>();
        for (int at = 0; at < names.size(); at++) {
            if (!seen.add(names.get(at))) {
                String pointer = "/%s/%s/name".formatted(what, at);
                throw new DocumentException(
                        "%s, at %s: there are two %s named %s; each needs its own name"
                                .formatted(document, pointer, what, names.get(at)),
                        pointer);
            }
        }
    }
}
