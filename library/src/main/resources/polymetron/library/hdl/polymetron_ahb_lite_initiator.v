// The manager's end of AHB-Lite (Arm IHI 0033): one access goes out as an address phase and a data phase. A write of bytes that
// do not make one aligned transfer is split into the largest that do; nothing is read to be written back. One transfer is over
// before the next begins.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_ahb_lite_initiator #(
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

    output wire                    m_hsel,
    output wire [ADDRESS_BITS-1:0] m_haddr,
    output wire [1:0]              m_htrans,
    output wire                    m_hwrite,
    output wire [2:0]              m_hsize,
    output wire [2:0]              m_hburst,
    output wire [DATA_BITS-1:0]    m_hwdata,
    output wire                    m_hready,
    input  wire                    m_hreadyout,
    input  wire [DATA_BITS-1:0]    m_hrdata,
    input  wire                    m_hresp
);
    localparam LANES = DATA_BITS / 8;
    localparam LANE_BITS = $clog2(LANES);

    // Bytes that were written before, the transfer under way, and whether one before it failed.
    reg [LANES-1:0] written;
    reg transfers;
    reg [LANES-1:0] these;
    reg failed;

    wire [LANES-1:0] left = write ? bytes & ~written : {LANES{1'b1}} & ~written;
    wire is_over = left == {LANES{1'b0}};

    // The transfer that begins at the lowest byte that is left: as large as alignment and bytes allow.
    reg [LANES-1:0] part;
    reg [2:0] part_size;
    reg [LANE_BITS-1:0] part_lane;
    reg found;
    integer size;
    integer lane;
    reg [LANES-1:0] whole;
    always @* begin
        part = {LANES{1'b0}};
        part_size = 3'd0;
        part_lane = {LANE_BITS{1'b0}};
        found = 1'b0;
        whole = {LANES{1'b0}};
        for (lane = 0; lane < LANES; lane = lane + 1) begin
            if (!found && left[lane]) begin
                found = 1'b1;
                part_lane = lane[LANE_BITS-1:0];
                for (size = 0; size <= LANE_BITS; size = size + 1) begin
                    whole = ({LANES{1'b1}} >> (LANES - (1 << size))) << lane;
                    if (lane % (1 << size) == 0 && (left & whole) == whole) begin
                        part = whole;
                        part_size = size[2:0];
                    end
                end
            end
        end
    end

    assign m_hsel = 1'b1;
    assign m_haddr = {address[ADDRESS_BITS-1:LANE_BITS], part_lane};
    assign m_htrans = {request && !transfers && !is_over, 1'b0};
    assign m_hwrite = write;
    assign m_hsize = part_size;
    assign m_hburst = 3'd0;
    assign m_hwdata = value;
    assign m_hready = m_hreadyout;

    wire part_ends = transfers && m_hreadyout;
    wire is_last = (left & ~these) == {LANES{1'b0}};
    assign done = request && (part_ends ? is_last : !transfers && is_over);
    assign answer = m_hrdata;
    assign error = failed || (part_ends && m_hresp);

    always @(posedge clk) begin
        if (rst || done) begin
            written <= {LANES{1'b0}};
            transfers <= 1'b0;
            these <= {LANES{1'b0}};
            failed <= 1'b0;
        end
        else if (m_htrans[1] && m_hreadyout) begin
            transfers <= 1'b1;
            these <= part;
        end
        else if (part_ends) begin
            transfers <= 1'b0;
            written <= written | these;
            failed <= failed || m_hresp;
        end
    end

    wire unused_lane = |address[LANE_BITS-1:0];
endmodule

`default_nettype wire
