// A wide access is one narrow access for each part that it touches, from the lowest on.
module proof (
    input clk, input request, input write, input [4:0] address, input [15:0] value, input [1:0] bytes,
    input narrow_done, input [7:0] narrow_answer, input narrow_error
);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire done, error, narrow_request, narrow_write;
    wire [15:0] answer;
    wire [4:0] narrow_address;
    wire [7:0] narrow_value;
    wire narrow_bytes;
    polymetron_narrow #(.ADDRESS_BITS(5), .WIDE(16), .NARROW(8)) dut (
        .clk(clk), .rst(rst), .request(request), .write(write), .address(address), .value(value), .bytes(bytes),
        .done(done), .answer(answer), .error(error), .narrow_request(narrow_request), .narrow_write(narrow_write),
        .narrow_address(narrow_address), .narrow_value(narrow_value), .narrow_bytes(narrow_bytes),
        .narrow_done(narrow_done), .narrow_answer(narrow_answer), .narrow_error(narrow_error)
    );
    reg held = 0, was_write = 0, narrow_held = 0, low_seen = 0, high_seen = 0, failed = 0;
    reg [4:0] was_address = 0, was_narrow = 0;
    reg [15:0] was_value = 0;
    reg [1:0] was_bytes = 0;
    reg [7:0] low = 0;
    wire low_done = narrow_request && narrow_done && !narrow_address[2];
    wire high_done = narrow_request && narrow_done && narrow_address[2];
    always @(posedge clk) begin
        held <= !rst && request && !done; was_write <= write; was_address <= address; was_value <= value; was_bytes <= bytes;
        narrow_held <= !rst && narrow_request && !narrow_done; was_narrow <= narrow_address;
        assume (!narrow_done || narrow_request);
        if (rst) assume (!request);
        else begin
            assume (!held || (request && write == was_write && address == was_address && value == was_value
                && bytes == was_bytes));
            if (narrow_held) assert (narrow_request && narrow_address == was_narrow);
            if (narrow_request) begin
                assert (request && narrow_write == write);
                assert (narrow_address[4:3] == address[4:3] && narrow_address[1:0] == 2'd0);
                assert (narrow_value == (narrow_address[2] ? value[15:8] : value[7:0]));
                if (write) assert (narrow_bytes == (narrow_address[2] ? bytes[1] : bytes[0]) && narrow_bytes);
                assert (!(narrow_address[2] ? high_seen : low_seen));
            end
            if (done) begin
                assert (request);
                assert (low_seen || low_done || (write && !bytes[0]));
                assert (high_seen || high_done || (write && !bytes[1]));
                assert (error == (failed || ((low_done || high_done) && narrow_error)));
                if (!write) assert (answer == {narrow_answer, low});
            end
            cover (done && write && bytes == 2'd0);
            cover (done && error && !write);
        end
        if (low_done) low <= narrow_answer;
        low_seen <= !rst && !done && (low_seen || low_done);
        high_seen <= !rst && !done && (high_seen || high_done);
        failed <= !rst && !done && (failed || ((low_done || high_done) && narrow_error));
    end
endmodule
