package polymetron.ownblock;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;

/** Entities of others: what is refused, with file and line, and what is not mistaken for it. */
final class VhdlBlockTest {
    private static final String ENTITY =
            """
            library ieee;
            use ieee.std_logic_1164.all;
            entity lamp is
              generic (WIDTH : positive range 1 to 16 := 4);
              port (
                clk   : in std_logic;
                rst   : in std_logic;
                level : in std_logic_vector(WIDTH - 1 downto 0);
                shown : out std_logic_vector(WIDTH - 1 downto 0)
              );
            end entity lamp;
            architecture rtl of lamp is
            begin
              shown <= level;
            end architecture rtl;
            """;

    private static List<String> problems(String text) {
        SortedMap<String, String> files = new TreeMap<>();
        files.put("lamp.vhd", text);
        return BlockFromHdl.of(files, null, "own").problems().stream()
                .map(each -> each.at() + ": " + each.what())
                .toList();
    }

    @Test
    void anEntityIsABlock() {
        SortedMap<String, String> files = new TreeMap<>();
        files.put("lamp.vhd", ENTITY);
        BlockFromHdl found = BlockFromHdl.of(files, null, "own");
        assertThat(found.problems()).isEmpty();
        var width = found.block().type().parameters().getFirst();
        assertThat(width.name()).isEqualTo("WIDTH");
        assertThat(width.minimum().toString()).isEqualTo("1");
        assertThat(width.maximum().toString()).isEqualTo("16");
        assertThat(CompiledSet.of(found.block()))
                .extracting(CompiledSet::text)
                .containsExactly("", "WIDTH = 1", "WIDTH = 16");
        assertThat(OwnBlockChecks.of(found.block(), Shipped.LIBRARY)).isEmpty();
        OwnBlock again = OwnBlockDocument.read("lamp", OwnBlockDocument.write(found.block()));
        assertThat(again.hardware()).isEqualTo(found.block().hardware());
        assertThat(again.hardware().get("lamp_fitted.v"))
                .contains("parameter integer WIDTH = 4", "lamp #(.WIDTH(WIDTH)) wrapped (");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "clk   : in std_logic| clk : linkage std_logic| lamp.vhd:6: port clk is a linkage;"
                        + " make it in, out or inout",
                "rst   : in std_logic| rst : in work.types.flags| lamp.vhd:7: port rst is of type"
                        + " flags; make it std_logic or std_logic_vector with a range",
                "rst   : in std_logic| rst : in std_logic_vector| lamp.vhd:7: port rst has no"
                        + " range; write it, as in (7 downto 0)",
                "rst   : in std_logic| CLK : in std_logic| lamp.vhd:7: port CLK is declared twice;"
                        + " VHDL does not tell cases apart",
                "rst   : in std_logic| \\r"
                        + "st!\\ : in std_logic| lamp.vhd:7: \\r"
                        + "st!\\ is an extended identifier; give it a plain name",
                "(WIDTH - 1 downto 0);| (deep(WIDTH) downto 0);| lamp.vhd:8: the width of port"
                        + " level: function deep is not worked out here; there are"
                        + " integer(ceil(log2(real(…)))), maximum and minimum",
                "(WIDTH - 1 downto 0);| (rst'high downto 0);| lamp.vhd:8: the width of port level:"
                        + " 'rst'high' is an attribute; write the number",
                ":= 4|| lamp.vhd:4: parameter WIDTH has no default; give it one",
                "level : in| level : 5 in| lamp.vhd:8: '5' cannot be read here",
                "shown : out| reg : out| lamp.vhd:3: reg in entity lamp is a word of Verilog;"
                        + " rename it",
                "begin| file log : text open write_mode is \"/etc/passwd\"; begin| lamp.vhd:13:"
                    + " file log : is refused: a block reads and writes no files; put the values"
                    + " into a constant",
                "library ieee;| use std.textio.all; library ieee;| lamp.vhd:1: textio is refused: a"
                        + " block reads and writes no files; take the use clause out",
                "begin| attribute foreign of rtl : architecture is \"VHPI x\"; begin| lamp.vhd:13:"
                        + " foreign is refused: it calls code of another language",
                "library ieee;| use std . env.all; library ieee;| lamp.vhd:1: std . env is refused:"
                        + " a block does not reach the simulator; take the use clause out"
            })
    void whatCannotBeIsSaidWithItsLine(String from, String to, String said) {
        assertThat(ENTITY).contains(from);
        assertThat(
                        problems(
                                ENTITY.replaceFirst(
                                        java.util.regex.Pattern.quote(from),
                                        java.util.regex.Matcher.quoteReplacement(
                                                to == null ? "" : to))))
                .contains(said);
    }

    /** Words in comments, strings and characters are none. */
    @Test
    void onlyCodeIsRefused() {
        assertThat(
                        problems(
                                ENTITY.replace(
                                        "begin\n",
                                        "  -- use std.textio.all; file log : text\n"
                                                + "  /* entity lamp is */\n"
                                                + "  constant c : string := \"file x : std.env\";\n"
                                                + "  constant d : character := '\"';\n"
                                                + "begin\n")))
                .isEmpty();
    }

    @Test
    void whatIsTooMuchIsRefusedInTime() {
        StringBuilder ports = new StringBuilder();
        for (int at = 0; at < 5000; at++) {
            ports.append("p%s : in std_logic; ".formatted(at));
        }
        String many = ENTITY.replace("clk   :", ports + "clk :");
        String deep = ENTITY.replace("WIDTH - 1", "(".repeat(50_000) + "1" + ")".repeat(50_000));
        String endless = ENTITY.substring(0, ENTITY.indexOf("shown"));
        String sum = ENTITY.replace("WIDTH - 1", "1" + " + 1".repeat(20_000));
        Assertions.assertTimeoutPreemptively(
                Duration.ofSeconds(30),
                () -> {
                    assertThat(problems(many))
                            .contains(
                                    "lamp.vhd:3: module lamp has 5004 ports; at most 4096 can be"
                                            + " connected");
                    assertThat(problems(deep))
                            .contains("lamp.vhd:8: more than 200 brackets are open");
                    assertThat(problems(endless))
                            .anyMatch(
                                    each ->
                                            each.endsWith(
                                                    "the file ends in the middle of a"
                                                            + " declaration"));
                    assertThat(problems(sum)).isNotEmpty();
                    assertThat(problems("entity entity entity is is port (((".repeat(5000)))
                            .isNotEmpty();
                    assertThat(problems("\u0000\uFFFF\"'--")).isNotEmpty();
                });
    }
}
