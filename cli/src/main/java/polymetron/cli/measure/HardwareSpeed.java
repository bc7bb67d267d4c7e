package polymetron.cli.measure;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.Library;
import polymetron.library.LibraryLoader;
import polymetron.output.HandoffFile;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.platform.PlatformDocument;
import tools.jackson.databind.json.JsonMapper;

/**
 * Hardware: how long it takes to write, how fast it is simulated, how many cycles an instruction takes in it, and how large
 * the processor is.
 */
final class HardwareSpeed implements Measurement {
    private static final String DEMO = "/polymetron/library/demo/ridge-station";
    private static final int CYCLES = 400_000;
    private static final Pattern COUNTED = Pattern.compile("counted (\\d+) of (\\d+)");
    private static final Pattern TABLES = Pattern.compile("\\$lut\\s+(\\d+)");
    private static final Pattern FLIP_FLOPS = Pattern.compile("\\$_\\w*DFF\\w*_\\s+(\\d+)");

    private final Path folder;
    private final Library library = LibraryLoader.load();
    private final Elaborator elaborator = new Elaborator(library);

    HardwareSpeed(Path folder) {
        this.folder = folder;
    }

    @Override
    public String title() {
        return "Hardware, beside the JSON parse of the same document";
    }

    @Override
    public String measure() throws Exception {
        StringBuilder report = new StringBuilder();
        report.append("| blocks | Verilog | JSON parse | ratio | files | MB |\n");
        report.append("|---:|---:|---:|---:|---:|---:|\n");
        for (int size : List.of(25, 300, 1_000)) {
            written(report, size);
        }
        simulated(report);
        sizes(report);
        return report.toString();
    }

    private void written(StringBuilder report, int size) throws Exception {
        String text = PlatformDocument.write(LargePlatform.of(size));
        ElaboratedPlatform platform = elaborator.elaborate(PlatformDocument.read("large", text));
        JsonMapper mapper = new JsonMapper();
        int rounds = Math.clamp(3_000L / size, 3, 40);
        Repeat.Pair pair =
                Repeat.inTurns(
                        rounds, rounds, () -> Hardware.of(platform), () -> mapper.readTree(text));
        List<HandoffFile> files = Hardware.of(platform).files();
        report.append(
                String.format(
                        Locale.ROOT,
                        "| %d | %.1f ms | %.2f ms | %.0f | %d | %.1f |%n",
                        size,
                        pair.one() / 1e6,
                        pair.other() / 1e6,
                        pair.ratio(),
                        files.size(),
                        files.stream().mapToLong(file -> file.bytes().length).sum() / 1e6));
    }

    private static byte[] resource(String name) throws IOException {
        try (InputStream in = HardwareSpeed.class.getResourceAsStream(name)) {
            return in.readAllBytes();
        }
    }

    private void simulated(StringBuilder report) throws Exception {
        ElaboratedPlatform platform =
                elaborator.elaborate(
                        PlatformDocument.read(
                                "demo",
                                new String(resource(DEMO + ".json"), StandardCharsets.UTF_8)));
        Path here = Files.createDirectories(folder.resolve("simulated"));
        for (HandoffFile file : Hardware.of(platform).files()) {
            Files.createDirectories(here.resolve(file.path()).getParent());
            Files.write(here.resolve(file.path()), file.bytes());
        }
        ProgramImage image =
                ProgramImage.of(platform, ElfReader.read(resource(DEMO + ".elf")), (byte) 0);
        Files.write(
                here.resolve("program.hex"), ImageFiles.of(image, "program").getFirst().bytes());
        Path bench = here.resolve("sim/testbench.v");
        String text = Files.readString(bench);
        int end = text.lastIndexOf("endmodule");
        Files.writeString(bench, text.substring(0, end) + COUNTER + text.substring(end));
        report.append("\nRidge Station with its program, from the reset:\n\n");
        report.append("| simulator | build | thousand cycles a second | cycles an instruction |\n");
        report.append("|---|---:|---:|---:|\n");
        for (String simulator : List.of("iverilog", "verilator")) {
            long build =
                    Outside.run(
                            here,
                            List.of(
                                    "make",
                                    "-s",
                                    "-C",
                                    "sim",
                                    "build/" + simulator,
                                    "SIM=" + simulator));
            long run =
                    Outside.run(
                            here,
                            List.of(
                                    "sh",
                                    "-c",
                                    "cd sim; ./build/%s +IMAGE=../program.hex +CYCLES=%d"
                                            .formatted(simulator, 10 * CYCLES)));
            Matcher counted = COUNTED.matcher(Files.readString(here.resolve("outside.log")));
            if (!counted.find()) {
                throw new IOException("nothing was counted");
            }
            report.append(
                    String.format(
                            Locale.ROOT,
                            "| %s | %.1f s | %.0f | %.2f |%n",
                            simulator,
                            build / 1e9,
                            CYCLES / (run / 1e9) / 1e3,
                            Double.parseDouble(counted.group(2))
                                    / Long.parseLong(counted.group(1))));
        }
    }

