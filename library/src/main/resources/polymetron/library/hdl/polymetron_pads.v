// Pads of lines that go either way: each drives where it is told to, and none while it is off. A tool that does not know
// such pads gets a box without contents.
// SPDX-License-Identifier: 0BSD
`default_nettype none

`ifdef YOSYS
(* blackbox *)
`endif
module polymetron_pads #(
    parameter BITS = 1
) (
    inout  wire [BITS-1:0] pad,
    output wire [BITS-1:0] in,
    input  wire [BITS-1:0] out,
    input  wire [BITS-1:0] drive,
    input  wire            off
);
`ifdef YOSYS
    wire unused_pads = (|pad) | (|out) | (|drive) | off;
`else
    genvar line;
    generate
        for (line = 0; line < BITS; line = line + 1) begin : lines
            assign pad[line] = drive[line] && !off ? out[line] : 1'bz;
        end
    endgenerate

    assign in = pad;
`endif
endmodule

`default_nettype wire
