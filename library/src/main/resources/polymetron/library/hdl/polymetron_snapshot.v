// A number of one clock as another clock sees it: copied as a whole, some cycles late. It never shows a mixture of two values.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_snapshot #(
    parameter BITS = 64
) (
    input  wire            near_clk,
    input  wire            near_rst,
    input  wire [BITS-1:0] near,
    input  wire            far_clk,
    input  wire            far_rst,
    output reg  [BITS-1:0] far
);
    reg [BITS-1:0] copy;
    reg offered;
    reg [1:0] taken_seen;
    reg [1:0] offered_seen;
    reg taken;

    // Both sides start anew together, so that each agrees with the other.
    wire either_rst = near_rst || far_rst;
    wire near_off;
    wire far_off;
    polymetron_reset near_reset (.clk(near_clk), .source(either_rst), .rst(near_off));
    polymetron_reset far_reset (.clk(far_clk), .source(either_rst), .rst(far_off));

    always @(posedge near_clk or posedge near_off) begin
        if (near_off) begin
            offered <= 1'b0;
            taken_seen <= 2'b00;
        end
        else begin
            taken_seen <= {taken_seen[0], taken};
            if (taken_seen[1] == offered) offered <= !offered;
        end
    end

    always @(posedge near_clk) begin
        if (near_rst) copy <= {BITS{1'b0}};
        else if (taken_seen[1] == offered) copy <= near;
    end

    always @(posedge far_clk or posedge far_off) begin
        if (far_off) begin
            offered_seen <= 2'b00;
            taken <= 1'b0;
        end
        else begin
            offered_seen <= {offered_seen[0], offered};
            taken <= offered_seen[1];
        end
    end

    always @(posedge far_clk) begin
        if (far_rst) far <= {BITS{1'b0}};
        else if (offered_seen[1] != taken) far <= copy;
    end
endmodule

`default_nettype wire
