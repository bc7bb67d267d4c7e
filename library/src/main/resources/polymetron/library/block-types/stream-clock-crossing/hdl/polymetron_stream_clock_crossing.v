// A small FIFO between two clocks. Each side tells the other how far it is in Gray code, of which one bit changes at a time, through
// two flip-flops (C. E. Cummings, SNUG 2002). A reset of either side resets both.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_stream_clock_crossing #(
    parameter WIDTH = 32,
    // A power of two.
    parameter DEPTH = 16
) (
    input  wire               clk,
    input  wire               rst,
    input  wire               out_clk,
    input  wire               out_rst,
    input  wire [WIDTH-1:0]   in_tdata,
    input  wire               in_tvalid,
    output wire               in_tready,
    input  wire               in_tlast,
    input  wire [WIDTH/8-1:0] in_tkeep,
    output wire [WIDTH-1:0]   out_tdata,
    output wire               out_tvalid,
    input  wire               out_tready,
    output wire               out_tlast,
    output wire [WIDTH/8-1:0] out_tkeep
);
    localparam PLACE = $clog2(DEPTH);
    localparam BITS = WIDTH + 1 + WIDTH / 8;
    localparam [PLACE:0] ONE = {{PLACE{1'b0}}, 1'b1};

    wire either_rst = rst || out_rst;
    wire in_off;
    wire out_off;
    polymetron_reset in_reset (.clk(clk), .source(either_rst), .rst(in_off));
    polymetron_reset out_reset (.clk(out_clk), .source(either_rst), .rst(out_off));

    reg [BITS-1:0] words [0:DEPTH-1];

    // --- the side that words come in at

    reg [PLACE:0] next;
    reg [PLACE:0] next_gray;
    reg [PLACE:0] first_seen;
    reg [PLACE:0] first_early;
    // The other side may be in its reset a little longer: two cycles are waited.
    reg [1:0] on;
    wire [PLACE:0] after_next = next + ONE;
    // As many words behind the first as there are places: in Gray code the two highest bits differ, the others do not.
    wire is_full = next_gray == {~first_seen[PLACE:PLACE-1], first_seen[PLACE-2:0]};
    wire push = in_tvalid && in_tready;

    assign in_tready = on[1] && !is_full;

    always @(posedge clk) begin
        if (push) words[next[PLACE-1:0]] <= {in_tkeep, in_tlast, in_tdata};
    end

    always @(posedge clk or posedge in_off) begin
        if (in_off) begin
            next <= {PLACE + 1{1'b0}};
            next_gray <= {PLACE + 1{1'b0}};
            first_early <= {PLACE + 1{1'b0}};
            first_seen <= {PLACE + 1{1'b0}};
            on <= 2'b00;
        end
        else begin
            first_early <= first_gray;
            first_seen <= first_early;
            on <= {on[0], 1'b1};
            if (push) begin
                next <= after_next;
                next_gray <= after_next ^ (after_next >> 1);
            end
        end
    end

    // --- the side that they go out at

    reg [PLACE:0] first;
    reg [PLACE:0] first_gray;
    reg [PLACE:0] next_seen;
    reg [PLACE:0] next_early;
    wire [PLACE:0] after_first = first + ONE;
    wire pop = out_tvalid && out_tready;

    assign out_tvalid = first_gray != next_seen;
    assign {out_tkeep, out_tlast, out_tdata} = words[first[PLACE-1:0]];

    always @(posedge out_clk or posedge out_off) begin
        if (out_off) begin
            first <= {PLACE + 1{1'b0}};
            first_gray <= {PLACE + 1{1'b0}};
            next_early <= {PLACE + 1{1'b0}};
            next_seen <= {PLACE + 1{1'b0}};
        end
        else begin
            next_early <= next_gray;
            next_seen <= next_early;
            if (pop) begin
                first <= after_first;
                first_gray <= after_first ^ (after_first >> 1);
            end
        end
    end
endmodule

`default_nettype wire
