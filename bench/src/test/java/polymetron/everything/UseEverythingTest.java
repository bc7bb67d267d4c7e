package polymetron.everything;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.bench.machine.Machine;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.HandoffFile;
import polymetron.output.handoff.Handoff;
import polymetron.outside.Tool;
import polymetron.platform.Platform;

/** Programs that use everything they can see, on platforms of every shape. */
final class UseEverythingTest {
    /** A dozen in every run; hundreds by hand with -Dpolymetron.everything. */
    private static final long SEEDS = Long.getLong("polymetron.everything", 8);

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
        DocumentFacts facts = UsingProgram.facts(platform, here);
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
        Optional<UsingProgram> built =
                UsingProgram.build(here, facts, platform, program, stem, start, what, seed, false);
        if (built.isPresent()) {
            Machine machine = new Machine(built.get().view());
            machine.load(built.get().image());
            assertThat(new World(machine).says("end\n")).as(what).isEqualTo(built.get().expected());
        }
    }
}
