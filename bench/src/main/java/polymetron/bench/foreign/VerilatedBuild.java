package polymetron.bench.foreign;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import polymetron.bench.machine.BenchException;
import polymetron.hdl.HdlReader;
import polymetron.output.hardware.BlockHarness;
import polymetron.output.hardware.HarnessClocks;
import polymetron.output.hardware.VhdlEntity;

/** A block's HDL as a program that can be stepped, built by Verilator once and kept by what it is made from. */
final class VerilatedBuild {
    private static final int LONGEST_SECONDS = 300;
    private static final int SAID = 600;
    private static final int MOST_KEPT = 64;
    private static final String STEPPER = "stepper.cpp";

    private static final List<String> OPTIONS =
            Stream.of(
                            List.of("verilator", "--cc", "--exe", "--build", "-O3"),
                            List.of("--x-assign", "0", "--x-initial", "0", "--assert"),
                            List.of("-CFLAGS", "-O1 -I/work", "-Mdir", "obj", "-o", "stepper"),
                            List.of("-Wno-fatal", "-Wno-lint", "-Wno-style", "-Wno-TIMESCALEMOD"),
                            List.of("-I/work", "--top-module", "harness"),
                            List.of("--bbox-sys", "--no-timing"))
                    .flatMap(List::stream)
                    .toList();

    private final Sandbox sandbox;
    private final Path kept;

    /**
     * @param kept folder of programs that were built before
     */
    VerilatedBuild(Sandbox sandbox, Path kept) {
        this.sandbox = sandbox;
        this.kept = kept;
    }

