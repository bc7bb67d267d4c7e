// The MASTER interface of Wishbone B4, classic cycle (3.2): one access goes out as one cycle, and is done with ACK or ERR, which may
// come in the cycle of the request. Addresses are of bytes; SEL says which of the word are meant.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_wishbone_b4_initiator #(
    parameter ADDRESS_BITS = 12,
    parameter DATA_BITS = 32
) (
    input  wire                    clk,
    input  wire                    rst,

    // One access: everything stays as it is from the request until it is done.
    input  wire                    request,
    input  wire                    write,
    input  wire [ADDRESS_BITS-1:0] address,
    input  wire [DATA_BITS-1:0]    value,
    input  wire [DATA_BITS/8-1:0]  bytes,
    output wire                    done,
    output wire [DATA_BITS-1:0]    answer,
    output wire                    error,

    output wire                    m_cyc,
    output wire                    m_stb,
    output wire                    m_we,
    output wire [ADDRESS_BITS-1:0] m_adr,
    output wire [DATA_BITS/8-1:0]  m_sel,
    output wire [DATA_BITS-1:0]    m_dat_w,
    input  wire                    m_ack,
    input  wire                    m_err,
    input  wire [DATA_BITS-1:0]    m_dat_r
);
    assign m_cyc = request;
    assign m_stb = request;
    assign m_we = write;
    assign m_adr = address;
    assign m_sel = bytes;
    assign m_dat_w = value;
    assign done = request && (m_ack || m_err);
    assign answer = m_dat_r;
    assign error = m_err;

    wire unused_clock = clk | rst;
endmodule

`default_nettype wire
