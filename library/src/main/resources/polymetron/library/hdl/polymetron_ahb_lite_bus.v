// Selects and answers of one AHB-Lite bus (Arm IHI 0033): the address phase goes to the target that the address leads to, and
// the answer of the data phase is that of the target that was selected then. Where there is none the bus itself answers, with
// an error of two cycles. Addresses and data go to all targets by what surrounds it.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_ahb_lite_bus #(
    parameter TARGETS = 2
) (
    input  wire               clk,
    input  wire               rst,

    input  wire [1:0]         s_htrans,
    output wire               s_hreadyout,
    output wire               s_hresp,

    // The target that the address leads to; none is an error.
    input  wire [TARGETS-1:0] target,
    // Whose data phase it is.
    output reg  [TARGETS-1:0] answers,

    output wire [TARGETS-1:0] m_hsel,
    output wire [TARGETS-1:0] m_hready,
    input  wire [TARGETS-1:0] m_hreadyout,
    input  wire [TARGETS-1:0] m_hresp
);
    reg nowhere;
    reg second;

    wire is_answered = answers == {TARGETS{1'b0}} || |(answers & m_hreadyout);
    assign s_hreadyout = nowhere ? second : is_answered;
    assign s_hresp = nowhere || |(answers & m_hresp);
    assign m_hsel = {TARGETS{s_htrans[1]}} & target;
    assign m_hready = {TARGETS{s_hreadyout}};

    always @(posedge clk) begin
        if (rst) begin
            answers <= {TARGETS{1'b0}};
            nowhere <= 1'b0;
            second <= 1'b0;
        end
        else begin
            second <= nowhere && !second;
            if (s_hreadyout) begin
                answers <= m_hsel;
                nowhere <= s_htrans[1] && target == {TARGETS{1'b0}};
            end
        end
    end

    wire unused_sequential = s_htrans[0];
endmodule

`default_nettype wire
