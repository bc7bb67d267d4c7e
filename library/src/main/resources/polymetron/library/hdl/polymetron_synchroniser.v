// Levels from outside the clock, through two flip-flops.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_synchroniser #(
    parameter BITS = 1,
    parameter [BITS-1:0] INITIAL = {BITS{1'b0}}
) (
    input  wire            clk,
    input  wire            rst,
    input  wire [BITS-1:0] in,
    output reg  [BITS-1:0] out
);
    reg [BITS-1:0] first;

    always @(posedge clk) begin
        if (rst) begin
            first <= INITIAL;
            out <= INITIAL;
        end
        else begin
            first <= in;
            out <= first;
        end
    end
endmodule

`default_nettype wire
