package polymetron.hdl;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Styles of IEEE 1800-2017, clause 23.2, and what is refused with a reason. */
final class VerilogReaderTest {
    private static HdlReading read(String... files) {
        SortedMap<String, String> texts = new TreeMap<>();
        for (int at = 0; at < files.length; at += 2) {
            texts.put(files[at], files[at + 1]);
        }
        return VerilogReader.read(texts);
    }

    private static String ports(HdlReading reading) {
        assertThat(reading.problems()).isEmpty();
        HdlModule module = reading.modules().getFirst();
        return module.ports().stream()
                .map(
                        port ->
                                "%s %s %s"
                                        .formatted(
                                                port.way(),
                                                port.name(),
                                                module.bits(port, Map.of())))
                .collect(Collectors.joining(", "));
    }

    @Test
    void declarationsInTheListOrBehindIt() {
        assertThat(
                        ports(
                                read(
                                        "a.v",
                                        """
                                        module a #(parameter W = 8, N = W * 2) (
                                            input wire clk, rst,      // two that share a type
                                            input [W-1:0] a, b,
                                            output reg signed [N-1:0] sum,
                                            inout [1:0] pads
                                        );
                                        endmodule
                                        """)))
                .isEqualTo(
                        "input clk 1, input rst 1, input a 8, input b 8, output sum 16, inout pads"
                                + " 2");
        assertThat(
                        ports(
                                read(
                                        "b.v",
                                        """
                                        `define WIDE(n) [(n)-1:0]
                                        `define LINES 3
                                        module b (clk, d, q);
                                            parameter W = `LINES;
                                            input clk;
                                            input `WIDE(W + 1) d;
                                            output q;
                                            reg q;
                                            // Ports of a function are none of the module.
                                            function [7:0] twice; input [7:0] x; twice = x + x; endfunction
                                            task t; input u; output v; v = u; endtask
                                            generate if (W > 1) begin : more wire x; end endgenerate
                                        endmodule
                                        """)))
                .isEqualTo("input clk 1, input d 4, output q 1");
    }

    @Test
    void systemVerilog() {
        assertThat(
                        ports(
                                read(
                                        "sizes.svh",
                                        "`ifndef SIZES\n"
                                                + "`define SIZES\n"
                                                + "localparam int L = 3;\n"
                                                + "`endif\n",
                                        "c.sv",
                                        """
                                        package sizes;
                                            parameter int unsigned W = 4;
                                            localparam D = W * 2;
                                        endpackage
                                        (* keep *) module automatic c import sizes::*; #(
                                            parameter int unsigned N = sizes::W,
                                            localparam int B = $clog2(N)
                                        ) (
                                            input  var logic              clk,
                                            input  logic [N-1:0][7:0]     bytes,
                                            input  bit   [D-1:0]          d,
                                            output logic [B:0]            index,
                                            output logic [0:5]            upwards,
                                            output int                    number
                                        );
                                            `include "sizes.svh"
                                        endmodule : c
                                        """
                                                .replace("endmodule : c", "endmodule"))))
                .isEqualTo(
                        "input clk 1, input bytes 32, input d 8, output index 3, output upwards 6,"
                                + " output number 32");
    }

