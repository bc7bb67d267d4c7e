package polymetron.image;

import java.util.ArrayList;
import java.util.List;

/** All outputs of an image. Deterministic. */
public final class ImageFiles {
    private static final int LANES = 4;

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
                        IntelHex.write(image.chunks(), image.program().entry())));
        files.add(
                new ImageFile(
                        baseName + ".srec",
                        "S-records",
                        SRecord.write(baseName, image.chunks(), image.program().entry())));
        for (MemoryContents memory : image.memories()) {
            String name = baseName + "_" + memory.name();
            if (memory.contents().length == 0) {
                continue;
            }
            byte[] whole = memory.whole(image.fill());
            files.add(
                    new ImageFile(
                            name + ".bin",
                            "binary from the base of " + memory.name(),
                            memory.contents()));
            files.add(
                    new ImageFile(
                            name + ".mem",
                            "words of %s for $readmemh".formatted(memory.name()),
                            ReadMemH.words(whole)));
            for (int lane = 0; lane < LANES; lane++) {
                files.add(
                        new ImageFile(
                                "%s_lane%s.mem".formatted(name, lane),
                                "byte lane %s of %s for $readmemh".formatted(lane, memory.name()),
                                ReadMemH.lane(whole, lane)));
            }
        }
        return files;
    }
}
