// The answers of one APB (Arm IHI 0024): the target that the address leads to, and where there is none the bus itself, with an
// error. Addresses and data go to all targets by what surrounds it.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_apb_bus #(
    parameter TARGETS = 2
) (
    input  wire               s_psel,
    input  wire               s_penable,
    output wire               s_pready,
    output wire               s_pslverr,

    // The target that the address leads to; none is an error.
    input  wire [TARGETS-1:0] target,

    output wire [TARGETS-1:0] m_psel,
    output wire [TARGETS-1:0] m_penable,
    input  wire [TARGETS-1:0] m_pready,
    input  wire [TARGETS-1:0] m_pslverr
);
    wire is_nowhere = target == {TARGETS{1'b0}};

    assign m_psel = {TARGETS{s_psel}} & target;
    assign m_penable = {TARGETS{s_penable}} & target;
    assign s_pready = is_nowhere || |(m_pready & target);
    assign s_pslverr = is_nowhere || |(m_pslverr & target);
endmodule

`default_nettype wire
