package polymetron.everything;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.bench.machine.Machine;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.HandoffFile;
import polymetron.output.handoff.Handoff;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.outside.Tool;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.software.Programs;
import polymetron.software.SoftwareView;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Programs that use everything they can see, on platforms of every shape. */
final class UseEverythingTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    /** A dozen in every run; hundreds by hand with -Dpolymetron.everything. */
    private static final long SEEDS = Long.getLong("polymetron.everything", 12);

    private static final long FIRST = Long.getLong("polymetron.everything.first", 1);

    /**
     * Seeds that found something once: two processors with one program and a timer for the first alone; constructors of a
     * program in a read-only memory.
     */
    private static final List<Long> KEPT = List.of(155L, 173L);

    @TempDir private Path folder;

    @Test
    void programsFindWhatTheDocumentSays() throws IOException {
        int programs = 0;
        List<Throwable> failures = new ArrayList<>();
        List<Long> seeds = new ArrayList<>(KEPT);
        LongStream.range(FIRST, FIRST + SEEDS).forEach(seeds::add);
        for (long seed : seeds) {
            Optional<Platform> platform = RandomPlatform.of(seed);
            if (platform.isPresent()) {
                try {
                    programs += check(seed, platform.get());
                } catch (AssertionError | RuntimeException failure) {
                    failures.add(new AssertionError("seed " + seed, failure));
                }
            }
        }
        for (Throwable failure : failures) {
            System.out.println(failure.getMessage() + ": " + failure.getCause());
        }
        assertThat(failures).isEmpty();
        assertThat(programs).isGreaterThanOrEqualTo((int) (SEEDS / 2));
        System.out.println("programs that used everything: " + programs);
    }

    private int check(long seed, Platform platform) throws IOException {
        Path here = Files.createDirectories(folder.resolve("p" + seed));
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        Handoff handoff = Handoff.of(elaborated);
        for (HandoffFile file : handoff.files()) {
            Tool.write(here, file.path(), file.bytes());
        }
        DocumentFacts facts = facts(platform, here);
        List<DocumentFacts.Program> programs = facts.programs();
        for (DocumentFacts.Program program : programs) {
            boolean several = programs.size() > 1;
            String stem = handoff.baseName() + (several ? "_" + program.name() : "");
            String start = (several ? "start_" + program.name() : "start") + ".S";
            String what = "seed %s, program of %s".formatted(seed, program.name());
            header(here, facts, program, stem, what);
            run(here, facts, elaborated, program, stem, start, what, seed);
        }
        return programs.size();
    }

    /** The header has every macro that the document leads to and no other, with its value, in every language. */
    private static void header(
            Path here, DocumentFacts facts, DocumentFacts.Program program, String stem, String what)
            throws IOException {
        Map<String, String> expected = new ExpectedHeader(facts, program).macros();
        assertThat(HeaderText.macros(Files.readString(here.resolve(stem + ".h"))).keySet())
                .as(what)
                .containsExactlyInAnyOrderElementsOf(
                        expected.keySet().stream().map(HeaderText::name).toList());
        Tool.write(here, "macros.c", HeaderText.asserts(stem + ".h", expected));
        for (Toolchain toolchain : Toolchain.values()) {
            toolchain.compile(here, "macros.c", "macros.o", "rv32i");
        }
    }

    private static void run(
            Path here,
            DocumentFacts facts,
            ElaboratedPlatform platform,
            DocumentFacts.Program program,
            String stem,
            String start,
            String what,
            long seed)
            throws IOException {
        ProgramText text = new ProgramText(facts, program);
        String script = Files.readString(here.resolve(stem + ".ld"));
        if (!text.hasConsole() || !hasRoom(script)) {
            return;
        }
        String source = text.write(stem, region(script, "code"), region(script, "variables"));
        Tool.write(here, "use.c", source);
        everyDriverFunctionIsUsed(here, source, what);
        String instructions = multiplies(facts, program) ? "rv32im" : "rv32i";
        Toolchain[] toolchains = Toolchain.values();
        toolchains[(int) ((seed + 1) % toolchains.length)].compile(
                here, "use.c", "other.o", instructions);
        toolchains[(int) (seed % toolchains.length)].compile(here, "use.c", "use.o", instructions);
        Toolchain.link(here, instructions, stem + ".ld", start, "use.o", "use.elf");
        SoftwareView view = Programs.of(platform).named(program.name()).orElseThrow();
        ProgramImage image =
                ProgramImage.of(
                        view,
                        ElfReader.read(Files.readAllBytes(here.resolve("use.elf"))),
                        (byte) 0);
        assertThat(image.problems()).as(what).isEmpty();
        Machine machine = new Machine(view);
        machine.load(image);
        assertThat(new World(machine).says("end\n")).as(what).isEqualTo(text.expected());
    }

    /** Whether the program's memories hold what it has to do; some platforms have only little ones. */
    private static boolean hasRoom(String script) {
        for (String segment : List.of("code", "variables")) {
            Matcher length =
                    Pattern.compile(
                                    "\"%s\" \\(\\w+\\) : ORIGIN = \\w+, LENGTH = 0x(\\w+)"
                                            .formatted(region(script, segment)))
                            .matcher(script);
            if (!length.find()
                    || Long.parseLong(length.group(1), 16)
                            < (segment.equals("code") ? 24 * 1024 : 4096)) {
                return false;
            }
        }
        return true;
    }

    /** The memory that a segment's sections are in. */
    private static String region(String script, String segment) {
        Matcher matcher = Pattern.compile("\\} > \"(\\w+)\".* :" + segment + "\n").matcher(script);
        return matcher.find() ? matcher.group(1) : "";
    }

    private static boolean multiplies(DocumentFacts facts, DocumentFacts.Program program) {
        return program.harts().stream()
                .allMatch(
                        hart -> {
                            for (JsonNode extension : hart.role().path("extensions")) {
                                if (extension.path("name").asString().equals("m")) {
                                    return facts.isThere(hart.block(), extension.path("when"));
                                }
                            }
                            return false;
                        });
    }

    /** Every function of every driver that the program includes is named in it, or in a function of a driver. */
    private static void everyDriverFunctionIsUsed(Path here, String source, String what)
            throws IOException {
        Matcher includes = Pattern.compile("#include \"(drivers/\\w+\\.h)\"").matcher(source);
        while (includes.find()) {
            String driver = Files.readString(here.resolve(includes.group(1)));
            Matcher functions =
                    Pattern.compile("^static inline [^(]*?(\\w+)\\(", Pattern.MULTILINE)
                            .matcher(driver);
            while (functions.find()) {
                String name = functions.group(1);
                int calls = driver.split("\\b" + name + "\\(", -1).length - 2;
                assertThat(calls > 0 || source.contains(name + "("))
                        .as("%s: %s of %s is used", what, name, includes.group(1))
                        .isTrue();
            }
        }
    }

    private static DocumentFacts facts(Platform platform, Path folder) {
        Map<String, JsonNode> types = new HashMap<>();
        JsonNode index = resource("index.json");
        index.path("blockTypes")
                .forEach(
                        name -> {
                            JsonNode type =
                                    resource("block-types/" + name.asString() + "/block-type.json");
                            types.put(type.path("identity").asString(), type);
                        });
        JsonNode board = null;
        for (JsonNode name : index.path("boards")) {
            JsonNode each = resource("boards/" + name.asString() + ".json");
            if (each.path("identity").asString().equals(platform.board().toString())) {
                board = each;
            }
        }
        return new DocumentFacts(
                JSON.readTree(PlatformDocument.write(platform)), board, types, folder);
    }

    private static JsonNode resource(String name) {
        try (InputStream in =
                UseEverythingTest.class.getResourceAsStream("/polymetron/library/" + name)) {
            return JSON.readTree(new String(in.readAllBytes(), StandardCharsets.UTF_8));
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }
}
