package polymetron.paste;

import java.util.List;
import polymetron.json.DocumentException;
import polymetron.json.Documents;
import polymetron.platform.Block;
import polymetron.platform.Names;
import polymetron.platform.Platform;

/**
 * Blocks as text, for the clipboard: what the user decided about each of them.
 *
 * @param format says what the text is
 */
public record BlocksText(String format, List<Block> blocks) {
    public static final String FORMAT = "polymetron-blocks/1";

    private static final int LONGEST = 2 * 1024 * 1024;

    /** The named blocks of a platform, in the order of the document; names that are not there are left out. */
    public static String of(Platform platform, List<String> names) {
        return Documents.write(
                new BlocksText(
                        FORMAT,
                        platform.blocks().stream()
                                .filter(block -> names.contains(block.name()))
                                .toList()));
    }

    /**
     * @throws DocumentException when the text is nothing that was copied here; the message names line and key
     */
    public static BlocksText read(String text) {
        if (text.length() > LONGEST) {
            throw new DocumentException("the pasted text is longer than 2 MiB", "");
        }
        BlocksText read = Documents.read("pasted text", text, BlocksText.class);
        if (!FORMAT.equals(read.format()) || read.blocks() == null || read.blocks().isEmpty()) {
            throw new DocumentException(
                    "pasted text: these are no blocks that were copied here; their format would be "
                            + FORMAT,
                    "/format");
        }
        for (int at = 0; at < read.blocks().size(); at++) {
            Block block = read.blocks().get(at);
            if (block.type() == null || !Names.isName(block.name())) {
                throw new DocumentException(
                        "pasted text, at /blocks/%s: a block needs a type, and a name of this form: %s"
                                .formatted(at, Names.RULE),
                        "/blocks/" + at);
            }
        }
        return read;
    }
}
