// Integrators and combs one after the other (E. B. Hogenauer, "An economical class of digital filters for decimation and
// interpolation", IEEE ASSP 29, 1981), of each channel in turn. One adder does all stages of a sample, a stage in two cycles: one to
// read what the stage holds, one to add. A result has grown by ORDER times the logarithm of the rate to the base of two: so many bits
// are cut off, one a cycle, and the last of them rounds, a half up.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_decimating_filter #(
    parameter SAMPLE = 32,
    parameter CHANNELS = 3,
    parameter ORDER = 3,
    parameter INSIDE = 41
) (
    input  wire        clk,
    input  wire        rst,
    input  wire [31:0] in_tdata,
    input  wire        in_tvalid,
    output wire        in_tready,
    output wire [31:0] out_tdata,
    output wire        out_tvalid,
    input  wire        out_tready,
    output wire        out_tlast,
    input  wire        CONTROL_ENABLE,
    input  wire [12:0] RATE_SAMPLES
);
    // First what the integrators hold, then the combs.
    localparam PLACES = 2 * ORDER * CHANNELS;
    localparam PLACE = $clog2(PLACES);
    localparam CHANNEL = CHANNELS == 1 ? 1 : $clog2(CHANNELS);
    localparam LAST_CHANNEL = CHANNELS - 1;
    localparam LAST_STAGE = ORDER - 1;
    localparam LAST_PLACE = PLACES - 1;
    localparam STAGES = ORDER;
    localparam COMB = ORDER * CHANNELS;

    localparam [2:0] CLEARS = 3'd0;
    localparam [2:0] WAITS = 3'd1;
    localparam [2:0] READS = 3'd2;
    localparam [2:0] ADDS = 3'd3;
    localparam [2:0] CUTS = 3'd4;
    localparam [2:0] GIVES = 3'd5;

    reg [INSIDE-1:0] history [0:PLACES-1];
    reg [INSIDE-1:0] stored;

    reg [2:0] does;
    reg combs;
    reg used;
    reg [CHANNEL-1:0] channel;
    reg [PLACE-1:0] first;
    reg [PLACE-1:0] place;
    reg [2:0] stage;
    reg [12:0] samples;
    // Of the round at work: the first channel decides for all.
    reg [12:0] rate;
    reg [INSIDE-1:0] value;
    reg half;
    reg [6:0] cuts;
    wire [31:0] word;
    wire is_there;
    wire is_last = channel == LAST_CHANNEL[CHANNEL-1:0];
    wire is_result = samples >= rate - 13'd1;
    wire is_last_stage = stage == LAST_STAGE[2:0];
    // What is dropped counts as a channel too; work begins with the first one.
    wire works = CONTROL_ENABLE && (used || channel == {CHANNEL{1'b0}});
    wire takes = does == WAITS && (CONTROL_ENABLE || !used);

    polymetron_stream_slice #(.BITS(32)) slice (
        .clk(clk), .rst(rst), .in(in_tdata), .in_valid(in_tvalid), .in_ready(in_tready),
        .out(word), .out_valid(is_there), .out_ready(takes)
    );

    // The logarithm of the rate to the base of two, rounded up.
    reg [3:0] octaves;
    integer power;
    always @* begin
        octaves = 4'd0;
        for (power = 0; power < 13; power = power + 1) begin
            if ((13'd1 << power) < rate) octaves = power[3:0] + 4'd1;
        end
    end

    wire [INSIDE-1:0] sum = combs ? value - stored : value + stored;

    always @(posedge clk) begin
        if (does == CLEARS) history[place] <= {INSIDE{1'b0}};
        else if (does == ADDS) history[place] <= combs ? value : sum;
        if (does == READS) stored <= history[place];
    end

    always @(posedge clk) begin
        if (rst) begin
            does <= CLEARS;
            place <= {PLACE{1'b0}};
            first <= {PLACE{1'b0}};
            channel <= {CHANNEL{1'b0}};
            samples <= 13'd0;
            rate <= 13'd0;
            stage <= 3'd0;
            combs <= 1'b0;
            used <= 1'b0;
            value <= {INSIDE{1'b0}};
            half <= 1'b0;
            cuts <= 7'd0;
        end
        else if (!CONTROL_ENABLE && used && does == WAITS) begin
            // A sample at work is finished first.
            does <= CLEARS;
            place <= {PLACE{1'b0}};
            samples <= 13'd0;
            used <= 1'b0;
        end
        else begin
            case (does)
                CLEARS: begin
                    place <= place + 1'b1;
                    if (place == LAST_PLACE[PLACE-1:0]) does <= WAITS;
                end
                WAITS: begin
                    value <= {{INSIDE - SAMPLE{word[SAMPLE-1]}}, word[SAMPLE-1:0]};
                    place <= first;
                    stage <= 3'd0;
                    combs <= 1'b0;
                    if (is_there && works) begin
                        does <= READS;
                        used <= 1'b1;
                        if (channel == {CHANNEL{1'b0}}) rate <= RATE_SAMPLES;
                    end
                    else if (is_there) begin
                        channel <= is_last ? {CHANNEL{1'b0}} : channel + 1'b1;
                        first <= {PLACE{1'b0}};
                    end
                end
                READS: does <= ADDS;
                ADDS: begin
                    value <= sum;
                    place <= is_last_stage ? first + COMB[PLACE-1:0] : place + 1'b1;
                    stage <= is_last_stage ? 3'd0 : stage + 3'd1;
                    half <= 1'b0;
                    cuts <= {3'd0, octaves} * STAGES[6:0];
                    if (!is_last_stage) does <= READS;
                    else if (combs) does <= CUTS;
                    else if (is_result) begin
                        combs <= 1'b1;
                        does <= READS;
                    end
                    else begin
                        does <= WAITS;
                        next_channel;
                        if (is_last) samples <= samples + 13'd1;
                    end
                end
                CUTS: begin
                    if (cuts == 7'd0) does <= GIVES;
                    else begin
                        value <= {value[INSIDE-1], value[INSIDE-1:1]};
                        half <= value[0];
                        cuts <= cuts - 7'd1;
                    end
                end
                default: begin
                    if (out_tready) begin
                        does <= WAITS;
                        next_channel;
                        if (is_last) samples <= 13'd0;
                    end
                end
            endcase
        end
    end

    // A round of samples ends with the last channel.
    task next_channel;
        begin
            channel <= is_last ? {CHANNEL{1'b0}} : channel + 1'b1;
            first <= is_last ? {PLACE{1'b0}} : first + STAGES[PLACE-1:0];
        end
    endtask

    wire [SAMPLE-1:0] result = value[SAMPLE-1:0] + {{SAMPLE - 1{1'b0}}, half};
    generate
        if (SAMPLE < 32) begin : spread
            assign out_tdata = {{32 - SAMPLE{result[SAMPLE-1]}}, result};
            wire unused = |word[31:SAMPLE];
        end
        else begin : whole
            assign out_tdata = result;
        end
    endgenerate
    assign out_tvalid = does == GIVES;
    assign out_tlast = is_last;
endmodule

`default_nettype wire
