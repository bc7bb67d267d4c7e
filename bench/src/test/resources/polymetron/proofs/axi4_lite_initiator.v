// An access is one read or one write, offered until it is taken, and done with its answer.
module proof (
    input clk, input request, input write, input [3:0] address, input [7:0] value, input bytes,
    input m_awready, input m_wready, input [1:0] m_bresp, input m_bvalid, input m_arready, input [7:0] m_rdata,
    input [1:0] m_rresp, input m_rvalid
);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire done, error, m_awvalid, m_wvalid, m_bready, m_arvalid, m_rready;
    wire [7:0] answer, m_wdata;
    wire [3:0] m_awaddr, m_araddr;
    wire m_wstrb;
    polymetron_axi4_lite_initiator #(.ADDRESS_BITS(4), .DATA_BITS(8)) dut (
        .clk(clk), .rst(rst), .request(request), .write(write), .address(address), .value(value), .bytes(bytes),
        .done(done), .answer(answer), .error(error),
        .m_awaddr(m_awaddr), .m_awvalid(m_awvalid), .m_awready(m_awready),
        .m_wdata(m_wdata), .m_wstrb(m_wstrb), .m_wvalid(m_wvalid), .m_wready(m_wready),
        .m_bresp(m_bresp), .m_bvalid(m_bvalid), .m_bready(m_bready),
        .m_araddr(m_araddr), .m_arvalid(m_arvalid), .m_arready(m_arready),
        .m_rdata(m_rdata), .m_rresp(m_rresp), .m_rvalid(m_rvalid), .m_rready(m_rready)
    );
    reg held = 0, was_write = 0, aw = 0, w = 0, ar = 0, b = 0, r = 0;
    reg [3:0] was_address = 0;
    reg was_bytes = 0;
    reg [7:0] was_value = 0;
    reg reads = 0, writes = 0, words = 0;
    always @(posedge clk) begin
        held <= !rst && request && !done; was_write <= write; was_address <= address; was_value <= value; was_bytes <= bytes;
        aw <= m_awvalid && !m_awready; w <= m_wvalid && !m_wready; ar <= m_arvalid && !m_arready;
        b <= m_bvalid && !m_bready; r <= m_rvalid && !m_rready;
        if (rst) assume (!request && !m_bvalid && !m_rvalid);
        else begin
            assume (!held || (request && write == was_write && address == was_address && value == was_value
                && bytes == was_bytes));
            assume (!m_rvalid || reads);
            assume (!m_bvalid || (writes && words));
            assume (!b || m_bvalid);
            assume (!r || m_rvalid);
            // Offered at once.
            if (request && !held) assert (write ? m_awvalid && m_wvalid : m_arvalid);
            if (aw) assert (m_awvalid);
            if (w) assert (m_wvalid);
            if (ar) assert (m_arvalid);
            if (m_arvalid) assert (request && !write && m_araddr == address && !reads);
            if (m_awvalid) assert (request && write && m_awaddr == address && !writes);
            if (m_wvalid) assert (request && write && m_wdata == value && m_wstrb == bytes && !words);
            assert (done == ((m_rvalid && m_rready) || (m_bvalid && m_bready)));
            if (done) assert (request && (write || answer == m_rdata) && error == (write ? m_bresp[1] : m_rresp[1]));
            // What was taken belongs to an access that is under way.
            if (reads) assert (request && !write);
            if (writes || words) assert (request && write);
            cover (done && write && error);
            cover (done && !write);
            cover (words && !writes);
        end
        reads <= !rst && (reads || (m_arvalid && m_arready)) && !done;
        writes <= !rst && (writes || (m_awvalid && m_awready)) && !done;
        words <= !rst && (words || (m_wvalid && m_wready)) && !done;
    end
endmodule
