// The SLAVE interface of Wishbone B4, classic cycle (3.2): a cycle goes on as one access, which ends with ACK or ERR in the same
// cycle. A read is of the whole word, whatever SEL says.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_wishbone_b4_target #(
    parameter ADDRESS_BITS = 12,
    parameter DATA_BITS = 32
) (
    input  wire                    clk,
    input  wire                    rst,

    input  wire                    s_cyc,
    input  wire                    s_stb,
    input  wire                    s_we,
    input  wire [ADDRESS_BITS-1:0] s_adr,
    input  wire [DATA_BITS/8-1:0]  s_sel,
    input  wire [DATA_BITS-1:0]    s_dat_w,
    output wire                    s_ack,
    output wire                    s_err,
    output wire [DATA_BITS-1:0]    s_dat_r,

    // One access: everything stays as it is from the request until it is done.
    output wire                    request,
    output wire                    write,
    output wire [ADDRESS_BITS-1:0] address,
    output wire [DATA_BITS-1:0]    value,
    output wire [DATA_BITS/8-1:0]  bytes,
    input  wire                    done,
    input  wire [DATA_BITS-1:0]    answer,
    input  wire                    error
);
    assign request = s_cyc && s_stb;
    assign write = s_we;
    assign address = s_adr;
    assign value = s_dat_w;
    assign bytes = write ? s_sel : {DATA_BITS / 8{1'b1}};
    assign s_ack = request && done && !error;
    assign s_err = request && done && error;
    assign s_dat_r = answer;

    wire unused_clock = clk | rst;
endmodule

`default_nettype wire
