// SystemVerilog, APB: constants of a package, packed dimensions.
package latch_box_sizes;
    localparam int unsigned GROUPS = 2;
    localparam int unsigned EACH = 2;
endpackage

module latch_box import latch_box_sizes::*; (
    input  logic        pclk,
    input  logic        presetn,
    input  logic [11:0] paddr,
    input  logic        psel,
    input  logic        penable,
    input  logic        pwrite,
    input  logic [31:0] pwdata,
    output logic [31:0] prdata,
    output logic [GROUPS-1:0][EACH-1:0] kept
);
    logic [31:0] word;
    assign prdata = paddr[2] ? 32'hCAFE_0001 : word;
    assign kept = word[3:0];
    always_ff @(posedge pclk or negedge presetn) begin
        if (!presetn) word <= '0;
        else if (psel && penable && pwrite && !paddr[2]) word <= pwdata;
    end
endmodule
