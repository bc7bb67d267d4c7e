// Of three that request, one has its turn at a time, and none waits for more than two others.
module proof (input clk, input [2:0] requests, input ends);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire [2:0] chosen;
    polymetron_turns #(.INITIATORS(3), .BY_PRIORITY(0)) turns (
        .clk(clk), .rst(rst), .requests(requests), .ends(ends), .chosen(chosen)
    );
    reg [2:0] requested = 3'd0;
    reg [2:0] had = 3'd0;
    reg [1:0] passed = 2'd0;
    reg ended = 1'b0;
    always @(posedge clk) begin
        requested <= requests & ~(ends ? chosen : 3'd0);
        had <= rst || ends ? 3'd0 : chosen;
        ended <= ends;
        // A request stays until its access ends, which it does only while it has its turn.
        assume (rst || (requested & ~requests) == 3'd0);
        assume (!ends || chosen != 3'd0);
        if (rst) assume (requests == 3'd0 && !ends);
        // Others that had a turn while the last one waits.
        if (rst || !requests[2] || chosen[2]) passed <= 2'd0;
        else if (ends) passed <= passed + 2'd1;
        if (!rst) begin
            assert (chosen == 3'd0 || chosen == 3'd1 || chosen == 3'd2 || chosen == 3'd4);
            assert ((chosen & ~requests) == 3'd0);
            assert ((had & ~chosen) == 3'd0);
            assert (passed <= 2'd2);
            cover (passed == 2'd2);
        end
    end
endmodule