    @Test
    void commentsDescribe() {
        HdlModule module =
                read(
                                "d.v",
                                """
                                module d #(
                                    // How many there are.
                                    parameter N = 2
                                ) (
                                    input clk, //!< the clock
                                    /* Stops everything
                                       at once. */
                                    input stop,
                                    output done
                                );
                                endmodule
                                """)
                        .modules()
                        .getFirst();
        assertThat(module.parameters().getFirst().comment()).isEqualTo("How many there are.");
        assertThat(module.ports())
                .extracting(HdlPort::comment)
                .containsExactly("the clock", "Stops everything at once.", "");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    module m (bus.target b); endmodule                       | port b is the interface bus.target; make its signals ports
                    module m (input pair_t p); endmodule                     | port p is of type pair_t, which is declared elsewhere; write its width, as in logic [7:0]
                    module m (input struct packed { logic a; } p); endmodule | port p is a structure; make its members ports
                    module m (input union packed { logic a; } p); endmodule  | port p is a structure; make its members ports
                    module m (input logic [7:0] p [4]); endmodule            | port p is an array of ports; make it one vector
                    module m (input real p); endmodule                       | port p is a real; hardware has vectors of bits
                    module m (a, b); input a; endmodule                      | port b is never declared
                    module m (a, a); input a; endmodule                      | port a is there twice
                    module m #(parameter type T = logic) (); endmodule       | parameter T is a type; only values can be chosen
                    module m (input a;                                       | ';' cannot be read here
                    module m (input a); wire w;                              | the file ends in the middle of a module
                    module m (input [`W-1:0] a); endmodule                   | macro `W is not defined
                    """)
    void whatCannotBeReadIsNamed(String text, String why) {
        HdlReading reading = read("m.v", "\n" + text);
        assertThat(reading.problems()).isNotEmpty();
        assertThat(reading.problems().getFirst().what()).isEqualTo(why);
        assertThat(reading.problems().getFirst().place()).matches("m\\.v:[123]");
    }

    @Test
    void aParameterThatLeadsBackToItselfHasNoWidth() {
        HdlModule module =
                read(
                                "m.v",
                                "module m #(parameter A = B, parameter B = A + 1) (input [A-1:0]"
                                        + " x); endmodule")
                        .modules()
                        .getFirst();
        assertThat(module.initial(module.parameters().getFirst())).isEmpty();
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () -> module.bits(module.ports().getFirst(), Map.of()))
                .hasMessageContaining("refers to itself");
    }

    /** Text that is made to take long or to need much ends soon, with a word about it. */
    @Test
    @Timeout(60)
    void nothingHangs() {
        String many =
                IntStream.range(0, 5000)
                        .mapToObj("input p%s"::formatted)
                        .collect(Collectors.joining(",\n", "module m (", "); endmodule"));
        assertThat(read("m.v", many).problems())
                .singleElement()
                .extracting(HdlProblem::what)
                .isEqualTo("module m has 5000 ports; at most 4096 can be connected");
        assertThat(
                        read(
                                        "a.vh",
                                        "`include \"b.vh\"\n",
                                        "b.vh",
                                        "`include \"a.vh\"\n",
                                        "m.v",
                                        "`include \"a.vh\"\nmodule m (input x); endmodule\n")
                                .problems())
                .extracting(HdlProblem::what)
                .containsExactly("a.vh includes itself: m.v, a.vh, b.vh");
        assertThat(
                        read(
                                        "m.v",
                                        "module m (input ["
                                                + "(".repeat(100_000)
                                                + "1:0] x); endmodule")
                                .problems())
                .extracting(HdlProblem::what)
                .containsExactly("more than 200 brackets are open");
        // Each macro twice the one before: 2 to the power of 40.
        StringBuilder laughs = new StringBuilder("`define M0 x\n");
        for (int at = 1; at <= 40; at++) {
            laughs.append("`define M%s `M%s `M%s\n".formatted(at, at - 1, at - 1));
        }
        assertThat(read("m.v", laughs + "`M40\nmodule m (input x); endmodule").problems())
                .extracting(HdlProblem::what)
                .contains("macros that use each other do not come to an end");
        List<String> lines = new ArrayList<>();
        for (int at = 0; at < 20_000; at++) {
            lines.add("`M `M `M `M `M");
        }
        assertThat(read("m.v", "`define M\n" + String.join("\n", lines)).problems()).isNotNull();
        assertThat(read("m.v", "`M".repeat(60_000)).problems()).hasSize(1);
        // Each constant twice the one before, and a width of 2 to the power of 40.
        StringBuilder doubled =
                new StringBuilder("module m (input [P40:0] x);\nlocalparam P0 = 64'd1;\n");
        for (int at = 1; at <= 40; at++) {
            doubled.append("localparam P%s = P%s + P%s;\n".formatted(at, at - 1, at - 1));
        }
        HdlModule wide = read("m.v", doubled + "endmodule").modules().getFirst();
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () -> wide.bits(wide.ports().getFirst(), Map.of()))
                .hasMessageContaining("1 to 1048576 are possible");
        StringBuilder chain =
                new StringBuilder("module m (input [P900:0] x);\nlocalparam P0 = 1;\n");
        for (int at = 1; at <= 900; at++) {
            chain.append("localparam P%s = P%s + 1;\n".formatted(at, at - 1));
        }
        HdlModule deep = read("m.v", chain + "endmodule").modules().getFirst();
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () -> deep.bits(deep.ports().getFirst(), Map.of()))
                .hasMessageContaining("more than 200 names refer to each other");
        assertThat(read("m.v", "`ifdef A\n".repeat(100_000)).problems())
                .extracting(HdlProblem::what)
                .contains("more than 100 conditions are open");
        String large = "`define L " + "x ".repeat(30_000) + "\n" + "`L `L `L `L\n".repeat(20_000);
        assertThat(read("m.v", large).problems()).isNotEmpty();
        assertThat(read("m.v", "module a; endmodule\n".repeat(40_000)).problems()).isNotEmpty();
    }
}
