// The initiator end of AXI4-Lite (Arm IHI 0022): one access goes out as a read or a write, and is done with its response.
// Address and data of a write go out together, and each is taken when the bus takes it.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_axi4_lite_initiator #(
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

    output wire [ADDRESS_BITS-1:0] m_awaddr,
    output wire                    m_awvalid,
    input  wire                    m_awready,
    output wire [DATA_BITS-1:0]    m_wdata,
    output wire [DATA_BITS/8-1:0]  m_wstrb,
    output wire                    m_wvalid,
    input  wire                    m_wready,
    input  wire [1:0]              m_bresp,
    input  wire                    m_bvalid,
    output wire                    m_bready,
    output wire [ADDRESS_BITS-1:0] m_araddr,
    output wire                    m_arvalid,
    input  wire                    m_arready,
    input  wire [DATA_BITS-1:0]    m_rdata,
    input  wire [1:0]              m_rresp,
    input  wire                    m_rvalid,
    output wire                    m_rready
);
    // What has been taken of the access that is under way.
    reg address_taken;
    reg data_taken;

    assign m_araddr = address;
    assign m_arvalid = request && !write && !address_taken;
    assign m_rready = request && !write && address_taken;
    assign m_awaddr = address;
    assign m_awvalid = request && write && !address_taken;
    assign m_wdata = value;
    assign m_wstrb = bytes;
    assign m_wvalid = request && write && !data_taken;
    assign m_bready = request && write && address_taken && data_taken;

    assign done = write ? m_bready && m_bvalid : m_rready && m_rvalid;
    assign answer = m_rdata;
    assign error = write ? m_bresp[1] : m_rresp[1];

    always @(posedge clk) begin
        if (rst || done) begin
            address_taken <= 1'b0;
            data_taken <= 1'b0;
        end
        else begin
            if ((m_arvalid && m_arready) || (m_awvalid && m_awready)) address_taken <= 1'b1;
            if (m_wvalid && m_wready) data_taken <= 1'b1;
        end
    end

    // EXOKAY and DECERR are no news beside OKAY and SLVERR.
    wire unused_responses = m_rresp[0] | m_bresp[0];
endmodule

`default_nettype wire
