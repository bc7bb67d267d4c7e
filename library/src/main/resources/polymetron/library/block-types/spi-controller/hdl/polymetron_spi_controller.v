// Shifts words out and in at once, half a period of the serial clock after the other: in the first half of a bit the clock
// rests where PHASE is 0 and is away where it is 1, and what comes in is taken at the end of that half. Words follow each other
// without a gap as long as there are any.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_spi_controller #(
    parameter WORD = 8,
    parameter SELECTS = 1,
    parameter FIFO = 16
) (
    input  wire               clk,
    input  wire               rst,

    input  wire               CONTROL_ENABLE,
    input  wire               CONTROL_POLARITY,
    input  wire               CONTROL_PHASE,
    input  wire               CONTROL_LOW_FIRST,
    input  wire               CONTROL_LOOP,
    output wire               STATUS_BUSY,
    output wire               STATUS_ARRIVED,
    output wire               STATUS_ROOM,
    input  wire [15:0]        DIVIDER_CYCLES,
    input  wire [SELECTS-1:0] SELECT_LINE,
    input  wire               SEND_WORD_written,
    input  wire [WORD-1:0]    SEND_WORD_data,
    output wire [WORD-1:0]    RECEIVED_WORD,
    input  wire               RECEIVED_WORD_taken,
    output wire               PENDING_ARRIVED_set,
    output wire               PENDING_EMPTY_set,
    output wire               PENDING_LOST_set,

    output wire               clock,
    output wire [SELECTS-1:0] select__,
    output wire               to_device,
    input  wire               from_device
);
    localparam DEPTH_BITS = FIFO > 256 ? 9 : FIFO > 128 ? 8 : FIFO > 64 ? 7 : FIFO > 32 ? 6 : FIFO > 16 ? 5
        : FIFO > 8 ? 4 : FIFO > 4 ? 3 : FIFO > 2 ? 2 : 1;
    localparam [31:0] WORDS = FIFO;
    localparam [31:0] LAST = 2 * WORD - 1;

    // --- words that wait

    wire starts;
    wire [WORD-1:0] next_word;
    wire [DEPTH_BITS:0] send_count;
    assign STATUS_ROOM = send_count != WORDS[DEPTH_BITS:0];
    polymetron_fifo #(.BITS(WORD), .DEPTH_BITS(DEPTH_BITS)) send (
        .clk(clk), .rst(rst), .push(SEND_WORD_written && STATUS_ROOM), .in(SEND_WORD_data), .pop(starts),
        .out(next_word), .count(send_count)
    );

    wire ends;
    wire [WORD-1:0] word;
    wire [WORD-1:0] oldest;
    wire [DEPTH_BITS:0] receive_count;
    wire is_full = receive_count == WORDS[DEPTH_BITS:0];
    assign STATUS_ARRIVED = receive_count != {DEPTH_BITS + 1{1'b0}};
    assign RECEIVED_WORD = STATUS_ARRIVED ? oldest : {WORD{1'b0}};
    polymetron_fifo #(.BITS(WORD), .DEPTH_BITS(DEPTH_BITS)) receive (
        .clk(clk), .rst(rst), .push(ends && !is_full), .in(word), .pop(RECEIVED_WORD_taken),
        .out(oldest), .count(receive_count)
    );

    // --- a word on its way: bits go out at one end of the register and come in at the other

    reg busy;
    reg [WORD-1:0] shift;
    reg [5:0] half;
    reg [14:0] time_left;
    reg bit_in;
    wire [14:0] half_period = DIVIDER_CYCLES[15:1] == 15'd0 ? 15'd0 : DIVIDER_CYCLES[15:1] - 15'd1;
    wire half_ends = time_left == 15'd0;
    wire takes = half_ends && !half[0];
    wire waits = send_count != {DEPTH_BITS + 1{1'b0}};
    assign ends = busy && half_ends && half == LAST[5:0];
    assign starts = CONTROL_ENABLE && waits && (!busy || ends);
    assign word = CONTROL_LOW_FIRST ? {bit_in, shift[WORD-1:1]} : {shift[WORD-2:0], bit_in};
    wire bit_out = CONTROL_LOW_FIRST ? shift[0] : shift[WORD-1];
    wire is_away = busy && half[0] != CONTROL_PHASE;

    assign STATUS_BUSY = busy;
    assign clock = CONTROL_POLARITY != is_away;
    assign to_device = busy && bit_out;
    assign select__ = ~SELECT_LINE;
    assign PENDING_ARRIVED_set = ends && !is_full;
    assign PENDING_EMPTY_set = ends && !waits;
    assign PENDING_LOST_set = (ends && is_full) || (SEND_WORD_written && !STATUS_ROOM);

    always @(posedge clk) begin
        if (rst) begin
            busy <= 1'b0;
            shift <= {WORD{1'b0}};
            half <= 6'd0;
            time_left <= 15'd0;
            bit_in <= 1'b0;
        end
        else begin
            if (starts || ends) busy <= starts;
            if (starts) begin
                shift <= next_word;
                half <= 6'd0;
                time_left <= half_period;
            end
            else if (busy) begin
                time_left <= half_ends ? half_period : time_left - 15'd1;
                if (half_ends) half <= half + 6'd1;
                if (half_ends && half[0]) shift <= word;
            end
            if (busy && takes) bit_in <= CONTROL_LOOP ? bit_out : from_device;
        end
    end

    // Dividers are even.
    wire unused_divider = DIVIDER_CYCLES[0];
endmodule

`default_nettype wire
