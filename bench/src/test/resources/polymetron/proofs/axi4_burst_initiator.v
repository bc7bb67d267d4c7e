// Accesses that follow each other are one burst: its address is offered once, as many words of data as it has beats, and it
// ends with its last answer. Each access is done once, the last write of a burst with the response.
module proof (
    input clk, input request, input write, input [3:0] address, input [7:0] value, input bytes, input [7:0] more,
    input m_awready, input m_wready, input [1:0] m_bresp, input m_bvalid, input m_arready, input [7:0] m_rdata,
    input [1:0] m_rresp, input m_rvalid
);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire done, error, m_awvalid, m_wvalid, m_wlast, m_bready, m_arvalid, m_rready;
    wire [7:0] answer, m_wdata, m_awlen, m_arlen, m_awid, m_arid;
    wire [3:0] m_awaddr, m_araddr;
    wire [2:0] m_awsize, m_arsize;
    wire [1:0] m_awburst, m_arburst;
    wire m_wstrb;
    polymetron_axi4_burst_initiator #(.ADDRESS_BITS(4), .DATA_BITS(8)) dut (
        .clk(clk), .rst(rst), .request(request), .write(write), .address(address), .value(value), .bytes(bytes), .more(more),
        .done(done), .answer(answer), .error(error),
        .m_awid(m_awid), .m_awaddr(m_awaddr), .m_awlen(m_awlen), .m_awsize(m_awsize), .m_awburst(m_awburst),
        .m_awvalid(m_awvalid), .m_awready(m_awready),
        .m_wdata(m_wdata), .m_wstrb(m_wstrb), .m_wlast(m_wlast), .m_wvalid(m_wvalid), .m_wready(m_wready),
        .m_bid(8'd0), .m_bresp(m_bresp), .m_bvalid(m_bvalid), .m_bready(m_bready),
        .m_arid(m_arid), .m_araddr(m_araddr), .m_arlen(m_arlen), .m_arsize(m_arsize), .m_arburst(m_arburst),
        .m_arvalid(m_arvalid), .m_arready(m_arready),
        .m_rid(8'd0), .m_rdata(m_rdata), .m_rresp(m_rresp), .m_rlast(1'b0), .m_rvalid(m_rvalid), .m_rready(m_rready)
    );
    reg held = 0, was_write = 0, was_bytes = 0, aw = 0, w = 0, ar = 0, b = 0, r = 0;
    reg [3:0] was_address = 0;
    reg [7:0] was_value = 0, was_more = 0, was_awlen = 0, was_arlen = 0;
    // Of the burst under way: accesses that are not done, whether its address was taken, and words of data that were.
    reg [3:0] left = 0;
    reg addressed = 0, word = 0, writes = 0;
    wire first = left == 0;
    wire last = first ? more == 0 : left == 1;
    always @(posedge clk) begin
        held <= !rst && request && !done; was_write <= write; was_address <= address; was_value <= value; was_bytes <= bytes;
        was_more <= more;
        aw <= !rst && m_awvalid && !m_awready; w <= !rst && m_wvalid && !m_wready; ar <= !rst && m_arvalid && !m_arready;
        was_awlen <= m_awlen; was_arlen <= m_arlen;
        b <= !rst && m_bvalid && !m_bready; r <= !rst && m_rvalid && !m_rready;
        assume (more <= 8'd3);
        if (rst) assume (!request && !m_bvalid && !m_rvalid);
        else begin
            assume (!held || (request && write == was_write && address == was_address && value == was_value
                && bytes == was_bytes && more == was_more));
            // Behind the first one direction stays; address and number of the others do not count.
            assume (first || write == writes);
            // A target answers what was asked: reads behind their address, a write behind its last word.
            assume (!m_rvalid || (addressed && !writes));
            assume (!m_bvalid || (addressed && writes && last && word));
            assume (!b || m_bvalid);
            assume (!r || m_rvalid);
            if (aw) assert (m_awvalid && m_awlen == was_awlen && m_awaddr == was_address);
            if (ar) assert (m_arvalid && m_arlen == was_arlen && m_araddr == was_address);
            if (w) assert (m_wvalid && m_wdata == was_value);
            assert (m_arvalid == (request && !write && !addressed));
            assert (m_awvalid == (request && write && !addressed));
            assert (m_wvalid == (request && write && !word));
            if (m_arvalid) assert (first && m_araddr == address && m_arlen == more && m_arsize == 0 && m_arburst == 1);
            if (m_awvalid) assert (first && m_awaddr == address && m_awlen == more && m_awsize == 0 && m_awburst == 1);
            if (m_wvalid) assert (m_wdata == value && m_wstrb == bytes && m_wlast == last);
            if (!write) assert (done == (m_rvalid && m_rready) && m_rready == (request && addressed));
            if (write && last) assert (done == (m_bvalid && m_bready) && m_bready == (request && addressed && word));
            if (write && !last) assert (done == (request && (addressed || m_awready) && (word || m_wready)) && !m_bready);
            if (done) assert (request && (write || answer == m_rdata)
                && error == (!write ? m_rresp[1] : last && m_bresp[1]));
            cover (done && write && last && left == 1 && error);
            cover (done && !write && left == 1);
            cover (word && !addressed);
        end
        if (rst) begin
            left <= 0; addressed <= 0; word <= 0;
        end
        else begin
            if (first && request) writes <= write;
            if (done) left <= first ? more : left - 1;
            addressed <= done ? !last : addressed || (m_arvalid && m_arready) || (m_awvalid && m_awready);
            word <= !done && (word || (m_wvalid && m_wready));
        end
    end
endmodule
