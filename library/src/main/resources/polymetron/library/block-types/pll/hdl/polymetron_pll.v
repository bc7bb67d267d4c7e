// A PLL. Its body is for simulation: clocks of the right frequency and a lock after some cycles of the input. For a device it is
// a box without contents that stands for the device's own PLL with these numbers.
// SPDX-License-Identifier: 0BSD
`ifdef SIMULATION
`timescale 1ps/1ps
`endif
`default_nettype none

`ifndef SIMULATION
(* blackbox *)
`endif
module polymetron_pll #(
    parameter DIVIDE = 1,
    parameter MULTIPLY = 8,
    parameter STEPS = 1,
    parameter OUTPUTS = 1,
    parameter OUT0 = 8,
    parameter OUT1 = 16,
    parameter OUT2 = 24,
    parameter OUT3 = 32,
    // Halves of the outputs' periods in picoseconds, for simulation.
    parameter HALF0 = 5000,
    parameter HALF1 = 5000,
    parameter HALF2 = 5000,
    parameter HALF3 = 5000
) (
    input  wire clk,
    output wire out0,
    output wire out1,
    output wire out2,
    output wire out3,
    output wire locked
);
`ifdef SIMULATION
    localparam LOCK_CYCLES = 16;

    reg is_locked = 1'b0;
    integer cycles = 0;

    always @(posedge clk) begin
        if (cycles < LOCK_CYCLES) cycles <= cycles + 1;
        else is_locked <= 1'b1;
    end

    // One variable for each clock: not every simulator sees the edges of a bit of a vector.
    reg first = 1'b0;
    reg second = 1'b0;
    reg third = 1'b0;
    reg fourth = 1'b0;
    always #(HALF0) first = !first;
    generate
        if (OUTPUTS > 1) begin : two
            always #(HALF1) second = !second;
        end
        if (OUTPUTS > 2) begin : three
            always #(HALF2) third = !third;
        end
        if (OUTPUTS > 3) begin : four
            always #(HALF3) fourth = !fourth;
        end
    endgenerate

    assign out0 = first;
    assign out1 = second;
    assign out2 = third;
    assign out3 = fourth;
    assign locked = is_locked;
`else
    // For tools that look inside all the same.
    assign {out3, out2, out1, out0} = {4{clk}};
    assign locked = 1'b1;
    wire unused_numbers = DIVIDE + MULTIPLY + STEPS + OUTPUTS + OUT0 + OUT1 + OUT2 + OUT3 + HALF0 + HALF1 + HALF2 + HALF3 == 0;
`endif
endmodule

`default_nettype wire
