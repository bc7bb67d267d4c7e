package polymetron.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import polymetron.address.Address;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.image.ImageFile;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.output.image.SectionPlace;
import polymetron.platform.Names;

/** Lays a program out in the memories of a platform and writes the images. */
@Command(
        name = "image",
        description = "Makes boot images from a program.",
        mixinStandardHelpOptions = true)
final class ImageCommand implements Callable<Integer> {
    @Spec private CommandSpec spec;

    @Mixin private OwnBlocks blocks;

    @Parameters(paramLabel = "PLATFORM.json", description = "the platform document")
    private Path file;

    @Mixin private ProgramOptions program;

    @Option(
            names = "--out",
            paramLabel = "DIR",
            required = true,
            description = "folder to write to")
    private Path out;

    @Option(
            names = "--fill",
            paramLabel = "BYTE",
            defaultValue = "0",
            description = "value between what is loaded, such as 255 or 0xFF")
    private String fill;

    @Override
    public Integer call() throws Exception {
        ElaboratedPlatform platform = Inputs.platform(file, blocks);
        if (CheckCommand.refuses(platform, spec.commandLine().getErr())) {
            return CommandLineApplication.FINDINGS;
        }
        ProgramImage image = program.image(platform, fillByte(), spec.commandLine().getErr());
        PrintWriter console = spec.commandLine().getOut();
        for (SectionPlace place : image.sections()) {
            console.printf(
                    "%-16s %s %10s  %s%n",
                    place.section().name(),
                    Address.format(place.section().address()),
                    Address.formatSize(place.section().sizeBytes()),
                    place.fits() ? place.memory() : place.problem());
        }
        if (!image.fits()) {
            image.problems()
                    .forEach(problem -> spec.commandLine().getErr().println("error: " + problem));
            return CommandLineApplication.FINDINGS;
        }
        for (ImageFile each : ImageFiles.of(image, Names.fromTitle(platform.platform().name()))) {
            Inputs.write(out, each.name(), each.bytes());
            console.printf(
                    "%-32s %10s bytes  crc32 %08x%n",
                    each.name(), each.bytes().length, each.crc32());
        }
        console.flush();
        return 0;
    }

    private int fillByte() {
        try {
            int value = Integer.decode(fill.strip());
            if (value >= 0 && value <= 255) {
                return value;
            }
        } catch (NumberFormatException noNumber) {
            // Said below.
        }
        throw new BadInput("--fill is a byte, 0 to 255 or 0x00 to 0xFF, not " + fill);
    }
}
