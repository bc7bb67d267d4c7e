// Selects a converter every PERIOD cycles and shifts one word of each channel in, half a period of the serial clock after the other,
// as the SPI controller does. A sample waits until the stream takes it; the converter does not wait, so a sample without room is lost.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_converter_reader #(
    parameter CHANNELS = 3,
    parameter SAMPLE = 24,
    parameter DIVIDER = 8,
    parameter MODE = 1
) (
    input  wire                   clk,
    input  wire                   rst,
    output wire [31:0]            samples_tdata,
    output wire                   samples_tvalid,
    input  wire                   samples_tready,
    output wire                   samples_tlast,
    output wire                   clock,
    output wire                   select__,
    output wire                   to_device,
    input  wire                   from_device,
    input  wire                   CONTROL_ENABLE,
    input  wire [23:0]            PERIOD_CYCLES,
    output wire                   STATUS_LOST_set,
    output reg  [32*CHANNELS-1:0] LATEST_VALUE
);
    localparam DEPTH_BITS = CHANNELS == 1 ? 1 : $clog2(CHANNELS);
    localparam CHANNEL = CHANNELS == 1 ? 1 : $clog2(CHANNELS);
    localparam LAST_CHANNEL = CHANNELS - 1;
    localparam [31:0] MODES = MODE;
    localparam [31:0] HALF = DIVIDER / 2 - 1;
    localparam [31:0] LAST_HALF = 2 * SAMPLE - 1;

    localparam [1:0] RESTS = 2'd0;
    localparam [1:0] BEGINS = 2'd1;
    localparam [1:0] SHIFTS = 2'd2;
    localparam [1:0] ENDS = 2'd3;

    reg [1:0] does;
    reg runs;
    reg [23:0] passed;
    reg [11:0] time_left;
    reg [5:0] half;
    reg [CHANNEL-1:0] channel;
    reg [SAMPLE-1:0] shift;
    reg is_whole;
    wire starts = CONTROL_ENABLE && does == RESTS && (!runs || passed >= PERIOD_CYCLES);
    wire half_ends = time_left == 12'd0;
    wire is_last = channel == LAST_CHANNEL[CHANNEL-1:0];

    assign select__ = does == RESTS;
    assign clock = MODES[1] != (does == SHIFTS && half[0] != MODES[0]);
    assign to_device = 1'b0;

    wire [31:0] word;
    generate
        if (SAMPLE < 32) begin : spread
            assign word = {{32 - SAMPLE{shift[SAMPLE-1]}}, shift};
        end
        else begin : exact
            assign word = shift;
        end
    endgenerate

    wire [DEPTH_BITS:0] count;
    polymetron_fifo #(.BITS(33), .DEPTH_BITS(DEPTH_BITS)) waits (
        .clk(clk), .rst(rst), .push(is_whole), .in({is_last, word}), .pop(samples_tvalid && samples_tready),
        .out({samples_tlast, samples_tdata}), .count(count)
    );
    assign samples_tvalid = count != {DEPTH_BITS + 1{1'b0}};
    assign STATUS_LOST_set = is_whole && count[DEPTH_BITS];

    integer each;
    always @(posedge clk) begin
        if (rst) LATEST_VALUE <= {32 * CHANNELS{1'b0}};
        else if (is_whole) begin
            for (each = 0; each < CHANNELS; each = each + 1) begin
                if (channel == each[CHANNEL-1:0]) LATEST_VALUE[32*each +: 32] <= word;
            end
        end
    end

    always @(posedge clk) begin
        if (rst) begin
            does <= RESTS;
            runs <= 1'b0;
            passed <= 24'd0;
            time_left <= 12'd0;
            half <= 6'd0;
            channel <= {CHANNEL{1'b0}};
            shift <= {SAMPLE{1'b0}};
            is_whole <= 1'b0;
        end
        else begin
            is_whole <= 1'b0;
            if (is_whole) channel <= is_last ? {CHANNEL{1'b0}} : channel + 1'b1;
            // From the beginning of one reading to that of the next.
            passed <= starts ? 24'd1 : passed + {23'd0, passed != 24'hffffff};
            if (starts) runs <= 1'b1;
            else if (!CONTROL_ENABLE && does == RESTS) runs <= 1'b0;
            time_left <= half_ends || starts ? HALF[11:0] : time_left - 12'd1;
            case (does)
                RESTS: if (starts) does <= BEGINS;
                BEGINS: begin
                    half <= 6'd0;
                    if (half_ends) does <= SHIFTS;
                end
                SHIFTS: begin
                    if (half_ends) half <= half == LAST_HALF[5:0] ? 6'd0 : half + 6'd1;
                    if (half_ends && !half[0]) shift <= {shift[SAMPLE-2:0], from_device};
                    if (half_ends && half == LAST_HALF[5:0]) begin
                        is_whole <= 1'b1;
                        if (is_last) does <= ENDS;
                    end
                end
                default: if (half_ends) does <= RESTS;
            endcase
        end
    end
endmodule

`default_nettype wire
