package polymetron.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import java.util.TimeZone;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.output.HandoffFile;
import polymetron.output.handoff.Delivery;
import polymetron.outside.Tool;
import polymetron.ownblock.OwnBlockExamples;

final class CommandLineTest {
    @TempDir private Path folder;
    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();
    private String platform;
    private String program;

    @BeforeEach
    void demo() {
        platform = write("ridge-station.json", Shipped.file("demo/ridge-station.json"));
        program = write("ridge-station.elf", Shipped.demoProgram());
    }

    private String write(String name, byte[] bytes) {
        return Tool.write(folder, name, bytes).toString();
    }

    private String write(String name, String text) {
        return write(name, text.getBytes(StandardCharsets.UTF_8));
    }

    private int polymetron(String... arguments) {
        out.getBuffer().setLength(0);
        err.getBuffer().setLength(0);
        return CommandLineApplication.execute(
                new PrintWriter(out, true), new PrintWriter(err, true), arguments);
    }

    /** A platform with a range over another: a finding of error grade. */
    private String overlapping() {
        return write(
                "overlapping.json",
                Shipped.demoText()
                        .replace("\"base\" : \"0x1000_1000\"", "\"base\" : \"0x1000_2000\""));
    }

    @Test
    void checkSaysWhatIsWrongAndHowToPutItRight() {
        assertThat(polymetron("check", platform)).isZero();
        assertThat(out.toString().strip()).isEqualTo("no findings");
        assertThat(polymetron("check", overlapping())).isEqualTo(1);
        assertThat(out.toString()).startsWith("error ").contains("gain").contains("fix: ");
    }

    @Test
    void nothingIsMadeFromAPlatformWithErrors() {
        String bad = overlapping();
        String to = folder.resolve("made").toString();
        assertThat(polymetron("export", bad, "--out", to)).isEqualTo(1);
        assertThat(polymetron("image", bad, "--elf", program, "--out", to)).isEqualTo(1);
        assertThat(polymetron("run", bad, "--elf", program)).isEqualTo(1);
        assertThat(err.toString()).startsWith("error ");
        assertThat(folder.resolve("made")).doesNotExist();
    }

    /** Whatever language, time zone and line end the machine has. */
    @Test
    void theSameInputGivesTheSameBytesEverywhere() throws IOException {
        Map<String, byte[]> here = made("here");
        Locale locale = Locale.getDefault();
        TimeZone zone = TimeZone.getDefault();
        String lineEnd = System.setProperty("line.separator", "\r\n");
        try {
            Locale.setDefault(Locale.forLanguageTag("ar-EG-u-nu-arab"));
            TimeZone.setDefault(TimeZone.getTimeZone("Pacific/Kiritimati"));
            Map<String, byte[]> there = made("there");
            assertThat(there.keySet()).isEqualTo(here.keySet());
            here.forEach((name, bytes) -> assertThat(there.get(name)).as(name).isEqualTo(bytes));
        } finally {
            Locale.setDefault(locale);
            TimeZone.setDefault(zone);
            System.setProperty("line.separator", lineEnd);
        }
        Delivery handoff = Delivery.of(Shipped.elaborate(Shipped.demo()));
        for (HandoffFile file : handoff.files()) {
            assertThat(here.get(file.path())).as(file.path()).isEqualTo(file.bytes());
        }
        assertThat(here.get(handoff.handoff().baseName() + ".zip")).isEqualTo(handoff.zip());
    }

    private Map<String, byte[]> made(String name) throws IOException {
        Path to = folder.resolve(name);
        assertThat(polymetron("export", platform, "--out", to.toString())).isZero();
        assertThat(polymetron("image", platform, "--elf", program, "--out", to.toString()))
                .isZero();
        Map<String, byte[]> files = new TreeMap<>();
        try (Stream<Path> all = Files.walk(to)) {
            for (Path file : all.filter(Files::isRegularFile).toList()) {
                files.put(
                        to.relativize(file).toString().replace('\\', '/'),
                        Files.readAllBytes(file));
            }
        }
        return files;
    }

    @Test
    void theDemoProgramSaysHelloAndAnswers() {
        assertThat(
                        polymetron(
                                "run",
                                platform,
                                "--elf",
                                program,
                                "--type",
                                "id\\n",
                                "--until",
                                "> id",
                                "--seconds",
                                "5"))
                .isZero();
        assertThat(out.toString()).contains("Ridge Station").contains("say help");
        assertThat(
                        polymetron(
                                "run",
                                platform,
                                "--elf",
                                program,
                                "--until",
                                "never",
                                "--seconds",
                                "0.1"))
                .isEqualTo(1);
        assertThat(err.toString()).contains("did not say 'never'");
    }

