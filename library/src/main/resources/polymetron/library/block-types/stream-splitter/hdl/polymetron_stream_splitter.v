// Gives each word to several sinks. A word goes on when every sink has taken it; those that have taken it wait for the others.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_stream_splitter #(
    parameter WIDTH = 32,
    parameter OUTPUTS = 2
) (
    input  wire               clk,
    input  wire               rst,
    input  wire [WIDTH-1:0]   in_tdata,
    input  wire               in_tvalid,
    output wire               in_tready,
    input  wire               in_tlast,
    input  wire [WIDTH/8-1:0] in_tkeep,
    output wire [WIDTH-1:0]   out0_tdata,
    output wire               out0_tvalid,
    input  wire               out0_tready,
    output wire               out0_tlast,
    output wire [WIDTH/8-1:0] out0_tkeep,
    output wire [WIDTH-1:0]   out1_tdata,
    output wire               out1_tvalid,
    input  wire               out1_tready,
    output wire               out1_tlast,
    output wire [WIDTH/8-1:0] out1_tkeep,
    output wire [WIDTH-1:0]   out2_tdata,
    output wire               out2_tvalid,
    input  wire               out2_tready,
    output wire               out2_tlast,
    output wire [WIDTH/8-1:0] out2_tkeep,
    output wire [WIDTH-1:0]   out3_tdata,
    output wire               out3_tvalid,
    input  wire               out3_tready,
    output wire               out3_tlast,
    output wire [WIDTH/8-1:0] out3_tkeep,
    output wire [WIDTH-1:0]   out4_tdata,
    output wire               out4_tvalid,
    input  wire               out4_tready,
    output wire               out4_tlast,
    output wire [WIDTH/8-1:0] out4_tkeep,
    output wire [WIDTH-1:0]   out5_tdata,
    output wire               out5_tvalid,
    input  wire               out5_tready,
    output wire               out5_tlast,
    output wire [WIDTH/8-1:0] out5_tkeep,
    output wire [WIDTH-1:0]   out6_tdata,
    output wire               out6_tvalid,
    input  wire               out6_tready,
    output wire               out6_tlast,
    output wire [WIDTH/8-1:0] out6_tkeep,
    output wire [WIDTH-1:0]   out7_tdata,
    output wire               out7_tvalid,
    input  wire               out7_tready,
    output wire               out7_tlast,
    output wire [WIDTH/8-1:0] out7_tkeep
);
    localparam BITS = WIDTH + 1 + WIDTH / 8;
    // Outputs that are not there have always taken the word.
    localparam [7:0] THERE = 8'hff >> (8 - OUTPUTS);

    wire [BITS-1:0] word;
    wire [WIDTH-1:0] data;
    wire last;
    wire [WIDTH/8-1:0] keep;
    wire is_there;
    reg [7:0] taken;
    wire [7:0] ready = {
        out7_tready, out6_tready, out5_tready, out4_tready, out3_tready, out2_tready, out1_tready, out0_tready
    };
    wire [7:0] valid = {8{is_there}} & THERE & ~taken;
    wire goes_on = (taken | ready | ~THERE) == 8'hff;

    polymetron_stream_slice #(.BITS(BITS)) slice (
        .clk(clk), .rst(rst),
        .in({in_tkeep, in_tlast, in_tdata}), .in_valid(in_tvalid), .in_ready(in_tready),
        .out(word), .out_valid(is_there), .out_ready(goes_on)
    );
    assign {keep, last, data} = word;

    always @(posedge clk) begin
        if (rst || (is_there && goes_on)) taken <= 8'd0;
        else taken <= taken | (valid & ready);
    end

    assign out0_tdata = data;
    assign out0_tvalid = valid[0];
    assign out0_tlast = last;
    assign out0_tkeep = keep;
    assign out1_tdata = data;
    assign out1_tvalid = valid[1];
    assign out1_tlast = last;
    assign out1_tkeep = keep;
    assign out2_tdata = data;
    assign out2_tvalid = valid[2];
    assign out2_tlast = last;
    assign out2_tkeep = keep;
    assign out3_tdata = data;
    assign out3_tvalid = valid[3];
    assign out3_tlast = last;
    assign out3_tkeep = keep;
    assign out4_tdata = data;
    assign out4_tvalid = valid[4];
    assign out4_tlast = last;
    assign out4_tkeep = keep;
    assign out5_tdata = data;
    assign out5_tvalid = valid[5];
    assign out5_tlast = last;
    assign out5_tkeep = keep;
    assign out6_tdata = data;
    assign out6_tvalid = valid[6];
    assign out6_tlast = last;
    assign out6_tkeep = keep;
    assign out7_tdata = data;
    assign out7_tvalid = valid[7];
    assign out7_tlast = last;
    assign out7_tkeep = keep;
endmodule

`default_nettype wire
