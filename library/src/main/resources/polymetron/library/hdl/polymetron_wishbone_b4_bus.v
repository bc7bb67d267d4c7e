// The handshakes of one Wishbone B4 bus with one shared path: MASTERs take turns, one classic cycle at a time, and it goes
// to the target whose range its address is in. Choosing between several takes a cycle. Where there is no target the bus itself
// answers with ERR. A MASTER does not keep the bus between two cycles, whatever its LOCK.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_wishbone_b4_bus #(
    parameter INITIATORS = 2,
    parameter TARGETS = 2,
    // 1: the initiator with the lower number comes first; 0: round robin
    parameter BY_PRIORITY = 0
) (
    input  wire                  clk,
    input  wire                  rst,

    input  wire [INITIATORS-1:0] s_cyc,
    input  wire [INITIATORS-1:0] s_stb,
    output wire [INITIATORS-1:0] s_ack,
    output wire [INITIATORS-1:0] s_err,

    // Whose turn it is, and which target its address leads to; none is an error.
    output wire [INITIATORS-1:0] initiator,
    input  wire [TARGETS-1:0]    target,

    output wire [TARGETS-1:0]    m_cyc,
    output wire [TARGETS-1:0]    m_stb,
    input  wire [TARGETS-1:0]    m_ack,
    input  wire [TARGETS-1:0]    m_err
);
    wire [INITIATORS-1:0] requests = s_cyc & s_stb;
    wire is_requested = |(initiator & requests);
    wire is_nowhere = target == {TARGETS{1'b0}};
    wire is_acknowledged = is_requested && |(target & m_ack);
    wire is_failed = is_requested && (is_nowhere || |(target & m_err));

    polymetron_turns #(.INITIATORS(INITIATORS), .BY_PRIORITY(BY_PRIORITY)) turns (
        .clk(clk), .rst(rst), .requests(requests), .ends(is_acknowledged || is_failed), .chosen(initiator)
    );

    assign m_cyc = {TARGETS{is_requested}} & target;
    assign m_stb = {TARGETS{is_requested}} & target;
    assign s_ack = {INITIATORS{is_acknowledged}} & initiator;
    assign s_err = {INITIATORS{is_failed}} & initiator;
endmodule

`default_nettype wire
