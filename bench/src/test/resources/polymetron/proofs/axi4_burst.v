// The address of beat n is what Arm IHI 0022, A3.4.1 says: FIXED the start address, INCR the aligned address and n sizes, WRAP the
// same, less the size of the burst from its upper boundary on.
module proof (
    input clk, input valid, input [7:0] id, input [7:0] addr, input [7:0] len, input [2:0] size, input [1:0] burst, input step
);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire taken, beat, last, goes_on;
    wire [7:0] address, beat_id;
    polymetron_axi4_burst #(.ADDRESS_BITS(8), .DATA_BITS(64)) dut (
        .clk(clk), .rst(rst), .valid(valid), .id(id), .addr(addr), .len(len), .size(size), .burst(burst), .taken(taken),
        .beat(beat), .address(address), .last(last), .goes_on(goes_on), .beat_id(beat_id), .step(step)
    );
    // The burst under way; where there is none, what is offered.
    reg going = 0, announced = 0;
    reg [4:0] was_word = 0;
    reg [7:0] n = 0, its_id = 0, its_addr = 0, its_len = 0;
    reg [2:0] its_size = 0;
    reg [1:0] its_burst = 0;
    wire [15:0] start = going ? its_addr : addr;
    wire [15:0] length = (going ? its_len : len) + 16'd1;
    wire [2:0] log = going ? its_size : size;
    wire [1:0] sort = going ? its_burst : burst;
    wire [15:0] bytes = 16'd1 << log;
    wire [15:0] total = bytes * length;
    wire [15:0] aligned = (start / bytes) * bytes;
    wire [15:0] lower = (start / total) * total;
    wire [15:0] straight = aligned + n * bytes;
    wire [15:0] wrapped = straight >= lower + total ? straight - total : straight;
    wire [15:0] expected = sort == 2'd0 ? start : n == 0 ? start : sort == 2'd2 ? wrapped : straight;
    always @(posedge clk) begin
        assume (size <= 3'd3 && burst != 2'd3 && len <= 8'd7);
        if (burst == 2'd2) begin
            assume (len == 8'd1 || len == 8'd3 || len == 8'd7);
            assume ((addr & ((8'd1 << size) - 8'd1)) == 8'd0);
        end
        // The burst ends within its block, here of 256 bytes.
        if (burst == 2'd1) assume ((({8'd0, addr} >> size) << size) + ((len + 16'd1) << size) <= 16'd256);
        assume (!step || beat);
        if (rst) assume (!valid && !step);
        else begin
            assert (beat == (going || valid));
            if (beat) begin
                assert (address == expected[7:0]);
                assert (last == (n + 16'd1 == length));
                assert (beat_id == (going ? its_id : id));
                // What is announced is the following word of 64 bits.
                assert (goes_on == (!last && sort == 2'd1 && log == 3'd3));
            end
            if (going && announced) assert (address[7:3] == was_word + 5'd1);
            assert (taken == (step && !going));
            cover (going && sort == 2'd2 && straight >= lower + total && last);
            cover (going && sort == 2'd1 && start != aligned && last);
        end
        if (rst) begin
            going <= 0; n <= 0;
        end
        else if (step) begin
            announced <= goes_on; was_word <= address[7:3];
            going <= !last; n <= last ? 0 : n + 1;
            if (!going) begin
                its_id <= id; its_addr <= addr; its_len <= len; its_size <= size; its_burst <= burst;
            end
        end
    end
endmodule
