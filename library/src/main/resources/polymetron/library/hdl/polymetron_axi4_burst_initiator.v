// The initiator end of AXI4 (Arm IHI 0022) for accesses that say how many others follow them at ascending addresses: they
// go out as one burst. A read is done with its beat. A write is done when its data is taken, and the last one of a burst
// with the response, which is that of all of them.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_axi4_burst_initiator #(
    parameter ADDRESS_BITS = 12,
    parameter DATA_BITS = 32
) (
    input  wire                    clk,
    input  wire                    rst,

    // One access: everything stays as it is from the request until it is done. Of a burst each access has to be requested,
    // but not at once; what is behind the first one's address, direction and number does not count.
    input  wire                    request,
    input  wire                    write,
    input  wire [ADDRESS_BITS-1:0] address,
    input  wire [DATA_BITS-1:0]    value,
    input  wire [DATA_BITS/8-1:0]  bytes,
    input  wire [7:0]              more,
    output wire                    done,
    output wire [DATA_BITS-1:0]    answer,
    output wire                    error,

    output wire [7:0]              m_awid,
    output wire [ADDRESS_BITS-1:0] m_awaddr,
    output wire [7:0]              m_awlen,
    output wire [2:0]              m_awsize,
    output wire [1:0]              m_awburst,
    output wire                    m_awvalid,
    input  wire                    m_awready,
    output wire [DATA_BITS-1:0]    m_wdata,
    output wire [DATA_BITS/8-1:0]  m_wstrb,
    output wire                    m_wlast,
    output wire                    m_wvalid,
    input  wire                    m_wready,
    input  wire [7:0]              m_bid,
    input  wire [1:0]              m_bresp,
    input  wire                    m_bvalid,
    output wire                    m_bready,
    output wire [7:0]              m_arid,
    output wire [ADDRESS_BITS-1:0] m_araddr,
    output wire [7:0]              m_arlen,
    output wire [2:0]              m_arsize,
    output wire [1:0]              m_arburst,
    output wire                    m_arvalid,
    input  wire                    m_arready,
    input  wire [7:0]              m_rid,
    input  wire [DATA_BITS-1:0]    m_rdata,
    input  wire [1:0]              m_rresp,
    input  wire                    m_rlast,
    input  wire                    m_rvalid,
    output wire                    m_rready
);
    localparam [31:0] SIZE = $clog2(DATA_BITS / 8);
    localparam [1:0] INCR = 2'b01;

    // Of the burst: its address was taken, and how many beats follow this one. Of the beat: its data was taken.
    reg address_taken;
    reg data_taken;
    reg going;
    reg [7:0] left;

    wire last = (going ? left : more) == 8'd0;
    wire address_is_taken = address_taken || (m_awvalid && m_awready);
    wire data_is_taken = data_taken || (m_wvalid && m_wready);

    assign m_arid = 8'd0;
    assign m_araddr = address;
    assign m_arlen = more;
    assign m_arsize = SIZE[2:0];
    assign m_arburst = INCR;
    assign m_arvalid = request && !write && !address_taken;
    assign m_rready = request && !write && address_taken;

    assign m_awid = 8'd0;
    assign m_awaddr = address;
    assign m_awlen = more;
    assign m_awsize = SIZE[2:0];
    assign m_awburst = INCR;
    assign m_awvalid = request && write && !address_taken;
    assign m_wdata = value;
    assign m_wstrb = bytes;
    assign m_wlast = last;
    assign m_wvalid = request && write && !data_taken;
    assign m_bready = request && write && last && address_taken && data_taken;

    wire write_done = last ? m_bready && m_bvalid : request && write && address_is_taken && data_is_taken;
    assign done = write ? write_done : m_rready && m_rvalid;
    assign answer = m_rdata;
    assign error = write ? last && m_bresp[1] : m_rresp[1];

    always @(posedge clk) begin
        if (rst) begin
            address_taken <= 1'b0;
            data_taken <= 1'b0;
            going <= 1'b0;
            left <= 8'd0;
        end
        else if (done) begin
            address_taken <= !last;
            data_taken <= 1'b0;
            going <= !last;
            left <= (going ? left : more) - 8'd1;
        end
        else begin
            if ((m_arvalid && m_arready) || (m_awvalid && m_awready)) address_taken <= 1'b1;
            if (m_wvalid && m_wready) data_taken <= 1'b1;
        end
    end

    // One burst at a time: whose answer it is and which beat is known. EXOKAY and DECERR are no news beside OKAY and SLVERR.
    wire unused_answers = (|m_bid) | (|m_rid) | m_rlast | m_rresp[0] | m_bresp[0] | (|SIZE[31:3]);
endmodule

`default_nettype wire
