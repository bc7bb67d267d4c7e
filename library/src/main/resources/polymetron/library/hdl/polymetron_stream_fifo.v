// Keeps words of a stream in a memory. What goes out waits in four words of its own, because the memory answers a cycle later.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_stream_fifo #(
    parameter WIDTH = 32,
    parameter DEPTH = 512,
    parameter PACKETS = 1,
    parameter LANES = 0
) (
    input  wire               clk,
    input  wire               rst,
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
    // Fewer than four would not let a word through in each cycle.
    localparam ROOM = DEPTH < 4 ? 4 : DEPTH;
    localparam PLACE = $clog2(ROOM);
    localparam BITS = WIDTH + (PACKETS != 0 ? 1 : 0) + (LANES != 0 ? WIDTH / 8 : 0);
    localparam [PLACE-1:0] LAST = ROOM[PLACE-1:0] - {{PLACE - 1{1'b0}}, 1'b1};

    reg [BITS-1:0] words [0:ROOM-1];
    reg [BITS-1:0] word;
    wire [BITS-1:0] in;
    wire [BITS-1:0] out;
    reg [PLACE-1:0] next;
    reg [PLACE-1:0] first;
    // Of all words, and of those that have not been read from the memory.
    reg [PLACE:0] count;
    reg [PLACE:0] unread;
    reg reads;
    wire [2:0] waiting;

    wire push = in_tvalid && in_tready;
    wire pop = out_tvalid && out_tready;
    wire read = unread != {PLACE + 1{1'b0}} && waiting + {2'd0, reads} < 3'd4;

    assign in_tready = count != ROOM[PLACE:0];
    assign out_tvalid = waiting != 3'd0;

    always @(posedge clk) begin
        if (push) words[next] <= in;
        if (read) word <= words[first];
    end

    always @(posedge clk) begin
        if (rst) begin
            next <= {PLACE{1'b0}};
            first <= {PLACE{1'b0}};
            count <= {PLACE + 1{1'b0}};
            unread <= {PLACE + 1{1'b0}};
            reads <= 1'b0;
        end
        else begin
            if (push) next <= next == LAST ? {PLACE{1'b0}} : next + {{PLACE - 1{1'b0}}, 1'b1};
            if (read) first <= first == LAST ? {PLACE{1'b0}} : first + {{PLACE - 1{1'b0}}, 1'b1};
            count <= count + {{PLACE{1'b0}}, push} - {{PLACE{1'b0}}, pop};
            unread <= unread + {{PLACE{1'b0}}, push} - {{PLACE{1'b0}}, read};
            reads <= read;
        end
    end

    polymetron_fifo #(.BITS(BITS), .DEPTH_BITS(2)) waits (
        .clk(clk), .rst(rst), .push(reads), .in(word), .pop(pop), .out(out), .count(waiting)
    );

    assign in[WIDTH-1:0] = in_tdata;
    assign out_tdata = out[WIDTH-1:0];
    generate
        if (PACKETS != 0) begin : packets
            assign in[WIDTH] = in_tlast;
            assign out_tlast = out[WIDTH];
        end
        else begin : plain
            wire unused = in_tlast;
            assign out_tlast = 1'b0;
        end
        if (LANES != 0) begin : lanes
            assign in[BITS-1 -: WIDTH/8] = in_tkeep;
            assign out_tkeep = out[BITS-1 -: WIDTH/8];
        end
        else begin : whole
            wire unused = |in_tkeep;
            assign out_tkeep = {WIDTH / 8{1'b1}};
        end
    endgenerate
endmodule

`default_nettype wire
