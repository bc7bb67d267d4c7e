// Compares a short average of the size of samples with a long one, in each channel. An average is kept times its length: one part in
// its length is taken away from it, and the new size added. Their ratio is divided out a bit a cycle. After each round of channels
// the largest ratio decides; it counts once as many rounds have come as the long average is long.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_threshold_trigger #(
    parameter SAMPLE = 32,
    parameter CHANNELS = 3,
    parameter SHORT = 16,
    parameter LONG = 1024
) (
    input  wire        clk,
    input  wire        rst,
    input  wire [31:0] in_tdata,
    input  wire        in_tvalid,
    output wire        in_tready,
    output wire [31:0] events_tdata,
    output wire        events_tvalid,
    input  wire        events_tready,
    input  wire        CONTROL_ENABLE,
    input  wire [15:0] THRESHOLD_RATIO,
    input  wire [15:0] RELEASE_RATIO,
    output reg         STATUS_ON,
    output reg  [3:0]  STATUS_CHANNEL,
    output wire        PENDING_ON_set,
    output wire        PENDING_OFF_set,
    output reg  [15:0] RATIO_RATIO
);
    localparam SHORTS = $clog2(SHORT);
    localparam LONGS = $clog2(LONG);
    localparam BITS = SAMPLE + LONGS;
    localparam PLACES = 2 * CHANNELS;
    localparam PLACE = $clog2(PLACES);
    localparam LAST_PLACE = PLACES - 1;
    localparam STRIDE = 2;
    localparam LAST_CHANNEL = CHANNELS - 1;
    localparam LAST_ROUND = LONG - 1;
    // Sixteenths of the ratio of the averages are so many times that of what is kept.
    localparam SCALE = LONGS - SHORTS + 4;
    localparam WIDE = BITS + 17;

    localparam [3:0] CLEARS = 4'd0;
    localparam [3:0] WAITS = 4'd1;
    localparam [3:0] READS_SHORT = 4'd2;
    localparam [3:0] ADDS_SHORT = 4'd3;
    localparam [3:0] READS_LONG = 4'd4;
    localparam [3:0] ADDS_LONG = 4'd5;
    localparam [3:0] DIVIDES = 4'd6;
    localparam [3:0] DECIDES = 4'd7;
    localparam [3:0] TELLS = 4'd8;

    // The short average of a channel, and behind it the long one.
    reg [BITS-1:0] averages [0:PLACES-1];
    reg [BITS-1:0] stored;

    reg [3:0] does;
    reg used;
    reg [3:0] channel;
    reg [PLACE-1:0] place;
    reg [PLACE-1:0] first;
    reg [SAMPLE-1:0] size;
    reg [WIDE-1:0] left;
    reg [WIDE-1:0] divisor;
    reg [15:0] ratio;
    reg [4:0] steps;
    reg [15:0] largest;
    reg [3:0] largest_channel;
    reg [LONGS-1:0] rounds;
    wire [31:0] word;
    wire is_there;
    wire is_last = channel == LAST_CHANNEL[3:0];
    // What is dropped counts as a channel too; work begins with the first one.
    wire works = CONTROL_ENABLE && (used || channel == 4'd0);
    wire takes = does == WAITS && (CONTROL_ENABLE || !used);

    polymetron_stream_slice #(.BITS(32)) slice (
        .clk(clk), .rst(rst), .in(in_tdata), .in_valid(in_tvalid), .in_ready(in_tready),
        .out(word), .out_valid(is_there), .out_ready(takes)
    );

    wire [BITS-1:0] short_next = stored - (stored >> SHORTS) + {{LONGS{1'b0}}, size};
    wire [BITS-1:0] long_next = stored - (stored >> LONGS) + {{LONGS{1'b0}}, size};

    always @(posedge clk) begin
        if (does == CLEARS) averages[place] <= {BITS{1'b0}};
        else if (does == ADDS_SHORT) averages[place] <= short_next;
        else if (does == ADDS_LONG) averages[place] <= long_next;
        if (does == READS_SHORT || does == READS_LONG) stored <= averages[place];
    end

    wire goes_in = left >= divisor;
    wire is_larger = channel == 4'd0 || ratio > largest;
    wire [15:0] most = is_larger ? ratio : largest;
    wire counts = rounds == LAST_ROUND[LONGS-1:0];
    wire decides = does == DECIDES && is_last && counts;
    wire goes_on = decides && !STATUS_ON && most >= THRESHOLD_RATIO;
    wire goes_off = decides && STATUS_ON && most < RELEASE_RATIO;
    assign PENDING_ON_set = goes_on;
    assign PENDING_OFF_set = goes_off;
    assign events_tvalid = does == TELLS;
    assign events_tdata = {20'd0, STATUS_CHANNEL, 7'd0, STATUS_ON};

    always @(posedge clk) begin
        if (rst) begin
            does <= CLEARS;
            used <= 1'b0;
            channel <= 4'd0;
            place <= {PLACE{1'b0}};
            first <= {PLACE{1'b0}};
            size <= {SAMPLE{1'b0}};
            left <= {WIDE{1'b0}};
            divisor <= {WIDE{1'b0}};
            ratio <= 16'd0;
            steps <= 5'd0;
            largest <= 16'd0;
            largest_channel <= 4'd0;
            rounds <= {LONGS{1'b0}};
            STATUS_ON <= 1'b0;
            STATUS_CHANNEL <= 4'd0;
            RATIO_RATIO <= 16'd0;
        end
        else if (!CONTROL_ENABLE && used && does == WAITS) begin
            does <= CLEARS;
            used <= 1'b0;
            place <= {PLACE{1'b0}};
            rounds <= {LONGS{1'b0}};
            STATUS_ON <= 1'b0;
            RATIO_RATIO <= 16'd0;
        end
        else begin
            case (does)
                CLEARS: begin
                    place <= place + 1'b1;
                    if (place == LAST_PLACE[PLACE-1:0]) does <= WAITS;
                end
                WAITS: begin
                    size <= word[SAMPLE-1] ? ~word[SAMPLE-1:0] + 1'b1 : word[SAMPLE-1:0];
                    place <= first;
                    if (is_there && works) begin
                        does <= READS_SHORT;
                        used <= 1'b1;
                    end
                    else if (is_there) next_channel;
                end
                READS_SHORT: does <= ADDS_SHORT;
                ADDS_SHORT: begin
                    left <= {{WIDE - BITS{1'b0}}, short_next} << SCALE;
                    place <= place + 1'b1;
                    does <= READS_LONG;
                end
                READS_LONG: does <= ADDS_LONG;
                ADDS_LONG: begin
                    divisor <= {1'b0, long_next, 16'd0};
                    steps <= 5'd0;
                    ratio <= 16'd0;
                    does <= long_next == {BITS{1'b0}} ? DECIDES : DIVIDES;
                end
                DIVIDES: begin
                    divisor <= divisor >> 1;
                    steps <= steps + 5'd1;
                    // One bit more than the ratio has: it is as large as can be said.
                    if (steps == 5'd0 && goes_in) begin
                        ratio <= 16'hffff;
                        does <= DECIDES;
                    end
                    else begin
                        if (goes_in) left <= left - divisor;
                        ratio <= {ratio[14:0], goes_in};
                        if (steps == 5'd16) does <= DECIDES;
                    end
                end
                DECIDES: begin
                    largest <= most;
                    if (is_larger) largest_channel <= channel;
                    if (is_last && !counts) rounds <= rounds + 1'b1;
                    if (decides) RATIO_RATIO <= most;
                    if (goes_on) begin
                        STATUS_ON <= 1'b1;
                        STATUS_CHANNEL <= is_larger ? channel : largest_channel;
                    end
                    if (goes_off) STATUS_ON <= 1'b0;
                    does <= goes_on || goes_off ? TELLS : WAITS;
                    next_channel;
                end
                default: if (events_tready) does <= WAITS;
            endcase
        end
    end

    task next_channel;
        begin
            channel <= is_last ? 4'd0 : channel + 4'd1;
            first <= is_last ? {PLACE{1'b0}} : first + STRIDE[PLACE-1:0];
        end
    endtask

    generate
        if (SAMPLE < 32) begin : narrow
            wire unused = |word[31:SAMPLE];
        end
    endgenerate
endmodule

`default_nettype wire
