// Words of random packets through a coder that is made to wait at random, beside what has to come out.
`timescale 1ns / 1ns
module step_coder_test;
    reg clk = 0;
    reg resetn = 0;
    reg [31:0] given = 0;
    reg [3:0] keep = 0;
    reg valid = 0;
    reg last = 0;
    reg taken = 0;
    wire ready;
    wire [31:0] data;
    wire [3:0] out_keep;
    wire out_valid;
    wire out_last;
    reg [31:0] previous = 0;
    integer words = 0;

    step_coder coder (
        .aclk(clk), .aresetn(resetn),
        .s_axis_tdata(given), .s_axis_tkeep(keep), .s_axis_tvalid(valid), .s_axis_tready(ready), .s_axis_tlast(last),
        .m_axis_tdata(data), .m_axis_tkeep(out_keep), .m_axis_tvalid(out_valid), .m_axis_tready(taken),
        .m_axis_tlast(out_last)
    );

    always #5 clk = !clk;

    always @(negedge clk) begin
        resetn <= words > 3;
        words <= words + 1;
        given <= $urandom;
        keep <= $urandom;
        valid <= $urandom;
        last <= $urandom_range(3) == 0;
        taken <= $urandom;
        if (words == 2000) $finish;
    end

    always @(posedge clk)
        if (resetn) begin
            if (ready !== taken || out_valid !== valid) $error("ready or valid is wrong");
            if (data !== given - previous) $error("%h instead of %h", data, given - previous);
            if (out_keep !== keep || out_last !== last) $error("a mark is wrong");
            if (valid && ready) previous <= last ? 0 : given;
        end
endmodule