    private static final String COUNTER =
            """

            integer counted = 0;
            always @(posedge board.cpu.clk) begin
                if (board.cpu.behaviour.retires) counted = counted + 1;
                if (cycles == CYCLES) begin
                    $display("counted %0d of %0d", counted, cycles);
                    $finish;
                end
            end
            """
                    .replace("CYCLES", Integer.toString(CYCLES));

    /** Lookup tables without carry chains, as the generic synthesis of yosys counts them, and flip-flops. */
    private void sizes(StringBuilder report) throws Exception {
        library.hardware().common().forEach((name, text) -> write(name, text));
        report.append(
                "\n"
                    + "The processor, synthesised by yosys for lookup tables without carry chains,"
                    + " registers as flip-flops apart:\n\n");
        report.append("| parameters | LUT4 | LUT6 | flip-flops |\n|---|---:|---:|---:|\n");
        for (List<String> each :
                List.of(
                        List.of("RV32I", "0", "0"),
                        List.of("RV32IM, iterative", "1", "0"),
                        List.of("RV32IM, multipliers of the device", "2", "0"),
                        List.of("RV32IMC, iterative", "1", "1"))) {
            List<String> row = new ArrayList<>(List.of(each.getFirst()));
            String flipFlops = "";
            for (int inputs : List.of(4, 6)) {
                Outside.run(
                        folder,
                        List.of(
                                "yosys",
                                "-p",
                                ("read_verilog polymetron_rv32_small.v"
                                     + " polymetron_rv32_compressed.v; hierarchy -top"
                                     + " polymetron_rv32_small -chparam MULTIPLIER %s -chparam"
                                     + " COMPRESSED %s; proc; flatten; opt; wreduce; select -set"
                                     + " multipliers t:$mul r:Y_WIDTH>=48 %%i; chtype -set"
                                     + " device_multiplier @multipliers; synth -run coarse:fine;"
                                     + " opt -fast -full; techmap; opt -fast; abc -lut %d;"
                                     + " opt_clean; stat")
                                        .formatted(each.get(1), each.get(2), inputs)));
                String log = Files.readString(folder.resolve("outside.log"));
                String last = log.substring(log.lastIndexOf("Printing statistics"));
                row.add(first(TABLES, last));
                flipFlops = sum(FLIP_FLOPS, last);
            }
            row.add(flipFlops);
            report.append("| ").append(String.join(" | ", row)).append(" |\n");
        }
        report.append(
                "\n"
                    + "The 32 registers of the hart are left out: devices have small memories for"
                    + " them.\n");
    }

    private void write(String name, String text) {
        try {
            Outside.write(folder, name, text);
        } catch (IOException failure) {
            throw new java.io.UncheckedIOException(failure);
        }
    }

    private static String first(Pattern pattern, String text) {
        Matcher found = pattern.matcher(text);
        return found.find() ? found.group(1) : "0";
    }

    private static String sum(Pattern pattern, String text) {
        long sum =
                pattern.matcher(text)
                        .results()
                        .mapToLong(each -> Long.parseLong(each.group(1)))
                        .sum();
        return Long.toString(sum);
    }
}
