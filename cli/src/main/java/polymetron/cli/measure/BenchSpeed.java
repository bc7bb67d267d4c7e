package polymetron.cli.measure;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import polymetron.bench.machine.Machine;
import polymetron.bench.part.ConverterSignal;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.LibraryLoader;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.platform.PlatformDocument;
import polymetron.software.SoftwareView;

/** The demo station with all that is around its board: board time beside the time that it takes, alone and sixteen at once. */
final class BenchSpeed implements Measurement {
    private static final String FOLDER = "/polymetron/library/demo/";
    private static final int BENCHES = 16;
    private static final double BEGIN_SECONDS = 2;
    private static final double SECONDS = 20;
    private static final double SECONDS_OF_EACH = 4;

    @Override
    public String title() {
        return "Board time of the demo station, beside the time that it takes";
    }

    @Override
    public String measure() throws Exception {
        double alone = alone();
        double together = together();
        return String.format(
                Locale.ROOT,
                """
                | | board seconds in a second |
                |---|---:|
                | one bench | %.2f |
                | %s benches on as many threads as there are processors, each | %.2f |
                | all of them together | %.2f |

                The station records ground motion, its receiver gives the time, and its battery discharges. Aim: real time for one
                bench.
                """,
                alone,
                BENCHES,
                together / BENCHES,
                together);
    }

    private static byte[] file(String name) throws IOException {
        try (InputStream in = BenchSpeed.class.getResourceAsStream(FOLDER + name)) {
            return in.readAllBytes();
        }
    }

    private static Machine station() throws IOException {
        String text = new String(file("highland-station.json"), StandardCharsets.UTF_8);
        ElaboratedPlatform platform =
                new Elaborator(LibraryLoader.load())
                        .elaborate(PlatformDocument.read("highland-station.json", text));
        Machine machine = new Machine(platform);
        machine.load(
                ProgramImage.of(
                        SoftwareView.of(platform),
                        ElfReader.read(file("highland-station.elf")),
                        (byte) 0));
        machine.signal("converter").orElseThrow().set(ConverterSignal.Shape.GROUND);
        machine.receiver("receiver").orElseThrow().set(true, 0);
        machine.move("battery", 3500);
        run(machine, BEGIN_SECONDS);
        return machine;
    }

    private static void run(Machine machine, double seconds) {
        machine.run((long) (machine.clockHz() * seconds));
        machine.console().orElseThrow().takeSent();
    }

    private static double alone() throws IOException {
        Machine machine = station();
        long begin = System.nanoTime();
        run(machine, SECONDS);
        return SECONDS * 1e9 / (System.nanoTime() - begin);
    }

    private static double together() throws Exception {
        List<Machine> machines = new ArrayList<>();
        for (int at = 0; at < BENCHES; at++) {
            machines.add(station());
        }
        try (ExecutorService threads =
                Executors.newFixedThreadPool(Runtime.getRuntime().availableProcessors())) {
            long begin = System.nanoTime();
            List<Callable<Void>> all = new ArrayList<>();
            for (Machine machine : machines) {
                all.add(
                        () -> {
                            run(machine, SECONDS_OF_EACH);
                            return null;
                        });
            }
            for (Future<Void> each : threads.invokeAll(all)) {
                each.get();
            }
            return BENCHES * SECONDS_OF_EACH * 1e9 / (System.nanoTime() - begin);
        }
    }
}
