package polymetron.cli;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.image.ElfException;
import polymetron.image.ElfReader;
import polymetron.image.ProgramImage;
import polymetron.json.SchemaFile;
import polymetron.library.LibraryLoader;
import polymetron.platform.PlatformDocument;

/** Reads the files that commands are given, and writes what they make. */
final class Inputs {
    private Inputs() {}

    static ElaboratedPlatform platform(Path file) throws IOException {
        requireFile(file);
        if (Files.size(file) > 4L * SchemaFile.LONGEST) {
            throw new BadInput("%s is longer than 16 MiB".formatted(file));
        }
        String text;
        try {
            text =
                    StandardCharsets.UTF_8
                            .newDecoder()
                            .decode(ByteBuffer.wrap(Files.readAllBytes(file)))
                            .toString();
        } catch (CharacterCodingException wrong) {
            throw new BadInput("%s is not text in UTF-8".formatted(file));
        }
        return new Elaborator(LibraryLoader.load())
                .elaborate(PlatformDocument.read(String.valueOf(file.getFileName()), text));
    }

    static ProgramImage image(ElaboratedPlatform platform, Path elf, int fill) throws IOException {
        requireFile(elf);
        if (Files.size(elf) > ElfReader.LARGEST) {
            throw new ElfException(
                    "%s has %s bytes; at most %s are read"
                            .formatted(elf, Files.size(elf), ElfReader.LARGEST));
        }
        return ProgramImage.of(platform, ElfReader.read(Files.readAllBytes(elf)), (byte) fill);
    }

    private static void requireFile(Path file) {
        if (!Files.isRegularFile(file)) {
            throw new BadInput(
                    Files.exists(file) ? file + " is not a file" : "there is no file " + file);
        }
    }

    /** Writes a file below a folder; the name comes from us, but nothing may leave the folder all the same. */
    static void write(Path folder, String name, byte[] bytes) throws IOException {
        Path target = folder.resolve(name).normalize();
        if (!target.startsWith(folder.normalize())) {
            throw new BadInput("%s would be written outside %s".formatted(name, folder));
        }
        Files.createDirectories(target.getParent() == null ? folder : target.getParent());
        Files.write(target, bytes);
    }
}
