// Two clocks of any relation: every access arrives once and as it is, is done with what the far side gave, and the far side has
// nothing that was not requested.
module proof (
    input near_clk, input far_clk,
    input next_request, input next_write, input [1:0] next_address, input [7:0] next_value, input far_done, input [7:0] far_answer, input far_error
);
    // It begins behind the resets.
    wire near_rst = 1'b0;
    wire far_rst = 1'b0;
    // What is requested changes with the near clock, and stays until it is done.
    reg request = 1'b0;
    reg write = 1'b0;
    reg [1:0] address = 2'd0;
    reg [7:0] value = 8'd0;
    always @(posedge near_clk) if (!request || done) begin
        request <= next_request;
        write <= next_write;
        address <= next_address;
        value <= next_value;
    end
    wire done, error, far_request, far_write, far_bytes;
    wire [7:0] answer, far_value;
    wire [1:0] far_address;
    polymetron_crossing #(.ADDRESS_BITS(2), .DATA_BITS(8)) dut (
        .near_clk(near_clk), .near_rst(near_rst), .request(request), .write(write), .address(address), .value(value),
        .bytes(1'b1), .done(done), .answer(answer), .error(error),
        .far_clk(far_clk), .far_rst(far_rst), .far_request(far_request), .far_write(far_write),
        .far_address(far_address), .far_value(far_value), .far_bytes(far_bytes),
        .far_done(far_done), .far_answer(far_answer), .far_error(far_error)
    );
    // Accesses that began on the near side and ended on either, each counted in its own clock.
    reg [2:0] near_ends = 0, far_ends = 0;
    reg [7:0] given = 0;
    reg given_error = 0;
    always @(posedge near_clk) begin
        if (!near_rst && done) begin
            near_ends <= near_ends + 3'd1;
            assert (request);
            // The far side has ended this one, and no other after it.
            assert (far_ends == near_ends + 3'd1);
            assert (answer == given && error == given_error);
            cover (near_ends == 3'd1 && error);
        end
    end
    always @(posedge far_clk) begin
        assume (!far_done || far_request);
        if (!far_rst && far_request) begin
            assert (request && far_write == write && far_address == address && far_value == value);
            assert (far_ends == near_ends);
            if (far_done) begin
                far_ends <= far_ends + 3'd1;
                given <= far_answer;
                given_error <= far_error;
            end
        end
    end
endmodule
