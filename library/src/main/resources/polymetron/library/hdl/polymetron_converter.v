// The device's own analog converter: it measures a channel from start to done. For simulation a model with the levels that the test
// bench gives it, in steps of a 4096th of the full scale; for synthesis a black box, to be replaced by the device's own.
// SPDX-License-Identifier: 0BSD
`default_nettype none

`ifdef SYNTHESIS
(* blackbox *)
`endif
module polymetron_converter #(
    parameter CHANNELS = 1
) (
    input  wire                clk,
    input  wire                rst,
    input  wire [CHANNELS-1:0] inputs,
    input  wire                start,
    input  wire [2:0]          channel,
    output reg                 done,
    output reg  [11:0]         steps
);
`ifndef SYNTHESIS
    reg [95:0] levels = 96'd0;
    reg [5:0] left;
    reg measures;

    always @(posedge clk) begin
        if (rst) begin
            left <= 6'd0;
            measures <= 1'b0;
            done <= 1'b0;
            steps <= 12'd0;
        end
        else begin
            if (start) begin
                measures <= 1'b1;
                left <= 6'd49;
            end
            else if (measures) begin
                if (left == 6'd0) begin
                    measures <= 1'b0;
                    steps <= levels[12*channel +: 12];
                end
                left <= left - 6'd1;
            end
            done <= measures && left == 6'd0 && !start;
        end
    end

    wire unused = |inputs;
`endif
endmodule

`default_nettype wire
