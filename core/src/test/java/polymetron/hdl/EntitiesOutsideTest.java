package polymetron.hdl;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.expression.Value;
import polymetron.outside.Tool;
import polymetron.verilog.Module;

/** Random entities: what is read of them is what GHDL makes of them, with three sets of generics. */
final class EntitiesOutsideTest {
    private static final Pattern PORT =
            Pattern.compile("(input|output|inout)\\s+(?:\\[(\\d+):(\\d+)\\] )?(\\w+)[,)]");

    private final StringBuilder text = new StringBuilder();
    private Random random;
    private int generics;

    private String atom() {
        return switch (random.nextInt(6)) {
            case 0 -> "WORD";
            case 1 -> "work.sizes.half";
            case 2 -> Integer.toString(1 + random.nextInt(9));
            case 3 -> "16#0" + Integer.toHexString(random.nextInt(16)) + "#";
            // Another case than where it is declared.
            default -> (random.nextBoolean() ? "g" : "G") + random.nextInt(generics);
        };
    }

    /** A whole number that is not negative. */
    private String whole(int depth) {
        if (depth == 0) {
            return atom();
        }
        String one = whole(depth - 1);
        String other = whole(depth - 1);
        return switch (random.nextInt(10)) {
            case 0 -> "%s + %s".formatted(one, other);
            case 1 -> "(%s) * (%s)".formatted(one, atom());
            case 2 -> "abs ((%s) - (%s))".formatted(one, other);
            case 3 -> "(%s) mod (1 + %s)".formatted(one, other);
            case 4 -> "(%s) / (1 + %s)".formatted(one, atom());
            case 5 -> "2 ** ((%s) mod 4)".formatted(one);
            case 6 -> "natural(ceil(log2(real(1 + (%s) mod 50))))".formatted(one);
            case 7 -> "maximum(%s, %s)".formatted(one, other);
            case 8 -> "((%s) - (%s)) mod 7".formatted(one, other);
            default -> "(%s) rem (2 + %s)".formatted(one, atom());
        };
    }

    private String entity() {
        generics = 1 + random.nextInt(3);
        text.append(
                """
                library ieee;
                use ieee.std_logic_1164.all, ieee.numeric_std.all, ieee.math_real.all, work.sizes.all;
                -- entity none is, in a comment
                ENTITY Thing IS
                  generic (
                """);
        for (int at = 0; at < generics; at++) {
            text.append("    G%s : positive := %s;%n".formatted(at, 1 + random.nextInt(20)));
        }
        text.append("    NAME : string := \"; port (\"; fast : boolean := true);\n  port (\n");
        StringBuilder body = new StringBuilder();
        int ports = 3 + random.nextInt(5);
        for (int at = 0; at < ports; at++) {
            boolean isOut = at == 0 || random.nextBoolean();
            String type =
                    new String[] {"std_logic_vector", "unsigned", "ieee.numeric_std.signed"}
                            [random.nextInt(3)];
            String width = "(%s) mod 97".formatted(whole(1 + random.nextInt(3)));
            String range =
                    switch (random.nextInt(4)) {
                        case 0 -> " (%s downto 0)".formatted(width);
                        case 1 -> "(0 to %s)".formatted(width);
                        case 2 -> "(3 + %s downto 2)".formatted(width);
                        default -> null;
                    };
            text.append(
                    "    Port%s : %s %s; -- number %s%n"
                            .formatted(
                                    at,
                                    isOut ? "out" : "in",
                                    range == null ? "std_logic" : type + range,
                                    at));
            if (isOut) {
                body.append(
                        "  port%s <= %s;%n"
                                .formatted(at, range == null ? "'0'" : "(others => '1')"));
            }
        }
        return text.append("    clk : in std_logic := '0');\nend entity Thing;\n")
                .append("architecture rtl of thing is\nbegin\n")
                .append(body)
                .append("end architecture;\n")
                .toString();
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void areReadAsGhdlReadsThem(long seed, @TempDir Path folder) {
        random = new Random(seed);
        TreeMap<String, String> files = new TreeMap<>();
        files.put(
                "sizes.vhd",
                """
                package sizes is
                  constant WORD : natural := 12;
                  constant half : natural := word / 2;
                  constant MASK : bit_vector(3 downto 0) := (0 => '1', others => '0');
                end package sizes;
                package body sizes is
                end package body;
                """);
        files.put("thing.vhd", entity());
        files.forEach(
                (name, file) -> Tool.write(folder, name, file.getBytes(StandardCharsets.UTF_8)));
        HdlReading reading = HdlReader.read(files);
        assertThat(reading.problems()).isEmpty();
        HdlModule thing = reading.module("Thing").orElseThrow();
        assertThat(thing.ports().get(1).comment()).isEqualTo("number 1");
        Tool.run(folder, "ghdl", "-i", "--std=08", "sizes.vhd", "thing.vhd");
        for (int set = 0; set < 3; set++) {
            Map<String, Value> chosen = new TreeMap<>();
            StringBuilder options = new StringBuilder();
            for (int at = 0; set > 0 && at < generics; at++) {
                int value = 1 + random.nextInt(30);
                chosen.put("G" + at, Value.Bits.of(BigInteger.valueOf(value), 32, false));
                options.append(" -gG%s=%s".formatted(at, value));
            }
            Tool.Outcome made =
                    Tool.tryRun(
                            folder,
                            "sh",
                            "-c",
                            "ghdl --synth --std=08 --out=verilog" + options + " thing");
            assertThat(made.status()).as(made.output()).isZero();
            String header = made.output();
            header = header.substring(header.indexOf("module Thing"));
            header = header.substring(0, header.indexOf(");") + 1);
            int found = 0;
            for (Matcher port = PORT.matcher(header); port.find(); found++) {
                HdlPort own = thing.port(port.group(4)).orElseThrow();
                int bits =
                        port.group(2) == null
                                ? 1
                                : Math.abs(
                                                Integer.parseInt(port.group(2))
                                                        - Integer.parseInt(port.group(3)))
                                        + 1;
                assertThat(thing.bits(own, chosen)).as(text + header + options).isEqualTo(bits);
                assertThat(own.way())
                        .isEqualTo(
                                Module.Way.valueOf(
                                        port.group(1).toUpperCase(java.util.Locale.ROOT)));
            }
            assertThat(found).isEqualTo(thing.ports().size());
        }
    }
}
