// Memory of 32-bit words with byte enables at an AXI4-Lite bus (Arm IHI 0022). A read is answered two cycles after its
// address was taken: one for the memory, one for the register behind it. A memory that software cannot write answers
// stores with an error.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_block_memory #(
    parameter ADDRESS_BITS = 14,
    parameter WORDS = 4096,
    parameter WRITABLE = 1,
    // A file for $readmemh with all words; none leaves them as the device does.
    parameter CONTENTS = ""
) (
    input  wire                    clk,
    input  wire                    rst,

    input  wire [ADDRESS_BITS-1:0] port_awaddr,
    input  wire                    port_awvalid,
    output wire                    port_awready,
    input  wire [31:0]             port_wdata,
    input  wire [3:0]              port_wstrb,
    input  wire                    port_wvalid,
    output wire                    port_wready,
    output wire [1:0]              port_bresp,
    output reg                     port_bvalid,
    input  wire                    port_bready,
    input  wire [ADDRESS_BITS-1:0] port_araddr,
    input  wire                    port_arvalid,
    output wire                    port_arready,
    output reg  [31:0]             port_rdata,
    output wire [1:0]              port_rresp,
    output reg                     port_rvalid,
    input  wire                    port_rready
);
    reg [31:0] words [0:WORDS-1];

    initial begin
        if (CONTENTS != "") $readmemh(CONTENTS, words);
    end

    reg reading;
    reg [31:0] word;
    wire read = port_arvalid && port_arready;
    wire write = port_awvalid && port_wvalid && (!port_bvalid || port_bready);
    wire [3:0] bytes = write && WRITABLE != 0 ? port_wstrb : 4'd0;

    assign port_arready = !reading && (!port_rvalid || port_rready);
    assign port_rresp = 2'b00;
    assign port_awready = write;
    assign port_wready = write;
    assign port_bresp = WRITABLE != 0 ? 2'b00 : 2'b10;

`ifdef VERILATOR
    wire unused_addresses = (|port_awaddr[1:0]) | (|port_araddr[1:0]);
`endif

    always @(posedge clk) begin
        if (bytes[0]) words[port_awaddr[ADDRESS_BITS-1:2]][7:0] <= port_wdata[7:0];
        if (bytes[1]) words[port_awaddr[ADDRESS_BITS-1:2]][15:8] <= port_wdata[15:8];
        if (bytes[2]) words[port_awaddr[ADDRESS_BITS-1:2]][23:16] <= port_wdata[23:16];
        if (bytes[3]) words[port_awaddr[ADDRESS_BITS-1:2]][31:24] <= port_wdata[31:24];
        if (read) word <= words[port_araddr[ADDRESS_BITS-1:2]];
    end

    always @(posedge clk) begin
        if (reading) port_rdata <= word;
    end

    always @(posedge clk) begin
        if (rst) begin
            reading <= 1'b0;
            port_rvalid <= 1'b0;
            port_bvalid <= 1'b0;
        end
        else begin
            reading <= read;
            if (reading) port_rvalid <= 1'b1;
            else if (port_rready) port_rvalid <= 1'b0;
            if (write) port_bvalid <= 1'b1;
            else if (port_bready) port_bvalid <= 1'b0;
        end
    end
endmodule

`default_nettype wire
