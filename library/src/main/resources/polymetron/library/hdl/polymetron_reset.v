// The reset of a clock domain: asserted as soon as its source is, without a clock, and released with the clock, two cycles
// after the source is released.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_reset #(
    // 1 for a source that is low while it resets.
    parameter ACTIVE_LOW = 0
) (
    input  wire clk,
    input  wire source,
    output wire rst
);
    wire asserted = ACTIVE_LOW != 0 ? !source : source;
    reg [2:0] stages;
`ifdef FORMAL
    initial stages = 3'b000;
`endif

    always @(posedge clk or posedge asserted) begin
        if (asserted) stages <= 3'b111;
        else stages <= {stages[1:0], 1'b0};
    end

    assign rst = stages[2];
endmodule

`default_nettype wire
