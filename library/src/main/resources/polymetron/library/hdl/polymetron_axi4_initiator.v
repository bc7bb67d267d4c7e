// The initiator end of AXI4 (Arm IHI 0022): one access goes out as a burst of one beat, and is done with its response.
// Address and data of a write go out together, and each is taken when the bus takes it.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_axi4_initiator #(
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
    // One beat of the whole width, in ascending order.
    localparam [31:0] SIZE = $clog2(DATA_BITS / 8);
    localparam [1:0] INCR = 2'b01;

    assign m_awid = 8'd0;
    assign m_awlen = 8'd0;
    assign m_awsize = SIZE[2:0];
    assign m_awburst = INCR;
    assign m_wlast = 1'b1;
    assign m_arid = 8'd0;
    assign m_arlen = 8'd0;
    assign m_arsize = SIZE[2:0];
    assign m_arburst = INCR;

    polymetron_axi4_lite_initiator #(.ADDRESS_BITS(ADDRESS_BITS), .DATA_BITS(DATA_BITS)) channels (
        .clk(clk), .rst(rst),
        .request(request), .write(write), .address(address), .value(value), .bytes(bytes),
        .done(done), .answer(answer), .error(error),
        .m_awaddr(m_awaddr), .m_awvalid(m_awvalid), .m_awready(m_awready),
        .m_wdata(m_wdata), .m_wstrb(m_wstrb), .m_wvalid(m_wvalid), .m_wready(m_wready),
        .m_bresp(m_bresp), .m_bvalid(m_bvalid), .m_bready(m_bready),
        .m_araddr(m_araddr), .m_arvalid(m_arvalid), .m_arready(m_arready),
        .m_rdata(m_rdata), .m_rresp(m_rresp), .m_rvalid(m_rvalid), .m_rready(m_rready)
    );

    // One at a time: whose answer it is and that it is the last beat is known.
    wire unused_ids = |m_bid | |m_rid | m_rlast | |SIZE[31:3];
endmodule

`default_nettype wire
