// Two words of a stream between what comes in and what goes out: a word each cycle, and no path from one side's signals to those
// of the other.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_stream_slice #(
    parameter BITS = 32
) (
    input  wire            clk,
    input  wire            rst,
    input  wire [BITS-1:0] in,
    input  wire            in_valid,
    output wire            in_ready,
    output wire [BITS-1:0] out,
    output wire            out_valid,
    input  wire            out_ready
);
    reg [BITS-1:0] older;
    reg [BITS-1:0] newer;
    reg [1:0] count;
    wire push = in_valid && in_ready;
    wire pop = out_valid && out_ready;

    assign in_ready = !count[1];
    assign out_valid = count != 2'd0;
    assign out = older;

    always @(posedge clk) begin
        if (rst) count <= 2'd0;
        else if (push && !pop) count <= count + 2'd1;
        else if (pop && !push) count <= count - 2'd1;
    end

    always @(posedge clk) begin
        if (pop || count == 2'd0) older <= count[1] ? newer : in;
        if (push) newer <= in;
    end

`ifdef FORMAL
    // What goes in comes out in the same order: any one word is followed through.
    reg [1:0] begun = 2'd0;
    always @(posedge clk) if (begun != 2'd3) begun <= begun + 2'd1;
    always @(*) if (begun == 2'd0) assume (rst);
    always @(*) if (rst == 1'b0 && begun != 2'd0) assert (count <= 2'd2);
    always @(posedge clk) begin
        if (begun != 2'd0 && !$past(rst) && !rst && $past(out_valid && !out_ready)) begin
            assert (out_valid && out == $past(out));
        end
        if (begun != 2'd0 && !$past(rst) && !rst && $past(push && count == 2'd0)) assert (out == $past(in));
        if (begun != 2'd0 && !$past(rst) && !rst && $past(pop && count[1])) assert (out == $past(newer));
    end
`endif
endmodule

`default_nettype wire
