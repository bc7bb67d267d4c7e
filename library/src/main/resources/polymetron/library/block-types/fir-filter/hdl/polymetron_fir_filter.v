// Sums of the last samples, each times its coefficient, of several channels in turn. The taps are dealt to MULTIPLIERS parts, each
// with the samples of its taps in a memory of its own: all parts multiply in one cycle, and the sample that leaves one part goes on
// to the next. What is cut off the sum rounds, a half up; what is too large becomes the largest.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_fir_filter #(
    parameter SAMPLE = 32,
    parameter CHANNELS = 3,
    parameter TAPS = 16,
    parameter COEFFICIENT = 16,
    parameter INSIDE = 48,
    parameter SHIFT = 15,
    parameter MULTIPLIERS = 1
) (
    input  wire                        clk,
    input  wire                        rst,
    input  wire [31:0]                 in_tdata,
    input  wire                        in_tvalid,
    output wire                        in_tready,
    input  wire                        in_tlast,
    output wire [31:0]                 out_tdata,
    output wire                        out_tvalid,
    input  wire                        out_tready,
    output wire                        out_tlast,
    input  wire                        CONTROL_ENABLE,
    input  wire                        CONTROL_BYPASS,
    output wire                        STATUS_CLIPPED_set,
    input  wire [TAPS*COEFFICIENT-1:0] COEFFICIENT_VALUE
);
    // Taps of a part; those behind the last one have the coefficient 0.
    localparam DEPTH = (TAPS + MULTIPLIERS - 1) / MULTIPLIERS;
    localparam ALL = DEPTH * MULTIPLIERS;
    localparam PLACES = DEPTH * CHANNELS;
    localparam PLACE = PLACES == 1 ? 1 : $clog2(PLACES);
    localparam TAP = DEPTH == 1 ? 1 : $clog2(DEPTH);
    localparam STEP = $clog2(DEPTH + 2);
    localparam CHANNEL = CHANNELS == 1 ? 1 : $clog2(CHANNELS);
    localparam PRODUCT = SAMPLE + COEFFICIENT;
    localparam LAST_SLOT = DEPTH - 1;
    localparam LAST_CHANNEL = CHANNELS - 1;
    localparam LAST_PLACE = PLACES - 1;
    localparam LAST_STEP = DEPTH + 1;
    localparam STRIDE = DEPTH;
    localparam [INSIDE:0] HALF = SHIFT == 0 ? 0 : {{INSIDE{1'b0}}, 1'b1} << (SHIFT - 1);

    localparam [2:0] CLEARS = 3'd0;
    localparam [2:0] WAITS = 3'd1;
    localparam [2:0] WORKS = 3'd2;
    localparam [2:0] ROUNDS = 3'd3;
    localparam [2:0] GIVES = 3'd4;

    reg [2:0] does;
    reg [CHANNEL-1:0] channel;
    // The first place of the channel; where its newest sample goes, which is where its oldest is; and the place at work.
    reg [PLACE-1:0] first;
    reg [TAP-1:0] newest;
    reg [TAP-1:0] slot;
    reg [STEP-1:0] step;
    reg used;
    reg passed_on;
    reg last;
    reg [SAMPLE-1:0] sample;
    reg [INSIDE-1:0] sum;
    wire [32:0] word;
    wire is_there;
    wire is_last_channel = channel == LAST_CHANNEL[CHANNEL-1:0];
    // What is dropped counts as a channel too. The first one decides for all: a round that has begun is finished, or the samples of
    // some channels would stand a place further in their history than those of others.
    wire is_first_channel = channel == {CHANNEL{1'b0}};
    wire works = is_first_channel ? CONTROL_ENABLE : used;
    wire passes_on = is_first_channel ? CONTROL_BYPASS : passed_on;
    wire takes = does == WAITS;

    polymetron_stream_slice #(.BITS(33)) slice (
        .clk(clk), .rst(rst), .in({in_tlast, in_tdata}), .in_valid(in_tvalid), .in_ready(in_tready),
        .out(word), .out_valid(is_there), .out_ready(takes)
    );

    wire clears = does == CLEARS;
    wire stores = does == WORKS && step == {{STEP - 1{1'b0}}, 1'b1};
    // No place is beyond the last one: the highest bit is 0.
    wire [PLACE:0] reads = {1'b0, first} + {{PLACE + 1 - TAP{1'b0}}, slot};
    wire [PLACE:0] writes = {1'b0, first} + (clears ? {PLACE + 1{1'b0}} : {{PLACE + 1 - TAP{1'b0}}, newest});
    wire unused = reads[PLACE] | writes[PLACE];
    wire [ALL*COEFFICIENT:0] coefficients = {{(ALL - TAPS) * COEFFICIENT + 1{1'b0}}, COEFFICIENT_VALUE};
    wire unused_coefficient = coefficients[ALL*COEFFICIENT];
    wire [SAMPLE*(MULTIPLIERS+1)-1:0] passes;
    assign passes[SAMPLE-1:0] = sample;
    wire unused_sample = |passes[SAMPLE*MULTIPLIERS +: SAMPLE];

    wire [MULTIPLIERS*INSIDE-1:0] products;
    genvar part;
    generate
        for (part = 0; part < MULTIPLIERS; part = part + 1) begin : parts
            reg [SAMPLE-1:0] history [0:PLACES-1];
            reg [SAMPLE-1:0] read;
            reg signed [COEFFICIENT-1:0] coefficient;
            reg signed [PRODUCT-1:0] product;
            wire signed [SAMPLE-1:0] factor = stores ? passes[SAMPLE*part +: SAMPLE] : read;
            // The sample that the newest one takes the place of.
            assign passes[SAMPLE*(part+1) +: SAMPLE] = read;

            integer tap;
            always @* begin
                coefficient = {COEFFICIENT{1'b0}};
                for (tap = 0; tap < DEPTH; tap = tap + 1) begin
                    if (step == tap[STEP-1:0] + 1'b1) coefficient = coefficients[(part*DEPTH+tap)*COEFFICIENT +: COEFFICIENT];
                end
            end

            always @(posedge clk) begin
                if (clears || stores) history[writes[PLACE-1:0]] <= clears ? {SAMPLE{1'b0}} : passes[SAMPLE*part +: SAMPLE];
                read <= history[reads[PLACE-1:0]];
                product <= factor * coefficient;
            end

            if (INSIDE > PRODUCT) begin : wide
                assign products[INSIDE*part +: INSIDE] = {{INSIDE - PRODUCT{product[PRODUCT-1]}}, product};
            end
            else begin : narrow
                assign products[INSIDE*part +: INSIDE] = product[INSIDE-1:0];
            end
        end
    endgenerate

    reg [INSIDE-1:0] added;
    integer each;
    always @* begin
        added = step == {{STEP - 2{1'b0}}, 2'd2} ? {INSIDE{1'b0}} : sum;
        for (each = 0; each < MULTIPLIERS; each = each + 1) added = added + products[INSIDE*each +: INSIDE];
    end

    wire signed [INSIDE:0] whole = {sum[INSIDE-1], sum} + HALF;
    wire signed [INSIDE:0] cut = whole >>> SHIFT;
    wire [SAMPLE-1:0] result;
    wire clips;
    generate
        if (INSIDE >= SAMPLE) begin : saturates
            assign clips = cut[INSIDE:SAMPLE-1] != {INSIDE - SAMPLE + 2{cut[INSIDE]}};
            assign result = clips ? {cut[INSIDE], {SAMPLE - 1{!cut[INSIDE]}}} : cut[SAMPLE-1:0];
        end
        else begin : fits
            assign clips = 1'b0;
            assign result = {{SAMPLE - INSIDE{cut[INSIDE]}}, cut[INSIDE-1:0]};
        end
    endgenerate

    assign STATUS_CLIPPED_set = does == ROUNDS && clips;

    always @(posedge clk) begin
        if (rst) begin
            does <= CLEARS;
            channel <= {CHANNEL{1'b0}};
            first <= {PLACE{1'b0}};
            newest <= {TAP{1'b0}};
            slot <= {TAP{1'b0}};
            step <= {STEP{1'b0}};
            used <= 1'b0;
            passed_on <= 1'b0;
            last <= 1'b0;
            sample <= {SAMPLE{1'b0}};
            sum <= {INSIDE{1'b0}};
        end
        else begin
            case (does)
                CLEARS: begin
                    first <= first == LAST_PLACE[PLACE-1:0] ? {PLACE{1'b0}} : first + 1'b1;
                    if (first == LAST_PLACE[PLACE-1:0]) does <= WAITS;
                end
                WAITS: begin
                    sample <= word[SAMPLE-1:0];
                    last <= word[32];
                    slot <= newest;
                    step <= {STEP{1'b0}};
                    if (is_there) begin
                        used <= works;
                        passed_on <= passes_on;
                        if (!works) next_channel;
                        else does <= passes_on ? GIVES : WORKS;
                    end
                end
                WORKS: begin
                    slot <= slot == {TAP{1'b0}} ? LAST_SLOT[TAP-1:0] : slot - 1'b1;
                    step <= step + 1'b1;
                    sum <= added;
                    if (step == LAST_STEP[STEP-1:0]) does <= ROUNDS;
                end
                ROUNDS: begin
                    sample <= result;
                    does <= GIVES;
                end
                default: begin
                    if (out_tready) begin
                        does <= WAITS;
                        next_channel;
                        // Handed on as it is, a sample is in no history.
                        if (is_last_channel && !passed_on) newest <= newest == LAST_SLOT[TAP-1:0] ? {TAP{1'b0}} : newest + 1'b1;
                    end
                end
            endcase
        end
    end

    task next_channel;
        begin
            channel <= is_last_channel ? {CHANNEL{1'b0}} : channel + 1'b1;
            first <= is_last_channel ? {PLACE{1'b0}} : first + STRIDE[PLACE-1:0];
        end
    endtask

    generate
        if (SAMPLE < 32) begin : spread
            assign out_tdata = {{32 - SAMPLE{sample[SAMPLE-1]}}, sample};
            wire unused_bits = |word[31:SAMPLE];
        end
        else begin : exact
            assign out_tdata = sample;
        end
    endgenerate
    assign out_tvalid = does == GIVES;
    assign out_tlast = last;
endmodule

`default_nettype wire