    @Test
    void aPlatformStartedHereIsCheckedHere() {
        String file = folder.resolve("new.json").toString();
        assertThat(
                        polymetron(
                                "new",
                                "My station",
                                "--board",
                                "foreland",
                                "--recipe",
                                "station",
                                "--out",
                                file))
                .isZero();
        assertThat(polymetron("check", file)).isZero();
        assertThat(polymetron("new", "x", "--board", "none")).isEqualTo(2);
        assertThat(err.toString()).contains("foreland");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    "blocks" : [                   | "blocks" : [[                  | line
                    serial:uart:1.0                | serial:uart:9.0                | uart:9.0
                    serial:uart:1.0                | serial:uart                    | /blocks/2/type
                    "BAUD" : "115200"              | "BAUD" : "0"                   | BAUD
                    "BAUD" : "115200"              | "BAUD" : "BAUD + 1"            | BAUD
                    "base" : "0x1000_0000"         | "base" : "0x1_0000_0000_0000_0000" | 64
                    "base" : "0x1000_0000"         | "base" : "-1"                  | is not a byte address such as
                    "name" : "lamps"               | "name" : "Lamps"               | is not a name of lower-case
                    "dataWidth" : 32               | "dataWidth" : 24               | dataWidth
                    """)
    void badPlatformsAreExplainedInOneLine(String good, String bad, String says) {
        assertThat(Shipped.demoText()).contains(good);
        String file = write("bad.json", Shipped.demoText().replace(good, bad));
        int status = polymetron("check", file);
        String said = out.toString() + err;
        assertThat(status).as(said).isIn(1, 2);
        assertThat(said).contains(says);
        if (status == 2) {
            assertThat(err.toString().strip().lines())
                    .hasSize(1)
                    .allMatch(line -> line.startsWith("polymetron: "));
        }
    }

    @Test
    void badFilesAreExplainedInOneLine() {
        byte[] elf = Shipped.demoProgram();
        String nowhere = folder.resolve("nowhere").toString();
        String[][] calls = {
            {"check", folder.resolve("none.json").toString()},
            {"check", folder.toString()},
            {"check", write("bytes.json", new byte[] {(byte) 0xC3, 0x28})},
            {"check"},
            {"paint", platform},
            {
                "image",
                platform,
                "--elf",
                write("half.elf", Arrays.copyOf(elf, 60)),
                "--out",
                nowhere
            },
            {"image", platform, "--elf", platform, "--out", nowhere},
            {"image", platform, "--elf", program, "--out", nowhere, "--fill", "256"},
            {"image", platform, "--elf", program, "--out", platform, "--fill", "0xFF"},
            {"export", platform, "--out", program},
            {"new", "x", "--board", "foreland", "--out", folder.toString()},
            {"run", platform, "--elf", program, "--seconds", "-1"},
            {"run", platform, "--elf", program, "--seconds", "soon"},
            {"export", platform}
        };
        for (String[] call : calls) {
            assertThat(polymetron(call)).as(String.join(" ", call)).isEqualTo(2);
            assertThat(err.toString().strip().lines())
                    .as(String.join(" ", call))
                    .hasSize(1)
                    .allMatch(line -> line.startsWith("polymetron: ") && line.length() < 400);
        }
        assertThat(folder.resolve("nowhere")).doesNotExist();
    }

    /** A program for other hardware is run, with a word about it: its console may be where it was. */
    @Test
    void aProgramForOtherHardwareIsToldFromOneForThis() {
        assertThat(polymetron("run", platform, "--elf", program, "--seconds", "0.01")).isZero();
        assertThat(err.toString()).isEmpty();
        String other =
                write("other.json", Shipped.demoText().replace("0x1000_2000", "0x1000_8000"));
        assertThat(polymetron("run", other, "--elf", program, "--seconds", "0.01")).isZero();
        assertThat(err.toString())
                .startsWith("warning: the program was linked for a platform with fingerprint");
    }

    @Test
    void aProgramThatDoesNotFitIsExplained() {
        String small =
                write(
                        "small.json",
                        Shipped.demoText().replace("\"SIZE\" : \"16384\"", "\"SIZE\" : \"1024\""));
        assertThat(
                        polymetron(
                                "image",
                                small,
                                "--elf",
                                program,
                                "--out",
                                folder.resolve("x").toString()))
                .isEqualTo(1);
        assertThat(err.toString()).contains("passes the end of code by");
    }

    /** A block of one's own without a browser: begun, checked, made from Verilog, and used by a platform. */
    @Test
    void blocksOfOnesOwn() throws IOException {
        String chime = write("chime.json", OwnBlockExamples.chime());
        assertThat(polymetron("block", "check", chime)).isZero();
        assertThat(out.toString()).contains("nothing is wrong");
        String bare =
                write(
                        "bare.json",
                        OwnBlockExamples.chime()
                                .replaceFirst(
                                        "(?s),\\s*\"hardware\" : \\[\\s*\\{\\s*\"name\" :"
                                                + " \"bellworks.*$",
                                        "}"));
        assertThat(polymetron("block", "check", bare)).isEqualTo(CommandLineApplication.FINDINGS);
        Path begun = folder.resolve("begun.json");
        assertThat(polymetron("block", "begin", bare, "--out", begun.toString())).isZero();
        assertThat(Files.readString(begun)).isEqualTo(OwnBlockExamples.chime());

        String clash = write("clash.json", Files.readString(begun).replace("SOFT", "LOUD"));
        assertThat(polymetron("block", "begin", clash, "--out", begun.toString()))
                .isEqualTo(CommandLineApplication.FINDINGS);

        String verilog =
                write(
                        "unit.v",
                        "module unit (input clk, input reset_n, output [3:0] leds); assign leds ="
                                + " 5; endmodule\n");
        String test =
                write(
                        "tries.v",
                        "module tries; wire [3:0] l; unit u (.clk(1'b0), .reset_n(1'b1), .leds(l));"
                                + " initial begin #1 if (l !== 5) $error(\"%h\", l); $finish; end"
                                + " endmodule\n");
        Path made = folder.resolve("unit.json");
        assertThat(
                        polymetron(
                                "block",
                                "from-hdl",
                                verilog,
                                test,
                                "--vendor",
                                "me",
                                "--out",
                                made.toString()))
                .isZero();
        assertThat(out.toString()).contains("reset_n", "it is inverted", "lines leds");
        assertThat(polymetron("block", "check", made.toString())).isZero();
        // What is inside only a compiler sees.
        if (RunCommand.models().isPossible()) {
            assertThat(polymetron("block", "compile", made.toString())).isZero();
            assertThat(polymetron("block", "self-test", made.toString()))
                    .isEqualTo(CommandLineApplication.BAD_INPUT);
            assertThat(polymetron("block", "test", made.toString())).isZero();
            assertThat(out.toString()).contains("tries.v passes");
            Files.writeString(made, Files.readString(made).replace("!== 5", "!== 6"));
            assertThat(polymetron("block", "test", made.toString()))
                    .isEqualTo(CommandLineApplication.FINDINGS);
            assertThat(out.toString()).contains("tries.v fails", "the tests have to pass first");
            if (RunCommand.models().sizes().isPresent()) {
                assertThat(polymetron("block", "size", made.toString())).isZero();
                assertThat(out.toString()).containsPattern("lookup tables +\\d+ made, 100 in");
            }
            String vhdl =
                    write(
                            "gate.vhd",
                            "library ieee; use ieee.std_logic_1164.all;\n"
                                + "entity gate is port (clk, a : in std_logic; b : out std_logic);"
                                + " end;\n"
                                + "architecture rtl of gate is begin b <= c; end;\n");
            Path gate = folder.resolve("gate.json");
            assertThat(polymetron("block", "from-hdl", vhdl, "--out", gate.toString())).isZero();
            assertThat(polymetron("block", "compile", gate.toString()))
                    .isEqualTo(CommandLineApplication.FINDINGS);
            assertThat(out.toString()).contains("gate.vhd:3: error: no declaration for \"c\"");
        }
        String wrong = write("wrong.v", "module wrong (input clk,\n output real x); endmodule\n");
        assertThat(polymetron("block", "from-hdl", wrong, "--out", made.toString()))
                .isEqualTo(CommandLineApplication.FINDINGS);
        assertThat(out.toString()).contains("wrong.v:2: port x is a real");

        String table = write("table.csv", "register,field,bits,access\nCONTROL,ENABLE,0,RW\n");
        assertThat(polymetron("block", "registers", table)).isZero();
        assertThat(out.toString()).contains("\"name\" : \"ENABLE\"");

        String used =
                write(
                        "used.json",
                        Shipped.demoText()
                                .replaceFirst(
                                        "\"blocks\" : \\[",
                                        "\"blocks\" : [ { \"name\" : \"chime\", \"type\" :"
                                                + " \"bellworks:io:chime:1.0\" },"));
        polymetron("check", used);
        assertThat(out.toString()).contains("bellworks:io:chime:1.0");
        polymetron("check", used, "--block", chime);
        assertThat(out.toString()).doesNotContain("bellworks:io:chime:1.0");
    }
}
