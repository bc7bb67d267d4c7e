// A window through which one bus reaches another: an access of the window, with ORIGIN added to its offset, is one behind it.
// Request and answer are registered.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_bridge #(
    parameter WINDOW_BITS = 20,
    parameter BEHIND_BITS = 32,
    parameter [63:0] ORIGIN = 64'd0
) (
    input  wire                   clk,
    input  wire                   rst,

    input  wire                   window_request,
    input  wire                   window_write,
    input  wire [WINDOW_BITS-1:0] window_address,
    input  wire [31:0]            window_value,
    input  wire [3:0]             window_bytes,
    output wire                   window_done,
    output reg  [31:0]            window_answer,
    output reg                    window_error,

    output reg                    behind_request,
    output reg                    behind_write,
    output reg  [BEHIND_BITS-1:0] behind_address,
    output reg  [31:0]            behind_value,
    output reg  [3:0]             behind_bytes,
    input  wire                   behind_done,
    input  wire [31:0]            behind_answer,
    input  wire                   behind_error
);
    reg answered;

    assign window_done = answered;

    always @(posedge clk) begin
        if (rst) begin
            answered <= 1'b0;
            behind_request <= 1'b0;
            behind_write <= 1'b0;
            behind_address <= {BEHIND_BITS{1'b0}};
            behind_value <= 32'd0;
            behind_bytes <= 4'd0;
            window_answer <= 32'd0;
            window_error <= 1'b0;
        end
        else begin
            answered <= behind_request && behind_done;
            if (behind_request) begin
                if (behind_done) begin
                    behind_request <= 1'b0;
                    window_answer <= behind_answer;
                    window_error <= behind_error;
                end
            end
            else if (window_request && !answered) begin
                behind_request <= 1'b1;
                behind_write <= window_write;
                behind_address <= ORIGIN[BEHIND_BITS-1:0] + {{BEHIND_BITS - WINDOW_BITS{1'b0}}, window_address};
                behind_value <= window_value;
                behind_bytes <= window_bytes;
            end
        end
    end
endmodule

`default_nettype wire
