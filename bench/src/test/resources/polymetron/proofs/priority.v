// By priority, the lowest number that requests when the bus is free has its turn.
module proof (input clk, input [2:0] requests, input ends);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire [2:0] chosen;
    polymetron_turns #(.INITIATORS(3), .BY_PRIORITY(1)) turns (
        .clk(clk), .rst(rst), .requests(requests), .ends(ends), .chosen(chosen)
    );
    reg [2:0] requested = 3'd0;
    reg was_free = 1'b0;
    always @(posedge clk) begin
        requested <= requests;
        was_free <= chosen == 3'd0 && !rst && !ends;
        assume (!ends || chosen != 3'd0);
        if (rst) assume (requests == 3'd0 && !ends);
        if (was_free) assert (chosen == (requested & (~requested + 3'd1)));
        cover (was_free && chosen == 3'd4);
    end
endmodule
