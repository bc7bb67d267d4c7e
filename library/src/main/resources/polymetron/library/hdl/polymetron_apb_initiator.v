// The requester's end of APB (Arm IHI 0024): one access goes out as a setup phase of one cycle and an access phase.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_apb_initiator #(
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

    output wire [ADDRESS_BITS-1:0] m_paddr,
    output wire                    m_psel,
    output reg                     m_penable,
    output wire                    m_pwrite,
    output wire [DATA_BITS-1:0]    m_pwdata,
    output wire [DATA_BITS/8-1:0]  m_pstrb,
    input  wire                    m_pready,
    input  wire [DATA_BITS-1:0]    m_prdata,
    input  wire                    m_pslverr
);
    assign m_psel = request;
    assign m_paddr = address;
    assign m_pwrite = write;
    assign m_pwdata = value;
    // No strobe during reads (IHI 0024, 3.4).
    assign m_pstrb = write ? bytes : {DATA_BITS / 8{1'b0}};
    assign done = request && m_penable && m_pready;
    assign answer = m_prdata;
    assign error = m_pslverr;

    always @(posedge clk) begin
        if (rst) m_penable <= 1'b0;
        else m_penable <= request && !done;
    end
endmodule

`default_nettype wire