    /**
     * The folder with the program {@code stepper} of a block.
     *
     * @param name what a person calls the block
     * @throws BenchException when it cannot be built; the message has what the compiler says
     */
    Path folder(String name, BlockHarness harness) {
        try {
            Path folder = kept.resolve(key(harness));
            if (!Files.isExecutable(folder.resolve("stepper"))) {
                build(name, harness, folder);
            }
            return folder;
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }

    private static String text(String resource) throws IOException {
        try (InputStream in = VerilatedBuild.class.getResourceAsStream(resource)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private static String key(BlockHarness harness) throws IOException {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            digest.update(text(STEPPER).getBytes(StandardCharsets.UTF_8));
            digest.update(ports(harness).getBytes(StandardCharsets.UTF_8));
            harness.files()
                    .forEach(
                            (file, text) -> {
                                digest.update(file.getBytes(StandardCharsets.UTF_8));
                                digest.update(text.getBytes(StandardCharsets.UTF_8));
                            });
            for (VhdlEntity entity : harness.entities()) {
                digest.update(entity.command("", "").getBytes(StandardCharsets.UTF_8));
            }
            return HexFormat.of().formatHex(digest.digest(), 0, 12);
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /** Which port has which number, and how the clocks go. */
    private static String ports(BlockHarness harness) {
        StringBuilder text = new StringBuilder();
        clocks(text, harness.clocks());
        text.append("#define OUTPUTS %s\n".formatted(harness.outputs().size()));
        text.append(
                "static void read_outputs(Vharness *top, uint64_t *to)\n"
                        + "{\n"
                        + "    (void)top, (void)to;\n");
        for (int at = 0; at < harness.outputs().size(); at++) {
            text.append("    to[%1$s] = top->out%1$s;\n".formatted(at));
        }
        text.append(
                "}\n"
                        + "static void write_input(Vharness *top, uint32_t input, uint64_t value)\n"
                        + "{\n"
                        + "    (void)top, (void)value;\n"
                        + "    switch (input) {\n");
        for (int at = 0; at < harness.inputs().size(); at++) {
            int bits = harness.inputs().get(at).bits();
            String mask = bits == 64 ? "~0ull" : "0x%xull".formatted((1L << bits) - 1);
            text.append("    case %1$s: top->in%1$s = value & %2$s; break;\n".formatted(at, mask));
        }
        return text.append("    default: break;\n    }\n}\n").toString();
    }

    private static void clocks(StringBuilder text, HarnessClocks clocks) {
        int count = clocks.all().size();
        text.append(
                "#define CLOCKS %s\n#define CLOCK_OF_ACCESSES %s\n"
                        .formatted(count, clocks.accesses()));
        text.append(
                "static const uint64_t half_periods[CLOCKS] = {%s};\n"
                        .formatted(
                                clocks.all().stream()
                                        .map(each -> each.half() + "ull")
                                        .collect(Collectors.joining(", "))));
        for (String each : List.of("clk", "rst")) {
            text.append(
                    "static void write_%s(Vharness *top, int clock, int level)\n{\n"
                            .formatted(each));
            for (int at = 0; at < count; at++) {
                text.append(
                        "    if (clock == %s) top->%s = level;\n"
                                .formatted(at, at == 0 ? each : each + at));
            }
            text.append("}\n");
        }
    }

    private void build(String name, BlockHarness harness, Path folder) throws IOException {
        Files.createDirectories(kept);
        Path work = Files.createTempDirectory(kept, "build");
        try {
            for (var each : harness.files().entrySet()) {
                Files.writeString(work.resolve(each.getKey()), each.getValue());
            }
            Files.writeString(work.resolve(STEPPER), text(STEPPER));
            Files.writeString(work.resolve("ports.h"), ports(harness));
            Folders.open(work);
            runtime(work.resolve("obj"));
            for (VhdlEntity entity : harness.entities()) {
                run(name, work, List.of("/bin/sh", "-c", entity.command("", "")));
            }
            run(name, work, command(harness));
            Path built = work.resolve("obj/stepper");
            if (!Files.isRegularFile(built, LinkOption.NOFOLLOW_LINKS)) {
                throw new BenchException("%s: its HDL was not made into a model".formatted(name));
            }
            forgetOldest();
            Files.createDirectories(folder);
            Files.move(
                    built,
                    folder.resolve("stepper"),
                    StandardCopyOption.ATOMIC_MOVE,
                    StandardCopyOption.REPLACE_EXISTING);
            Files.setPosixFilePermissions(
                    folder.resolve("stepper"), PosixFilePermissions.fromString("rwxr-xr-x"));
        } finally {
            Folders.remove(work);
        }
    }

    /** What was built long ago can be built again. */
    private void forgetOldest() throws IOException {
        List<Path> all;
        try (Stream<Path> folders = Files.list(kept)) {
            all =
                    folders.filter(each -> Files.exists(each.resolve("stepper")))
                            .sorted(Comparator.comparing(each -> each.toFile().lastModified()))
                            .toList();
        }
        for (Path each : all.subList(0, Math.max(0, all.size() - MOST_KEPT))) {
            Folders.remove(each);
        }
    }

    private void runtime(Path into) throws IOException {
        Files.createDirectories(into);
        Folders.open(into);
        try {
            new VerilatorRuntime(sandbox, kept, OPTIONS).into(into);
        } catch (InterruptedException end) {
            // The build that follows ends by it.
            Thread.currentThread().interrupt();
        }
    }

    private static List<String> command(BlockHarness harness) {
        List<String> command = new ArrayList<>(OPTIONS);
        harness.files().keySet().stream()
                .filter(file -> !file.endsWith("h") && !HdlReader.isVhdl(file))
                .forEach(command::add);
        harness.entities().forEach(entity -> command.add(entity.converted()));
        command.add(STEPPER);
        return command;
    }

    private void run(String name, Path work, List<String> command) throws IOException {
        try {
            SandboxedTool.Ended ended =
                    new SandboxedTool(sandbox, kept)
                            .run(work, command, LONGEST_SECONDS)
                            .orElseThrow(
                                    () ->
                                            new BenchException(
                                                    "%s: its HDL cannot be made into a model in %s s"
                                                            .formatted(name, LONGEST_SECONDS)));
            if (ended.status() != 0) {
                throw new BenchException(
                        "%s: its HDL cannot be made into a model: %s"
                                .formatted(name, errors(ended.said())));
            }
        } catch (InterruptedException end) {
            Thread.currentThread().interrupt();
            throw new BenchException("%s: making its model was interrupted".formatted(name));
        }
    }

    private static String errors(String said) {
        String errors =
                said.lines()
                        .filter(line -> line.contains("rror"))
                        .filter(line -> !line.contains("Exiting due to"))
                        .map(line -> line.replaceFirst("^%Error(-\\w+)?: ", ""))
                        .map(VerilatorWords::explained)
                        .limit(4)
                        .reduce("", (one, other) -> one.isEmpty() ? other : one + "; " + other);
        String text = errors.isEmpty() ? said.strip() : errors;
        return text.length() > SAID ? text.substring(0, SAID) + " …" : text;
    }
}
