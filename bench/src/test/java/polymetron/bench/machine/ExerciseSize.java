package polymetron.bench.machine;

import java.io.IOException;
import java.nio.file.Path;
import polymetron.bench.mutant.MeasuredSize;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Evidence;
import polymetron.output.hardware.Hardware;
import polymetron.outside.Tool;

/** The measured size of a stream element, as it is on the platform that the exercises of streams run on. */
public final class ExerciseSize {
    private ExerciseSize() {}

    /**
     * @param folder for the hardware
     */
    public static Evidence.Size of(String element, Path folder) throws IOException {
        ElaboratedPlatform platform = ExercisePlatform.streams();
        ElaboratedBlock block =
                platform.blocks().stream()
                        .filter(each -> each.type().identity().name().equals(element))
                        .findFirst()
                        .orElseThrow();
        Hardware.of(platform)
                .files()
                .forEach(file -> Tool.write(folder, file.path(), file.bytes()));
        return MeasuredSize.of(platform, block, folder.resolve("hdl"));
    }
}
