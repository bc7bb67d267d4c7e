// Copies eight words by a burst of reads and a burst of writes (AXI4), as people write it: both directions on their own.
module burst_copier (
    input wire aclk,
    input wire aresetn,
    input wire psel, input wire penable, input wire pwrite, input wire [7:0] paddr, input wire [31:0] pwdata,
    input wire [3:0] pstrb, output wire pready, output reg [31:0] prdata, output wire pslverr,
    output wire [31:0] m_axi_araddr, output wire [7:0] m_axi_arlen, output wire [2:0] m_axi_arsize,
    output wire [1:0] m_axi_arburst, output reg m_axi_arvalid, input wire m_axi_arready,
    input wire [31:0] m_axi_rdata, input wire [1:0] m_axi_rresp, input wire m_axi_rlast, input wire m_axi_rvalid,
    output wire m_axi_rready,
    output wire [31:0] m_axi_awaddr, output wire [7:0] m_axi_awlen, output wire [2:0] m_axi_awsize,
    output wire [1:0] m_axi_awburst, output reg m_axi_awvalid, input wire m_axi_awready,
    output wire [31:0] m_axi_wdata, output wire [3:0] m_axi_wstrb, output wire m_axi_wlast, output wire m_axi_wvalid,
    input wire m_axi_wready,
    input wire [1:0] m_axi_bresp, input wire m_axi_bvalid, output wire m_axi_bready
);
    reg [31:0] source, goal;
    reg [31:0] words [0:7];
    reg [3:0] taken, given;
    reg busy;
    reg [1:0] worst;
    assign pready = 1'b1;
    assign pslverr = 1'b0;
    assign m_axi_araddr = source;
    assign m_axi_arlen = 8'd7;
    assign m_axi_arsize = 3'd2;
    assign m_axi_arburst = 2'd1;
    assign m_axi_rready = 1'b1;
    assign m_axi_awaddr = goal;
    assign m_axi_awlen = 8'd7;
    assign m_axi_awsize = 3'd2;
    assign m_axi_awburst = 2'd1;
    // A word is handed on as soon as it is there.
    assign m_axi_wvalid = busy && given < taken;
    assign m_axi_wdata = ~words[given[2:0]];
    assign m_axi_wstrb = 4'hf;
    assign m_axi_wlast = given == 4'd7;
    assign m_axi_bready = 1'b1;
    always @*
        case (paddr[3:2])
            2'd0: prdata = source;
            2'd1: prdata = goal;
            default: prdata = {29'd0, worst, busy};
        endcase
    always @(posedge aclk)
        if (!aresetn) begin
            busy <= 0; m_axi_arvalid <= 0; m_axi_awvalid <= 0; worst <= 0; taken <= 0; given <= 0;
        end
        else begin
            if (psel && penable && pwrite && paddr[3:2] == 2'd0) source <= pwdata;
            if (psel && penable && pwrite && paddr[3:2] == 2'd1) goal <= pwdata;
            if (psel && penable && pwrite && paddr[3:2] == 2'd2) begin
                busy <= 1; m_axi_arvalid <= 1; m_axi_awvalid <= 1; taken <= 0; given <= 0; worst <= 0;
            end
            else begin
                if (m_axi_arready) m_axi_arvalid <= 0;
                if (m_axi_awready) m_axi_awvalid <= 0;
                if (m_axi_rvalid) begin
                    words[taken[2:0]] <= m_axi_rdata; taken <= taken + 1; worst <= worst | m_axi_rresp;
                end
                if (m_axi_wvalid && m_axi_wready) given <= given + 1;
                if (m_axi_bvalid) begin busy <= 0; worst <= worst | m_axi_bresp; end
            end
        end
endmodule
