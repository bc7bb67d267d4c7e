package polymetron.cli;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.json.SchemaFile;
import polymetron.platform.PlatformDocument;

/** Reads the files that commands are given, and writes what they make. */
final class Inputs {
    private Inputs() {}

    /** A text in UTF-8 of reasonable length. */
    static String text(Path file) throws IOException {
        requireFile(file);
        if (Files.size(file) > 4L * SchemaFile.LONGEST) {
            throw new BadInput("%s is longer than 16 MiB".formatted(file));
        }
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(Files.readAllBytes(file)))
                    .toString();
        } catch (CharacterCodingException wrong) {
            throw new BadInput("%s is not text in UTF-8".formatted(file));
        }
    }

    /**
     * @param blocks block types of one's own that it uses
     */
    static ElaboratedPlatform platform(Path file, OwnBlocks blocks) throws IOException {
        String text = text(file);
        return new Elaborator(blocks.library())
                .elaborate(PlatformDocument.read(String.valueOf(file.getFileName()), text));
    }

    static void requireFile(Path file) {
        if (!Files.isRegularFile(file)) {
            throw new BadInput(
                    Files.exists(file) ? file + " is not a file" : "there is no file " + file);
        }
    }

    /** Writes a file below a folder; the name comes from us, but nothing may leave the folder all the same. */
    static void write(Path folder, String name, byte[] bytes) {
        Path target = folder.resolve(name).normalize();
        if (!target.startsWith(folder.normalize())) {
            throw new BadInput("%s would be written outside %s".formatted(name, folder));
        }
        write(target, bytes);
    }

    /** Writes a file, and makes the folders that it is to lie in. */
    static void write(Path target, byte[] bytes) {
        try {
            if (target.getParent() != null) {
                Files.createDirectories(target.getParent());
            }
            Files.write(target, bytes);
        } catch (FileAlreadyExistsException inTheWay) {
            throw new BadInput(
                    "cannot write %s: %s is a file, not a folder"
                            .formatted(target, inTheWay.getFile()));
        } catch (NoSuchFileException noFolder) {
            throw new BadInput(
                    "cannot write %s: its folder is not there and cannot be made"
                            .formatted(target));
        } catch (IOException impossible) {
            throw new BadInput(
                    "cannot write %s: %s"
                            .formatted(
                                    target,
                                    Files.isDirectory(target)
                                            ? "it is a folder"
                                            : impossible
                                                    .getMessage()
                                                    .replaceFirst("^.*: ", "")
                                                    .toLowerCase(java.util.Locale.ROOT)));
        }
    }
}
