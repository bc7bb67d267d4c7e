// The completer's end of APB (Arm IHI 0024): the access phase is one access. An access of n cycles takes n + 1 on the bus.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_apb_target #(
    parameter ADDRESS_BITS = 12,
    parameter DATA_BITS = 32
) (
    input  wire                    clk,
    input  wire                    rst,

    input  wire [ADDRESS_BITS-1:0] s_paddr,
    input  wire                    s_psel,
    input  wire                    s_penable,
    input  wire                    s_pwrite,
    input  wire [DATA_BITS-1:0]    s_pwdata,
    input  wire [DATA_BITS/8-1:0]  s_pstrb,
    output wire                    s_pready,
    output wire [DATA_BITS-1:0]    s_prdata,
    output wire                    s_pslverr,

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
    assign request = s_psel && s_penable;
    assign write = s_pwrite;
    assign address = s_paddr;
    assign value = s_pwdata;
    assign bytes = s_pwrite ? s_pstrb : {DATA_BITS / 8{1'b1}};
    assign s_pready = done;
    assign s_prdata = answer;
    assign s_pslverr = error;

    wire unused_clock = clk | rst;
endmodule

`default_nettype wire
