// A typical module written by hand: registers on AXI4-Lite by hand, a reset that is active low, and lines.
module strobe_unit #(
    parameter integer LINES = 4, // strobes
    parameter C_ADDR = 4
) (
    input wire s_axi_aclk,
    input wire s_axi_aresetn,
    input wire [C_ADDR-1:0] s_axi_awaddr,
    input wire [2:0] s_axi_awprot,
    input wire s_axi_awvalid,
    output wire s_axi_awready,
    input wire [31:0] s_axi_wdata,
    input wire [3:0] s_axi_wstrb,
    input wire s_axi_wvalid,
    output wire s_axi_wready,
    output wire [1:0] s_axi_bresp,
    output reg s_axi_bvalid,
    input wire s_axi_bready,
    input wire [C_ADDR-1:0] s_axi_araddr,
    input wire [2:0] s_axi_arprot,
    input wire s_axi_arvalid,
    output wire s_axi_arready,
    output reg [31:0] s_axi_rdata,
    output wire [1:0] s_axi_rresp,
    output reg s_axi_rvalid,
    input wire s_axi_rready,
    output wire [LINES-1:0] strobes, // to the outside
    output wire unit_irq
);
    reg [31:0] level;
    reg [31:0] writes;
    wire does_write = s_axi_awvalid && s_axi_wvalid && !s_axi_bvalid;
    wire does_read = s_axi_arvalid && !s_axi_rvalid;
    assign s_axi_awready = does_write;
    assign s_axi_wready = does_write;
    assign s_axi_arready = does_read;
    assign s_axi_bresp = 2'b00;
    assign s_axi_rresp = 2'b00;
    assign strobes = level[LINES-1:0];
    assign unit_irq = writes == 32'd5;

    integer lane;
    always @(posedge s_axi_aclk) begin
        if (!s_axi_aresetn) begin
            level <= 32'd0;
            writes <= 32'd0;
            s_axi_bvalid <= 1'b0;
            s_axi_rvalid <= 1'b0;
            s_axi_rdata <= 32'd0;
        end
        else begin
            if (does_write) begin
                s_axi_bvalid <= 1'b1;
                writes <= writes + 32'd1;
                if (s_axi_awaddr[3:2] == 2'd0) begin
                    for (lane = 0; lane < 4; lane = lane + 1) begin
                        if (s_axi_wstrb[lane]) level[8*lane +: 8] <= s_axi_wdata[8*lane +: 8];
                    end
                end
            end
            else if (s_axi_bready) s_axi_bvalid <= 1'b0;
            if (does_read) begin
                s_axi_rvalid <= 1'b1;
                s_axi_rdata <= s_axi_araddr[3:2] == 2'd0 ? level : writes;
            end
            else if (s_axi_rready) s_axi_rvalid <= 1'b0;
        end
    end
endmodule
