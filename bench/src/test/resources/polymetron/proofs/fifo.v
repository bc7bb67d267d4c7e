// Every word comes out in its turn and unchanged, whatever is pushed and popped.
module proof (input clk, input push, input [1:0] in, input pop, input mark);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire [1:0] out;
    wire [1:0] count;
    polymetron_fifo #(.BITS(2), .DEPTH_BITS(1)) fifo (
        .clk(clk), .rst(rst), .push(push), .in(in), .pop(pop), .out(out), .count(count)
    );
    // One word of all, and how many are before it.
    reg marked = 1'b0;
    reg [1:0] before = 2'd0;
    reg [1:0] word = 2'd0;
    reg was_full = 1'b0;
    wire pushes = push && count != 2'd2;
    wire pops = pop && count != 2'd0;
    always @(posedge clk) if (!rst) begin
        if (!marked && mark && pushes) begin
            marked <= 1'b1;
            word <= in;
            before <= count - {1'b0, pops};
        end
        else if (marked && pops) begin
            if (before == 2'd0) marked <= 1'b0;
            else before <= before - 2'd1;
        end
        if (count == 2'd2) was_full <= 1'b1;
        assert (count <= 2'd2);
        if (marked) assert (before < count);
        if (marked && before == 2'd0) assert (out == word);
        cover (count == 2'd2);
        cover (was_full && count == 2'd0);
    end
endmodule
