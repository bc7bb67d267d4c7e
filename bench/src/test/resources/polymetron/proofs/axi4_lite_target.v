// Each address is one access, which stays as it is until it is done, and each access one answer with what it gave.
module proof (
    input clk,
    input [3:0] s_awaddr, input s_awvalid, input [7:0] s_wdata, input s_wstrb, input s_wvalid, input s_bready,
    input [3:0] s_araddr, input s_arvalid, input s_rready,
    input done, input [7:0] answer, input error
);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire s_awready, s_wready, s_bvalid, s_arready, s_rvalid, request, write;
    wire [1:0] s_bresp, s_rresp;
    wire [7:0] s_rdata, value;
    wire [3:0] address;
    wire bytes;
    polymetron_axi4_lite_target #(.ADDRESS_BITS(4), .DATA_BITS(8)) dut (
        .clk(clk), .rst(rst),
        .s_awaddr(s_awaddr), .s_awvalid(s_awvalid), .s_awready(s_awready),
        .s_wdata(s_wdata), .s_wstrb(s_wstrb), .s_wvalid(s_wvalid), .s_wready(s_wready),
        .s_bresp(s_bresp), .s_bvalid(s_bvalid), .s_bready(s_bready),
        .s_araddr(s_araddr), .s_arvalid(s_arvalid), .s_arready(s_arready),
        .s_rdata(s_rdata), .s_rresp(s_rresp), .s_rvalid(s_rvalid), .s_rready(s_rready),
        .request(request), .write(write), .address(address), .value(value), .bytes(bytes),
        .done(done), .answer(answer), .error(error)
    );
    reg aw = 0, w = 0, ar = 0, rv = 0, bv = 0, held = 0, was_write = 0, failed = 0;
    reg [3:0] awaddr = 0, araddr = 0, was_address = 0;
    reg wstrb = 0;
    reg [7:0] wdata = 0, rdata = 0;
    reg [2:0] read_wait = 0, write_wait = 0;
    reg reads = 0, writes = 0;
    always @(posedge clk) begin
        aw <= s_awvalid && !s_awready; awaddr <= s_awaddr;
        w <= s_wvalid && !s_wready; wdata <= s_wdata; wstrb <= s_wstrb;
        ar <= s_arvalid && !s_arready; araddr <= s_araddr;
        rv <= !rst && s_rvalid && !s_rready; bv <= !rst && s_bvalid && !s_bready;
        held <= !rst && request && !done; was_write <= write; was_address <= address;
        assume (!done || request);
        if (rst) assume (!s_awvalid && !s_wvalid && !s_arvalid);
        else begin
            assume (!aw || (s_awvalid && s_awaddr == awaddr));
            assume (!w || (s_wvalid && s_wdata == wdata && s_wstrb == wstrb));
            assume (!ar || (s_arvalid && s_araddr == araddr));
            if (held) assert (request && write == was_write && address == was_address);
            if (request) assert (write ? s_awvalid && s_wvalid && address == s_awaddr && value == s_wdata && bytes == s_wstrb
                : s_arvalid && address == s_araddr);
            if (rv) assert (s_rvalid && s_rdata == rdata && s_rresp == {failed, 1'b0});
            if (bv) assert (s_bvalid);
            // None is lost: the next one comes when the last one is taken.
            if (s_rvalid && !s_rready) assert (!(request && !write));
            if (s_bvalid && !s_bready) assert (!(request && write));
            // An answer in the cycle behind each access, and no other.
            if (reads) assert (s_rvalid && s_rdata == rdata && s_rresp == {failed, 1'b0});
            if (!reads && !rv) assert (!s_rvalid);
            if (writes) assert (s_bvalid);
            if (!writes && !bv) assert (!s_bvalid);
            assert (s_arready == (request && done && !write));
            assert (s_awready == (request && done && write) && s_wready == s_awready);
            // A read waits for one write at most, and the other way round.
            assert (read_wait <= 3'd1 && write_wait <= 3'd1);
            cover (read_wait == 3'd1);
            cover (write_wait == 3'd1);
            cover (s_rvalid && s_rresp[1]);
        end
        reads <= !rst && request && done && !write;
        writes <= !rst && request && done && write;
        if (request && done && !write) begin
            rdata <= answer;
            failed <= error;
        end
        if (rst || !s_arvalid || s_arready || (s_rvalid && !s_rready)) read_wait <= 0;
        else if (s_awready) read_wait <= read_wait + 1;
        if (rst || !(s_awvalid && s_wvalid) || s_awready || (s_bvalid && !s_bready)) write_wait <= 0;
        else if (s_arready) write_wait <= write_wait + 1;
    end
endmodule
