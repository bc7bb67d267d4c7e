// General-purpose lines: levels that software reads and drives, and edges that it wants to know of.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_gpio #(
    parameter WIDTH = 8,
    // 0: only inputs, 1: only outputs, 2: each as software says
    parameter DIRECTION = 0
) (
    input  wire             clk,
    input  wire             rst,
    output wire [WIDTH-1:0] INPUT_LEVEL,
    input  wire [WIDTH-1:0] OUTPUT_LEVEL,
    input  wire [WIDTH-1:0] DRIVE_ENABLE,
    input  wire [WIDTH-1:0] RISE_ENABLE,
    input  wire [WIDTH-1:0] FALL_ENABLE,
    output wire [WIDTH-1:0] PENDING_EDGE_set,
    input  wire [WIDTH-1:0] value_in,
    output wire [WIDTH-1:0] value_out,
    output wire [WIDTH-1:0] value_drive
);
    wire [WIDTH-1:0] levels;
    reg [WIDTH-1:0] last;
    // Levels that were there before the reset ended are no edges.
    reg [1:0] settling;

    polymetron_synchroniser #(.BITS(WIDTH)) synchroniser (.clk(clk), .rst(rst), .in(value_in), .out(levels));

    always @(posedge clk) begin
        if (rst) begin
            last <= {WIDTH{1'b0}};
            settling <= 2'd3;
        end
        else begin
            last <= levels;
            if (settling != 2'd0) settling <= settling - 2'd1;
        end
    end

    assign value_out = OUTPUT_LEVEL;
    assign value_drive = rst ? {WIDTH{1'b0}} : DIRECTION == 1 ? {WIDTH{1'b1}} : DRIVE_ENABLE;
    assign INPUT_LEVEL = (levels & ~value_drive) | (OUTPUT_LEVEL & value_drive);
    assign PENDING_EDGE_set = settling != 2'd0 ? {WIDTH{1'b0}}
        : (levels & ~last & RISE_ENABLE) | (~levels & last & FALL_ENABLE);
endmodule

`default_nettype wire
