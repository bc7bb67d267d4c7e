// Writes words of a stream round and round into a buffer. It never holds the stream up: a word without room is lost.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_ring_writer #(
    parameter WIDTH = 32,
    parameter BURST = 16
) (
    input  wire               clk,
    input  wire               rst,
    output wire               writes_request,
    output wire               writes_write,
    output wire [31:0]        writes_address,
    output wire [WIDTH-1:0]   writes_value,
    output wire [WIDTH/8-1:0] writes_bytes,
    input  wire               writes_done,
    input  wire               writes_error,
    input  wire [WIDTH-1:0]   in_tdata,
    input  wire               in_tvalid,
    output wire               in_tready,
    input  wire               CONTROL_RUN,
    output wire               CONTROL_RUN_load,
    output wire               CONTROL_RUN_new,
    input  wire               CONTROL_ONCE,
    output wire               STATUS_MARK_set,
    output wire               STATUS_ROUND_set,
    output wire               STATUS_ERROR_set,
    output wire               STATUS_LOST_set,
    input  wire [31:0]        BASE_BYTE,
    input  wire [31:0]        SIZE_BYTES,
    output wire [31:0]        WRITTEN_BYTES,
    input  wire [31:0]        MARK_BYTES,
    output wire               ROUNDS_ROUNDS_count
);
    localparam BYTES = WIDTH / 8;
    localparam LOW = $clog2(BYTES);
    localparam DEPTH = 4 * BURST;

    reg runs;
    reg [31:0] place;
    reg [31:0] since_mark;
    wire [WIDTH-1:0] word;
    wire is_there;
    wire has_room;
    wire last;
    wire [BYTES-1:0] keep;
    // An access that has begun is ended; what waits when it is stopped is dropped.
    reg under_way;
    wire off = rst || !(runs || under_way);
    wire begins = CONTROL_RUN && !runs && !under_way;
    wire ends = writes_request && writes_done;

    polymetron_stream_fifo #(.WIDTH(WIDTH), .DEPTH(DEPTH), .PACKETS(0), .LANES(0)) waits (
        .clk(clk), .rst(off), .in_tdata(in_tdata), .in_tvalid(in_tvalid && runs), .in_tready(has_room),
        .in_tlast(1'b0), .in_tkeep({BYTES{1'b1}}),
        .out_tdata(word), .out_tvalid(is_there), .out_tready(ends), .out_tlast(last), .out_tkeep(keep)
    );
    wire unused = &{1'b0, last, keep};

    assign in_tready = 1'b1;
    assign writes_request = is_there && (runs || under_way);
    assign writes_write = 1'b1;
    wire [31:0] at = BASE_BYTE + place;
    assign writes_address = {at[31:LOW], {LOW{1'b0}}};
    wire unused_address = |at[LOW-1:0];
    assign writes_value = word;
    assign writes_bytes = {BYTES{1'b1}};

    wire [31:0] after = place + BYTES;
    wire is_round = after >= SIZE_BYTES;
    wire [31:0] marked = since_mark + BYTES;
    wire is_mark = MARK_BYTES != 32'd0 && marked >= MARK_BYTES;
    wire stops = ends && is_round && CONTROL_ONCE;

    assign WRITTEN_BYTES = place;
    assign STATUS_MARK_set = ends && runs && is_mark;
    assign STATUS_ROUND_set = ends && runs && is_round;
    assign ROUNDS_ROUNDS_count = ends && runs && is_round;
    assign STATUS_ERROR_set = ends && runs && writes_error;
    assign STATUS_LOST_set = in_tvalid && runs && !has_room;
    assign CONTROL_RUN_load = stops && runs;
    assign CONTROL_RUN_new = 1'b0;

    always @(posedge clk) begin
        if (rst) begin
            runs <= 1'b0;
            place <= 32'd0;
            since_mark <= 32'd0;
            under_way <= 1'b0;
        end
        else begin
            under_way <= writes_request && !writes_done;
            runs <= CONTROL_RUN && (runs || begins) && !(stops && runs);
            if (begins) begin
                place <= 32'd0;
                since_mark <= 32'd0;
            end
            else if (ends && runs) begin
                place <= is_round ? 32'd0 : after;
                since_mark <= is_mark ? 32'd0 : marked;
            end
        end
    end
endmodule

`default_nettype wire
