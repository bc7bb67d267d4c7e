package polymetron.everything;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.outside.Tool;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.software.Programs;
import polymetron.software.SoftwareView;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A program that uses everything its processor sees, compiled and linked with the files of the hand-off.
 *
 * @param expected what it has to say, from the document and the published standards
 */
record UsingProgram(SoftwareView view, ProgramImage image, String expected) {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    /**
     * Empty when there is no console, or not enough memory.
     *
     * @param isAlone whether nothing outside can raise what the program cannot
     */
    static Optional<UsingProgram> build(
            Path here,
            DocumentFacts facts,
            ElaboratedPlatform platform,
            DocumentFacts.Program program,
            String stem,
            String start,
            String what,
            long seed,
            boolean isAlone)
            throws IOException {
        ProgramText text = new ProgramText(facts, program, isAlone);
        String script = Files.readString(here.resolve(stem + ".ld"));
        if (!text.hasConsole() || !hasRoom(script)) {
            return Optional.empty();
        }
        String source = text.write(stem, region(script, "code"), region(script, "variables"));
        Tool.write(here, "use.c", source);
        everyDriverFunctionIsUsed(here, source, what);
        String instructions =
                "rv32i"
                        + (has("m", facts, program) ? "m" : "")
                        + (has("c", facts, program) ? "c" : "");
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
        return Optional.of(new UsingProgram(view, image, text.expected()));
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

    /** Whether every hart of a program has an extension. */
    private static boolean has(
            String extensionName, DocumentFacts facts, DocumentFacts.Program program) {
        return program.harts().stream()
                .allMatch(
                        hart -> {
                            for (JsonNode extension : hart.role().path("extensions")) {
                                if (extension.path("name").asString().equals(extensionName)) {
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

    static DocumentFacts facts(Platform platform, Path folder) {
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
                UsingProgram.class.getResourceAsStream("/polymetron/library/" + name)) {
            return JSON.readTree(new String(in.readAllBytes(), StandardCharsets.UTF_8));
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }
}
