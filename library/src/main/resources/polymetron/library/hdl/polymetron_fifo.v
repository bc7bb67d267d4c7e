// A first-in, first-out memory with the oldest word at its output. A word that is pushed into a full one is lost, and a
// pop of an empty one does nothing.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_fifo #(
    parameter BITS = 8,
    // Two to the power of this many words.
    parameter DEPTH_BITS = 4
) (
    input  wire                  clk,
    input  wire                  rst,
    input  wire                  push,
    input  wire [BITS-1:0]       in,
    input  wire                  pop,
    output wire [BITS-1:0]       out,
    output wire [DEPTH_BITS:0]   count
);
    reg [BITS-1:0] words [0:(1 << DEPTH_BITS)-1];
    reg [DEPTH_BITS:0] first;
    reg [DEPTH_BITS:0] next;

    assign count = next - first;
    assign out = words[first[DEPTH_BITS-1:0]];
    wire is_full = count[DEPTH_BITS];
    wire is_empty = first == next;
    wire pushes = push && !is_full;
    wire pops = pop && !is_empty;

    always @(posedge clk) begin
        if (pushes) words[next[DEPTH_BITS-1:0]] <= in;
    end

    always @(posedge clk) begin
        if (rst) begin
            first <= {DEPTH_BITS + 1{1'b0}};
            next <= {DEPTH_BITS + 1{1'b0}};
        end
        else begin
            if (pushes) next <= next + {{DEPTH_BITS{1'b0}}, 1'b1};
            if (pops) first <= first + {{DEPTH_BITS{1'b0}}, 1'b1};
        end
    end
endmodule

`default_nettype wire
