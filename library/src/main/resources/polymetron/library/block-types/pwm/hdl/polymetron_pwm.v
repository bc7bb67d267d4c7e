// Outputs of one period, each high for its own part of it, all from the beginning of the period on. A duty and a period that
// are written count from the next period, so that no pulse is cut; while it is switched off they are taken over at once.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_pwm #(
    parameter CHANNELS = 4,
    parameter WIDTH = 16
) (
    input  wire                      clk,
    input  wire                      rst,
    input  wire                      CONTROL_ENABLE,
    input  wire [WIDTH-1:0]          PERIOD_COUNTS,
    input  wire [15:0]               PRESCALE_CYCLES,
    input  wire [CHANNELS*WIDTH-1:0] DUTY_COUNTS,
    output reg  [CHANNELS-1:0]       value
);
    reg [15:0] cycles;
    reg [WIDTH-1:0] count;
    reg [WIDTH-1:0] period;
    reg [CHANNELS*WIDTH-1:0] duty;
    wire steps = cycles == PRESCALE_CYCLES;
    wire ends = steps && count == period;

    always @(posedge clk) begin
        if (rst) begin
            cycles <= 16'd0;
            count <= {WIDTH{1'b0}};
            period <= {WIDTH{1'b0}};
            duty <= {CHANNELS * WIDTH{1'b0}};
        end
        else if (!CONTROL_ENABLE) begin
            cycles <= 16'd0;
            count <= {WIDTH{1'b0}};
            period <= PERIOD_COUNTS;
            duty <= DUTY_COUNTS;
        end
        else begin
            cycles <= steps ? 16'd0 : cycles + 16'd1;
            if (steps) count <= ends ? {WIDTH{1'b0}} : count + {{WIDTH - 1{1'b0}}, 1'b1};
            if (ends) begin
                period <= PERIOD_COUNTS;
                duty <= DUTY_COUNTS;
            end
        end
    end

    integer channel;
    always @(posedge clk) begin
        for (channel = 0; channel < CHANNELS; channel = channel + 1) begin
            value[channel] <= !rst && CONTROL_ENABLE && count < duty[channel*WIDTH +: WIDTH];
        end
    end
endmodule

`default_nettype wire
