// A read brings what was stored last, with and without announcements; an access takes two cycles, and one that was announced, with
// none of the other direction before it, one.
module proof (
    input clk, input request, input write, input [3:0] address, input [31:0] value, input [3:0] bytes, input more
);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire done, error, second_done, second_error;
    wire [31:0] answer, second_answer;
    polymetron_block_memory #(.ADDRESS_BITS(4), .WORDS(4), .BITS(32)) dut (
        .clk(clk), .rst(rst),
        .port_request(request), .port_write(write), .port_address(address), .port_value(value), .port_bytes(bytes),
        .port_more(more), .port_done(done), .port_answer(answer), .port_error(error),
        .second_request(1'b0), .second_write(1'b0), .second_address(4'd0), .second_value(32'd0), .second_bytes(4'd0),
        .second_more(1'b0), .second_done(second_done), .second_answer(second_answer), .second_error(second_error)
    );
    // One byte of the memory, as it was stored last.
    (* anyconst *) reg [1:0] word;
    (* anyconst *) reg [1:0] lane;
    reg [7:0] kept = 0;
    reg known = 0;
    reg held = 0, was_write = 0;
    reg [3:0] was_address = 0, was_bytes = 0;
    reg [31:0] was_value = 0;
    // By direction: the next access was announced, and where it goes.
    reg [1:0] announced = 0;
    reg [1:0] next_read = 0, next_write = 0;
    reg none_between = 0, last_way = 0;
    wire is_it = address[3:2] == word;
    always @(posedge clk) begin
        held <= !rst && request && !done; was_write <= write; was_address <= address; was_value <= value; was_bytes <= bytes;
        if (rst) assume (!request);
        else begin
            assume (!held || (request && write == was_write && address == was_address && value == was_value
                && bytes == was_bytes));
            assume (!request || !announced[write] || address[3:2] == (write ? next_write : next_read));
            if (request) begin
                if (held) assert (done);
                if (none_between && last_way == write) assert (done);
                assert (!error);
                if (done && !write && is_it && known) assert (answer[8*lane +: 8] == kept);
                cover (done && !write && is_it && known && !held);
                cover (done && write && !held);
                if (done && write && is_it && bytes[lane]) begin
                    kept <= value[8*lane +: 8];
                    known <= 1;
                end
            end
        end
        if (rst) begin
            announced <= 0; none_between <= 0;
        end
        else if (request && done) begin
            announced[write] <= more;
            none_between <= more; last_way <= write;
            if (write) next_write <= address[3:2] + 1; else next_read <= address[3:2] + 1;
        end
        else if (request) none_between <= 0;
    end
endmodule
