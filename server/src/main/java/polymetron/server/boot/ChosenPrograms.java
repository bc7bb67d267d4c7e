package polymetron.server.boot;

import java.util.OptionalLong;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.image.ProgramFile;
import polymetron.output.image.ProgramImage;
import polymetron.output.image.ProgramReader;
import polymetron.software.Programs;

/** A program laid out for the processor that a request names, or for the one that starts where it begins. */
public final class ChosenPrograms {
    private ChosenPrograms() {}

    /**
     * @param processor null for the one that starts where the program begins
     * @throws RejectedEdit when there is no such processor
     */
    public static ProgramImage image(
            ElaboratedPlatform platform, String processor, byte[] contents, byte fill) {
        ProgramFile program = ProgramReader.read(contents, OptionalLong.empty());
        if (processor == null || processor.isEmpty()) {
            return ProgramImage.of(platform, program, fill);
        }
        return ProgramImage.of(
                Programs.of(platform)
                        .named(processor)
                        .orElseThrow(
                                () ->
                                        new RejectedEdit(
                                                "processor",
                                                "no processor %s has a data side on a bus"
                                                        .formatted(processor))),
                program,
                fill);
    }
}
