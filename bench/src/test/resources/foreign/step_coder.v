// A stream block without registers, as people write them: a word gives its difference from the one before it in its packet, in the
// cycle in which it comes, so that ready and valid go straight through.
module step_coder #(
    parameter WIDTH = 32
) (
    input wire aclk,
    input wire aresetn,
    input wire [WIDTH-1:0] s_axis_tdata,
    input wire [WIDTH/8-1:0] s_axis_tkeep,
    input wire s_axis_tvalid,
    output wire s_axis_tready,
    input wire s_axis_tlast,
    output wire [WIDTH-1:0] m_axis_tdata,
    output wire [WIDTH/8-1:0] m_axis_tkeep,
    output wire m_axis_tvalid,
    input wire m_axis_tready,
    output wire m_axis_tlast
);
    reg [WIDTH-1:0] previous;
    assign m_axis_tdata = s_axis_tdata - previous;
    assign m_axis_tkeep = s_axis_tkeep;
    assign m_axis_tvalid = s_axis_tvalid;
    assign m_axis_tlast = s_axis_tlast;
    assign s_axis_tready = m_axis_tready;
    always @(posedge aclk)
        if (!aresetn) previous <= 0;
        else if (s_axis_tvalid && s_axis_tready) previous <= s_axis_tlast ? 0 : s_axis_tdata;
endmodule
