// Records words of a stream around a trigger. While it is armed every word goes round in the memory; once BEFORE words are there the
// next one that fits is the trigger, and the record is full when the words behind it are there too.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_signal_probe #(
    parameter WIDTH = 32,
    parameter DEPTH = 1024,
    parameter BEFORE = 512,
    // 0 a value under a mask, 1 the end of a packet, 2 software only.
    parameter TRIGGER = 0,
    parameter COMPARED = 32
) (
    input  wire                     clk,
    input  wire                     rst,
    input  wire [WIDTH-1:0]         watched_tdata,
    input  wire                     watched_tvalid,
    output wire                     watched_tready,
    input  wire                     watched_tlast,
    output wire                     recorded,
    input  wire                     CONTROL_ARM,
    output wire                     CONTROL_ARM_load,
    output wire                     CONTROL_ARM_new,
    input  wire                     CONTROL_FORCE_pulse,
    output reg                      STATUS_TRIGGERED,
    output reg                      STATUS_FULL,
    input  wire [COMPARED-1:0]      MASK_BITS,
    input  wire [COMPARED-1:0]      VALUE_BITS,
    input  wire [$clog2(DEPTH)-1:0] INDEX_WORD,
    output wire                     INDEX_WORD_load,
    output wire [$clog2(DEPTH)-1:0] INDEX_WORD_new,
    input  wire [2:0]               PART_NUMBER,
    output wire [31:0]              DATA_BITS,
    input  wire                     DATA_BITS_taken
);
    localparam PLACE = $clog2(DEPTH);
    localparam LAST = DEPTH - BEFORE - 1;
    localparam BEFORES = BEFORE;
    localparam [PLACE:0] FIRST = BEFORES[PLACE:0];
    localparam [PLACE:0] REST = LAST[PLACE:0];

    reg [WIDTH:0] samples [0:DEPTH-1];
    reg [WIDTH:0] word;
    reg armed;
    reg forced;
    reg [PLACE-1:0] next;
    reg [PLACE:0] count;
    wire begins = CONTROL_ARM && !armed;
    wire push = watched_tvalid && armed && !STATUS_FULL;
    wire fits = TRIGGER == 0 ? (watched_tdata[COMPARED-1:0] & MASK_BITS) == (VALUE_BITS & MASK_BITS)
        : TRIGGER == 1 ? watched_tlast : 1'b0;
    wire triggers = push && !STATUS_TRIGGERED && count == FIRST && (fits || forced || CONTROL_FORCE_pulse);
    // Behind the trigger the count begins again.
    wire fills = push && (STATUS_TRIGGERED ? count == REST : triggers && REST == {PLACE + 1{1'b0}});

    assign watched_tready = 1'b1;
    assign recorded = STATUS_FULL;
    assign CONTROL_ARM_load = fills;
    assign CONTROL_ARM_new = 1'b0;
    assign INDEX_WORD_load = DATA_BITS_taken;
    assign INDEX_WORD_new = INDEX_WORD + 1'b1;

    // When it is full the next place is that of the oldest word.
    wire [PLACE-1:0] shown = next + INDEX_WORD;

    always @(posedge clk) begin
        if (push) samples[next] <= {watched_tlast, watched_tdata};
        word <= samples[shown];
    end

    wire [287:0] all = {{287 - WIDTH{1'b0}}, word};
    // Until there is a record there is nothing to see.
    assign DATA_BITS = STATUS_FULL ? all[32*PART_NUMBER +: 32] : 32'd0;

    always @(posedge clk) begin
        if (rst) begin
            armed <= 1'b0;
            forced <= 1'b0;
            next <= {PLACE{1'b0}};
            count <= {PLACE + 1{1'b0}};
            STATUS_TRIGGERED <= 1'b0;
            STATUS_FULL <= 1'b0;
        end
        else begin
            // Disarmed by software it keeps what it has, which is no record.
            armed <= CONTROL_ARM && !fills;
            // It may come with the write that arms.
            if (CONTROL_FORCE_pulse) forced <= 1'b1;
            else if (triggers || !CONTROL_ARM) forced <= 1'b0;
            if (begins) begin
                count <= {PLACE + 1{1'b0}};
                STATUS_TRIGGERED <= 1'b0;
                STATUS_FULL <= 1'b0;
            end
            else begin
                if (push) begin
                    next <= next + 1'b1;
                    if (triggers) count <= {{PLACE{1'b0}}, 1'b1};
                    else if (STATUS_TRIGGERED || count != FIRST) count <= count + 1'b1;
                end
                if (triggers) STATUS_TRIGGERED <= 1'b1;
                if (fills) STATUS_FULL <= 1'b1;
            end
        end
    end
endmodule

`default_nettype wire
