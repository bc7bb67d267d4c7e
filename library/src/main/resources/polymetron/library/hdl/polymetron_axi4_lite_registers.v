// The target end of an AXI4-Lite bus (Arm IHI 0022) in front of registers. A read is answered in the cycle after its address
// was taken, a write in the cycle after its address and its data were; either may come first. One read and one write at a
// time.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_axi4_lite_registers #(
    parameter ADDRESS_BITS = 12
) (
    input  wire                    clk,
    input  wire                    rst,

    input  wire [ADDRESS_BITS-1:0] s_awaddr,
    input  wire                    s_awvalid,
    output wire                    s_awready,
    input  wire [31:0]             s_wdata,
    input  wire [3:0]              s_wstrb,
    input  wire                    s_wvalid,
    output wire                    s_wready,
    output wire [1:0]              s_bresp,
    output reg                     s_bvalid,
    input  wire                    s_bready,
    input  wire [ADDRESS_BITS-1:0] s_araddr,
    input  wire                    s_arvalid,
    output wire                    s_arready,
    output reg  [31:0]             s_rdata,
    output wire [1:0]              s_rresp,
    output reg                     s_rvalid,
    input  wire                    s_rready,

    output wire                    read,
    output wire [ADDRESS_BITS-1:0] read_address,
    input  wire [31:0]             read_data,
    input  wire                    read_error,
    output wire                    write,
    output wire [ADDRESS_BITS-1:0] write_address,
    output wire [31:0]             write_data,
    output wire [3:0]              write_bytes,
    input  wire                    write_error
);
    reg read_failed;
    reg write_failed;

    assign s_arready = !s_rvalid || s_rready;
    assign read = s_arvalid && s_arready;
    assign read_address = s_araddr;
    assign s_rresp = {read_failed, 1'b0};

    assign write = s_awvalid && s_wvalid && (!s_bvalid || s_bready);
    assign s_awready = write;
    assign s_wready = write;
    assign write_address = s_awaddr;
    assign write_data = s_wdata;
    assign write_bytes = s_wstrb;
    assign s_bresp = {write_failed, 1'b0};

    always @(posedge clk) begin
        if (rst) begin
            s_rvalid <= 1'b0;
            s_rdata <= 32'd0;
            read_failed <= 1'b0;
            s_bvalid <= 1'b0;
            write_failed <= 1'b0;
        end
        else begin
            if (read) begin
                s_rvalid <= 1'b1;
                s_rdata <= read_data;
                read_failed <= read_error;
            end
            else if (s_rready) s_rvalid <= 1'b0;
            if (write) begin
                s_bvalid <= 1'b1;
                write_failed <= write_error;
            end
            else if (s_bready) s_bvalid <= 1'b0;
        end
    end
endmodule

`default_nettype wire
