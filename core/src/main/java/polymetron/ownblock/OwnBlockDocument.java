package polymetron.ownblock;

import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import polymetron.json.DocumentException;
import polymetron.json.DocumentFormat;
import polymetron.json.DocumentText;
import polymetron.json.Documents;
import polymetron.json.SchemaFile;
import polymetron.library.BlockType;
import polymetron.library.BlockTypeDocument;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A block of one's own as one file: the definition, and the lines of its Verilog files and drivers. It is text that can be read
 * and compared, and no archive that would have to be unpacked.
 */
public final class OwnBlockDocument {
    public static final String FORMAT = "polymetron-own-block/1";

    /** Longest file, in characters. */
    public static final int LONGEST_FILE = 1 << 20;

    private static final DocumentFormat<Form> DOCUMENT =
            new DocumentFormat<>(
                    FORMAT,
                    new SchemaFile(OwnBlockDocument.class, "own-block.schema.json"),
                    Form.class);

    private record Form(
            String format,
            JsonNode definition,
            List<FileForm> hardware,
            List<FileForm> drivers,
            List<FileForm> tests) {}

    private record FileForm(String name, List<String> lines) {}

    private OwnBlockDocument() {}

    /** The JSON Schema of these documents. */
    public static String schemaText() {
        return DOCUMENT.schemaText();
    }

    /**
     * Reads a document; places that the definition leaves open are filled, as {@link OpenPlaces} says.
     *
     * @param name what it is called in messages, such as its file name
     * @throws DocumentException when it is no such document; the message names line and key
     */
    public static OwnBlock read(String name, String text) {
        return block(name, text, DOCUMENT.read(name, text));
    }

    /** The same for one that is kept already, whatever characters it has. */
    public static OwnBlock readKept(String name, String text) {
        return block(name, text, DOCUMENT.readKept(name, text));
    }

    private static OwnBlock block(String name, String text, Form form) {
        DocumentText document = new DocumentText(name, text);
        if (!(form.definition() instanceof ObjectNode definition)) {
            throw document.wrong("/definition", "the definition is an object");
        }
        SortedMap<String, String> hardware = files(document, "/hardware", form.hardware());
        SortedMap<String, String> drivers = files(document, "/drivers", form.drivers());
        SortedMap<String, String> tests = files(document, "/tests", form.tests());
        ObjectNode filled = OpenPlaces.filled(definition);
        // What does not depend on files is read first: a module's name may follow from it.
        BlockType type = type(document, Documents.write(filled));
        if (FileBindings.fill(filled, type, hardware, drivers)) {
            type = type(document, Documents.write(filled));
        }
        return new OwnBlock(type, Documents.write(filled), hardware, drivers, tests);
    }

    /** What is wrong in the definition is said of its place in the whole document. */
    private static BlockType type(DocumentText document, String definition) {
        try {
            return BlockTypeDocument.read("definition", definition);
        } catch (DocumentException wrong) {
            String place = "/definition" + wrong.pointer();
            String why =
                    wrong.getMessage().replaceFirst("^definition(, line \\d+)?(, at [^:]*)?: ", "");
            throw document.wrong(place, why);
        }
    }

    private static SortedMap<String, String> files(
            DocumentText document, String place, List<FileForm> forms) {
        SortedMap<String, String> files = new TreeMap<>();
        List<FileForm> given = forms == null ? List.of() : forms;
        for (int at = 0; at < given.size(); at++) {
            FileForm file = given.get(at);
            String text = file.lines().isEmpty() ? "" : String.join("\n", file.lines()) + "\n";
            if (text.length() > LONGEST_FILE) {
                throw document.wrong(
                        place + "/" + at, "%s is longer than 1 MiB".formatted(file.name()));
            }
            if (files.put(file.name(), text) != null) {
                throw document.wrong(
                        place + "/" + at + "/name",
                        "there are two files %s".formatted(file.name()));
            }
        }
        return files;
    }

    /** The canonical text of a block: the same block always gives the same bytes. */
    public static String write(OwnBlock block) {
        return Documents.write(
                new Form(
                        FORMAT,
                        Documents.tree("definition", block.definition()),
                        forms(block.hardware()),
                        forms(block.drivers()),
                        forms(block.tests())));
    }

    private static List<FileForm> forms(SortedMap<String, String> files) {
        List<FileForm> forms = new ArrayList<>();
        files.forEach((name, text) -> forms.add(new FileForm(name, text.lines().toList())));
        return forms;
    }
}
