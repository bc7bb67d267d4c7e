package polymetron.output.image;

import java.util.ArrayList;
import java.util.List;
import polymetron.address.Address;
import polymetron.elaborate.SizedMemory;

/** All outputs of an image. Deterministic. */
public final class ImageFiles {
    private ImageFiles() {}

    /**
     * @param baseName the name that the files share
     * @return empty when the program does not fit the platform
     */
    public static List<ImageFile> of(ProgramImage image, String baseName) {
        List<ImageFile> files = new ArrayList<>();
        if (!image.fits()) {
            return files;
        }
        files.add(
                new ImageFile(
                        baseName + ".hex",
                        "Intel HEX",
                        IntelHex.write(image.chunks(), image.entry())));
        files.add(
                new ImageFile(
                        baseName + ".srec",
                        "S-records",
                        SRecord.write(baseName, image.chunks(), image.entry())));
        for (MemoryContents memory : image.memories()) {
            if (memory.isJoined()) {
                addMemory(files, memory, baseName + "_" + memory.name(), image.fill());
            }
        }
        return files;
    }

    private static void addMemory(
            List<ImageFile> files, MemoryContents memory, String name, byte fill) {
        files.add(
                new ImageFile(
                        name + ".bin",
                        memory.start() == 0
                                ? "binary from the base of " + memory.name()
                                : "binary from %s of %s"
                                        .formatted(
                                                Address.format(
                                                        memory.memory().range().base()
                                                                + memory.start()),
                                                memory.name()),
                        memory.contents()));
        if (!memory.memory().isFilledByBitstream()) {
            // Memory chips are not filled by a simulator's or a synthesis tool's $readmemh.
            return;
        }
        byte[] whole = memory.whole(fill);
        int wordBytes = wordBytes(memory);
        files.add(
                new ImageFile(
                        name + ".mem",
                        "words of %s bits of %s for $readmemh"
                                .formatted(8 * wordBytes, memory.name()),
                        ReadMemH.words(whole, wordBytes)));
        for (int lane = 0; lane < wordBytes; lane++) {
            files.add(
                    new ImageFile(
                            "%s_lane%s.mem".formatted(name, lane),
                            "byte lane %s of %s for $readmemh".formatted(lane, memory.name()),
                            ReadMemH.lane(whole, wordBytes, lane)));
        }
    }

    /** Bytes of a word, as the memory itself is wide; the bus may be narrower or wider. */
    private static int wordBytes(MemoryContents memory) {
        return memory.memory().block().shape().memories().stream()
                        .filter(SizedMemory::hasContents)
                        .mapToInt(SizedMemory::width)
                        .filter(width -> width % 8 == 0)
                        .filter(width -> memory.memory().form().sizeBytes() % (width / 8) == 0)
                        .findFirst()
                        .orElse(memory.memory().form().dataWidth())
                / 8;
    }
}
