// A burst is as many accesses as it has beats, each with an answer of its own for a read, and one answer for a write, with an
// error when any beat had one; IDs come back, and RLAST is at the last beat.
module proof (
    input clk,
    input [7:0] s_awid, input [3:0] s_awaddr, input [7:0] s_awlen, input s_awvalid, input [7:0] s_wdata, input s_wstrb,
    input s_wvalid, input s_bready,
    input [7:0] s_arid, input [3:0] s_araddr, input [7:0] s_arlen, input s_arvalid, input s_rready,
    input done, input [7:0] answer, input error
);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire s_awready, s_wready, s_bvalid, s_arready, s_rvalid, s_rlast, request, write, bytes;
    wire [1:0] s_bresp, s_rresp;
    wire [7:0] s_bid, s_rid, s_rdata, value;
    wire [3:0] address;
    polymetron_axi4_target #(.ADDRESS_BITS(4), .DATA_BITS(8)) dut (
        .clk(clk), .rst(rst),
        .s_awid(s_awid), .s_awaddr(s_awaddr), .s_awlen(s_awlen), .s_awsize(3'd0), .s_awburst(2'd1),
        .s_awvalid(s_awvalid), .s_awready(s_awready),
        .s_wdata(s_wdata), .s_wstrb(s_wstrb), .s_wlast(1'b0), .s_wvalid(s_wvalid), .s_wready(s_wready),
        .s_bid(s_bid), .s_bresp(s_bresp), .s_bvalid(s_bvalid), .s_bready(s_bready),
        .s_arid(s_arid), .s_araddr(s_araddr), .s_arlen(s_arlen), .s_arsize(3'd0), .s_arburst(2'd1),
        .s_arvalid(s_arvalid), .s_arready(s_arready),
        .s_rid(s_rid), .s_rdata(s_rdata), .s_rresp(s_rresp), .s_rlast(s_rlast), .s_rvalid(s_rvalid), .s_rready(s_rready),
        .request(request), .write(write), .address(address), .value(value), .bytes(bytes),
        .done(done), .answer(answer), .error(error)
    );
    reg aw = 0, w = 0, ar = 0, held = 0, was_write = 0, rv = 0, bv = 0;
    reg [7:0] awid = 0, arid = 0, awlen = 0, arlen = 0, wdata = 0;
    reg [3:0] awaddr = 0, araddr = 0, was_address = 0;
    // Beats that are left of what was begun, and of answers.
    reg [3:0] writes_left = 0, reads_left = 0, answers_left = 0;
    reg [7:0] read_id = 0, write_id = 0;
    reg any_failed = 0, owed = 0, owed_error = 0;
    wire read_ends = request && done && !write;
    wire write_ends = request && done && write;
    wire last_write = s_awready ? s_awlen == 0 : writes_left == 1;
    always @(posedge clk) begin
        aw <= s_awvalid && !s_awready; awid <= s_awid; awaddr <= s_awaddr; awlen <= s_awlen;
        ar <= s_arvalid && !s_arready; arid <= s_arid; araddr <= s_araddr; arlen <= s_arlen;
        w <= s_wvalid && !s_wready; wdata <= s_wdata;
        held <= !rst && request && !done; was_write <= write; was_address <= address;
        rv <= !rst && s_rvalid && !s_rready; bv <= !rst && s_bvalid && !s_bready;
        assume (!done || request);
        assume (s_awlen <= 8'd3 && s_arlen <= 8'd3);
        if (rst) assume (!s_awvalid && !s_wvalid && !s_arvalid);
        else begin
            assume (!aw || (s_awvalid && s_awid == awid && s_awaddr == awaddr && s_awlen == awlen));
            assume (!ar || (s_arvalid && s_arid == arid && s_araddr == araddr && s_arlen == arlen));
            assume (!w || (s_wvalid && s_wdata == wdata));
            if (held) assert (request && write == was_write && address == was_address);
            if (request && write) assert (s_wvalid && value == s_wdata && (writes_left != 0 || s_awvalid));
            if (request && !write) assert (reads_left != 0 || s_arvalid);
            assert (s_wready == write_ends);
            assert (s_awready == (write_ends && writes_left == 0));
            assert (s_arready == (read_ends && reads_left == 0));
            if (rv) assert (s_rvalid);
            if (bv) assert (s_bvalid);
            // Answers are those that are owed.
            if (s_rvalid) assert (answers_left != 0 && s_rid == read_id && s_rlast == (answers_left == 1));
            assert (s_bvalid == owed);
            if (s_bvalid) assert (s_bid == write_id && s_bresp == {owed_error, 1'b0});
            cover (s_rvalid && s_rready && s_rlast && read_id == 8'd5 && answers_left == 1 && reads_left == 0);
            cover (s_bvalid && s_bready && owed_error);
        end
        if (rst) begin
            writes_left <= 0; reads_left <= 0; answers_left <= 0; owed <= 0; any_failed <= 0;
        end
        else begin
            if (s_arready) begin
                reads_left <= s_arlen; answers_left <= s_arlen + 1; read_id <= s_arid;
            end
            else begin
                if (read_ends) reads_left <= reads_left - 1;
                if (s_rvalid && s_rready) answers_left <= answers_left - 1;
            end
            if (write_ends) begin
                writes_left <= s_awready ? s_awlen : writes_left - 1;
                if (s_awready) write_id <= s_awid;
                any_failed <= !last_write && (error || (!s_awready && any_failed));
            end
            if (write_ends && last_write) begin
                owed <= 1; owed_error <= error || (!s_awready && any_failed);
            end
            else if (s_bready) owed <= 0;
        end
    end
endmodule
