// A reset that is asserted as soon as its source is, without a clock, and released with the clock, STAGES cycles after the source
// is released.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_reset_synchroniser #(
    parameter STAGES = 3
) (
    input  wire clk,
    input  wire rst,
    output wire out
);
    reg [STAGES-1:0] stages;

    always @(posedge clk or posedge rst) begin
        if (rst) stages <= {STAGES{1'b1}};
        else stages <= {stages[STAGES-2:0], 1'b0};
    end

    assign out = stages[STAGES-1];
endmodule

`default_nettype wire
