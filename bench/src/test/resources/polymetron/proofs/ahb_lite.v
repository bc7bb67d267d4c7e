// Manager's end, bus and subordinate's end of AHB-Lite (Arm IHI 0033): every byte of a write arrives once, in aligned transfers of
// 1, 2 or 4 bytes, a read is one transfer, and an error has two cycles (5.1.3). Where there is no target the bus answers so itself.
module proof (
    input clk, input request, input write, input [4:0] address, input [31:0] value, input [3:0] bytes,
    input far_done, input [31:0] far_answer, input far_error
);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire done, error, hsel, hwrite, hready, hreadyout, hresp, far_request, far_write, far_hsel, far_hready, far_hreadyout, far_hresp;
    wire [31:0] answer, hwdata, hrdata, far_value;
    wire [4:0] haddr;
    wire [3:0] far_address, far_bytes;
    wire [1:0] htrans;
    wire [2:0] hsize, hburst;
    wire answers;
    // The upper half of the addresses leads nowhere.
    wire target = !haddr[4];
    polymetron_ahb_lite_initiator #(.ADDRESS_BITS(5), .DATA_BITS(32)) near (
        .clk(clk), .rst(rst), .request(request), .write(write), .address(address), .value(value), .bytes(bytes),
        .done(done), .answer(answer), .error(error), .m_hsel(hsel), .m_haddr(haddr), .m_htrans(htrans), .m_hwrite(hwrite),
        .m_hsize(hsize), .m_hburst(hburst), .m_hwdata(hwdata), .m_hready(hready), .m_hreadyout(hreadyout),
        .m_hrdata(hrdata), .m_hresp(hresp)
    );
    polymetron_ahb_lite_bus #(.TARGETS(1)) bus (
        .clk(clk), .rst(rst), .s_htrans(htrans), .s_hreadyout(hreadyout), .s_hresp(hresp), .target(target), .answers(answers),
        .m_hsel(far_hsel), .m_hready(far_hready), .m_hreadyout(far_hreadyout), .m_hresp(far_hresp)
    );
    polymetron_ahb_lite_target #(.ADDRESS_BITS(4), .DATA_BITS(32)) far (
        .clk(clk), .rst(rst), .s_hsel(far_hsel), .s_haddr(haddr[3:0]), .s_htrans(htrans), .s_hwrite(hwrite), .s_hsize(hsize),
        .s_hburst(hburst), .s_hwdata(hwdata), .s_hready(far_hready), .s_hreadyout(far_hreadyout), .s_hrdata(hrdata),
        .s_hresp(far_hresp), .request(far_request), .write(far_write), .address(far_address), .value(far_value),
        .bytes(far_bytes), .done(far_done), .answer(far_answer), .error(far_error)
    );
    reg held = 0, was_write = 0, failed = 0, was_resp = 0, was_ready = 1, was_read = 0;
    reg [4:0] was_address = 0;
    reg [3:0] was_bytes = 0, arrived = 0;
    reg [31:0] was_value = 0;
    reg far_held = 0;
    reg [3:0] far_was = 0, far_lanes = 0;
    wire far_ends = far_request && far_done;
    always @(posedge clk) begin
        held <= request && !done; was_write <= write; was_address <= address; was_value <= value; was_bytes <= bytes;
        was_resp <= hresp && !rst; was_ready <= hreadyout;
        far_held <= far_request && !far_done && !rst; far_was <= far_address; far_lanes <= far_bytes;
        assume (!far_done || far_request);
        if (rst) assume (!request);
        else begin
            assume (!held || (request && write == was_write && address == was_address && value == was_value
                && bytes == was_bytes));
            if (htrans[1]) begin
                assert (hsize <= 3'd2);
                assert ((haddr & ((5'd1 << hsize) - 5'd1)) == 5'd0);
                assert (haddr[4:2] == address[4:2] && hwrite == write);
            end
            if (hresp && hreadyout) assert (was_resp && !was_ready);
            if (far_held) assert (far_request && far_address == far_was && far_bytes == far_lanes);
            if (far_request) assert (request && !address[4] && far_write == write && far_address[3:2] == address[3:2]);
            if (far_request && write) begin
                assert (far_value == value);
                assert ((far_bytes & ~bytes) == 4'd0 && (far_bytes & arrived) == 4'd0 && far_bytes != 4'd0);
            end
            if (done && write && !address[4]) assert ((arrived | (far_ends ? far_bytes : 4'd0)) == bytes);
            if (done && !write && !address[4]) assert (was_read || far_ends);
            if (done && !write && far_ends) assert (answer == far_answer);
            if (done && !address[4]) assert (error == (failed || (far_ends && far_error)));
            if (done && address[4] && (!write || bytes != 4'd0)) assert (error);
            if (far_ends && !write) assert (!was_read);
            cover (done && write && bytes == 4'b1101 && !error);
            cover (done && !write && !error);
            cover (done && error && !address[4]);
            cover (done && error && address[4]);
        end
        if (rst || done) begin
            arrived <= 0; failed <= 0; was_read <= 0;
        end
        else if (far_ends) begin
            arrived <= arrived | far_bytes;
            failed <= failed || far_error;
            was_read <= !write;
        end
    end
endmodule
