// Accesses from one clock into another. A request is a level that changes, seen by the other clock through two flip-flops; so
// is its answer. What goes with them stands still meanwhile. A reset of either side resets both: what is under way then is
// answered with an error, what is requested meanwhile waits, and the far side ends what it has begun.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_crossing #(
    parameter ADDRESS_BITS = 12,
    parameter DATA_BITS = 32
) (
    input  wire                    near_clk,
    input  wire                    near_rst,
    input  wire                    request,
    input  wire                    write,
    input  wire [ADDRESS_BITS-1:0] address,
    input  wire [DATA_BITS-1:0]    value,
    input  wire [DATA_BITS/8-1:0]  bytes,
    output wire                    done,
    output wire [DATA_BITS-1:0]    answer,
    output wire                    error,

    input  wire                    far_clk,
    input  wire                    far_rst,
    output reg                     far_request,
    output reg                     far_write,
    output reg  [ADDRESS_BITS-1:0] far_address,
    output reg  [DATA_BITS-1:0]    far_value,
    output reg  [DATA_BITS/8-1:0]  far_bytes,
    input  wire                    far_done,
    input  wire [DATA_BITS-1:0]    far_answer,
    input  wire                    far_error
);
    wire either_rst = near_rst || far_rst;
    wire near_off;
    wire far_off;
    polymetron_reset near_reset (.clk(near_clk), .source(either_rst), .rst(near_off));
    polymetron_reset far_reset (.clk(far_clk), .source(either_rst), .rst(far_off));

    // --- the side that asks

    reg asked;
    reg [1:0] answered_seen;
    reg answered;
    reg [DATA_BITS-1:0] kept_answer;
    reg kept_error;
    reg waits;
    // The reset may come from the other clock: while it lasts, and two cycles longer; and as this clock sees it.
    reg [1:0] off;
    reg [1:0] off_seen;
    wire is_lost = waits && off_seen[1];
    wire is_answered = waits && !off[1] && !off_seen[1] && answered_seen[1] == asked;
    wire asks = request && !waits && !off[1] && off_seen == 2'b00;

    assign done = is_lost || is_answered;
    assign answer = kept_answer;
    assign error = is_lost || kept_error;

    always @(posedge near_clk or posedge near_off) begin
        if (near_off) begin
            asked <= 1'b0;
            answered_seen <= 2'b00;
            off <= 2'b11;
        end
        else begin
            answered_seen <= {answered_seen[0], answered};
            off <= {off[0], 1'b0};
            if (asks) asked <= !asked;
        end
    end

    always @(posedge near_clk) begin
        if (near_rst) begin
            waits <= 1'b0;
            off_seen <= 2'b11;
        end
        else begin
            off_seen <= {off_seen[0], off[1]};
            if (asks) waits <= 1'b1;
            else if (done) waits <= 1'b0;
        end
    end

    // --- the side that acts

    reg [1:0] asked_seen;
    reg taken;
    wire starts = !far_request && asked_seen[1] != taken;

    always @(posedge far_clk or posedge far_off) begin
        if (far_off) begin
            asked_seen <= 2'b00;
            taken <= 1'b0;
            answered <= 1'b0;
        end
        else begin
            asked_seen <= {asked_seen[0], asked};
            if (starts) taken <= asked_seen[1];
            if (far_request && far_done) answered <= taken;
        end
    end

    always @(posedge far_clk) begin
        if (far_rst) begin
            far_request <= 1'b0;
            far_write <= 1'b0;
            far_address <= {ADDRESS_BITS{1'b0}};
            far_value <= {DATA_BITS{1'b0}};
            far_bytes <= {DATA_BITS / 8{1'b0}};
            kept_answer <= {DATA_BITS{1'b0}};
            kept_error <= 1'b0;
        end
        else begin
            if (starts) begin
                far_request <= 1'b1;
                far_write <= write;
                far_address <= address;
                far_value <= value;
                far_bytes <= bytes;
            end
            else if (far_done) far_request <= 1'b0;
            if (far_request && far_done) begin
                kept_answer <= far_answer;
                kept_error <= far_error;
            end
        end
    end

`ifdef FORMAL
    // A proof begins behind the resets.
    initial begin
        asked = 1'b0;
        answered_seen = 2'b00;
        off = 2'b00;
        off_seen = 2'b00;
        waits = 1'b0;
        asked_seen = 2'b00;
        taken = 1'b0;
        answered = 1'b0;
        far_request = 1'b0;
    end
`endif
endmodule

`default_nettype wire
