// Measures one channel after the other. Flags compare the newest value of the first channel: on above their threshold, off again
// below it by more than the hysteresis.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_analog_monitor #(
    parameter CHANNELS = 1
) (
    input  wire                   clk,
    input  wire                   rst,
    input  wire [CHANNELS-1:0]    value,
    input  wire                   CONTROL_ENABLE,
    output reg  [3:0]             FLAGS_ABOVE,
    output wire [3:0]             PENDING_CHANGED_set,
    input  wire [11:0]            HYSTERESIS_STEPS,
    input  wire [12:0]            THRESHOLD0_STEPS,
    input  wire [12:0]            THRESHOLD1_STEPS,
    input  wire [12:0]            THRESHOLD2_STEPS,
    input  wire [12:0]            THRESHOLD3_STEPS,
    output reg  [12*CHANNELS-1:0] VALUE_STEPS
);
    localparam LAST = CHANNELS - 1;

    reg [2:0] turn;
    wire [2:0] channel = CHANNELS == 1 ? 3'd0 : turn;
    reg measures;
    reg compares;
    wire start = CONTROL_ENABLE && !measures;
    wire done;
    wire [11:0] steps;

    polymetron_converter #(.CHANNELS(CHANNELS)) converter (
        .clk(clk), .rst(rst), .inputs(value), .start(start), .channel(channel), .done(done), .steps(steps)
    );

    integer each;
    always @(posedge clk) begin
        if (rst) begin
            turn <= 3'd0;
            measures <= 1'b0;
            compares <= 1'b0;
            VALUE_STEPS <= {12 * CHANNELS{1'b0}};
        end
        else begin
            if (start) measures <= 1'b1;
            else if (done) measures <= 1'b0;
            compares <= done && channel == 3'd0;
            if (done) begin
                turn <= turn == LAST[2:0] ? 3'd0 : turn + 3'd1;
                for (each = 0; each < CHANNELS; each = each + 1) begin
                    if (channel == each[2:0]) VALUE_STEPS[12*each +: 12] <= steps;
                end
            end
        end
    end

    wire [51:0] thresholds = {THRESHOLD3_STEPS, THRESHOLD2_STEPS, THRESHOLD1_STEPS, THRESHOLD0_STEPS};
    wire [13:0] first = {2'd0, VALUE_STEPS[11:0]};
    wire [13:0] above = first + {2'd0, HYSTERESIS_STEPS};
    reg [3:0] next;
    integer flag;
    always @* begin
        for (flag = 0; flag < 4; flag = flag + 1) begin
            next[flag] = FLAGS_ABOVE[flag]
                ? above >= {1'b0, thresholds[13*flag +: 13]}
                : first > {1'b0, thresholds[13*flag +: 13]};
        end
    end

    assign PENDING_CHANGED_set = compares ? next ^ FLAGS_ABOVE : 4'd0;

    always @(posedge clk) begin
        if (rst) FLAGS_ABOVE <= 4'd0;
        else if (compares) FLAGS_ABOVE <= next;
    end
endmodule

`default_nettype wire
