// Two initiators and two targets: what is offered stays until it is taken, an answer comes only to who asked, once, from the
// target that was asked, and from the bus itself with an error where there is none.
module proof (
    input clk,
    input [1:0] s_awvalid, input [1:0] s_wvalid, input [1:0] s_bready, input [1:0] s_arvalid, input [1:0] s_rready,
    input [1:0] m_awready, input [1:0] m_wready, input [1:0] m_bvalid, input [1:0] m_arready, input [1:0] m_rvalid,
    input [1:0] address0, input [1:0] address1
);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire [1:0] s_awready, s_wready, s_bvalid, s_arready, s_rvalid;
    wire [1:0] write_initiator, read_initiator, write_answers, read_answers;
    wire write_failed, read_failed;
    wire own_last;
    wire [7:0] write_id, read_id;
    wire [1:0] m_awvalid, m_wvalid, m_bready, m_arvalid, m_rready;
    // An address leads to the first target, to the second or nowhere, and stays so while it is offered.
    wire [1:0] read_target = (read_initiator[0] ? address0 : 2'd0) | (read_initiator[1] ? address1 : 2'd0);
    wire [1:0] write_target = (write_initiator[0] ? address0 : 2'd0) | (write_initiator[1] ? address1 : 2'd0);
    polymetron_axi4_bus #(.INITIATORS(2), .TARGETS(2), .BY_PRIORITY(0)) bus (
        .clk(clk), .rst(rst),
        .s_awvalid(s_awvalid), .s_awready(s_awready), .s_wvalid(s_wvalid), .s_wready(s_wready),
        .s_bvalid(s_bvalid), .s_bready(s_bready), .s_arvalid(s_arvalid), .s_arready(s_arready),
        .s_rvalid(s_rvalid), .s_rready(s_rready),
        .write_initiator(write_initiator), .write_target(write_target),
        .read_initiator(read_initiator), .read_target(read_target),
        .write_last(1'b1), .read_length(8'd0), .read_last(1'b1), .own_last(own_last),
        .write_id(8'd0), .read_id(8'd0), .write_id_kept(write_id), .read_id_kept(read_id),
        .write_answers(write_answers), .write_failed(write_failed),
        .read_answers(read_answers), .read_failed(read_failed),
        .m_awvalid(m_awvalid), .m_awready(m_awready), .m_wvalid(m_wvalid), .m_wready(m_wready),
        .m_bvalid(m_bvalid), .m_bready(m_bready), .m_arvalid(m_arvalid), .m_arready(m_arready),
        .m_rvalid(m_rvalid), .m_rready(m_rready)
    );

    reg started = 1'b0;
    reg [1:0] aw = 0, w = 0, ar = 0, b = 0, r = 0, maw = 0, mw = 0, mar = 0, mb = 0, mr = 0, sb = 0, sr = 0;
    reg [1:0] a0 = 0, a1 = 0;
    // What is outstanding: of initiators, and at targets.
    reg [1:0] reads = 0, writes = 0, words = 0, target_reads = 0, target_writes = 0, target_words = 0;
    reg [1:0] nowhere = 0;
    integer each;
    always @(posedge clk) begin
        started <= !rst;
        aw <= s_awvalid & ~s_awready; w <= s_wvalid & ~s_wready; ar <= s_arvalid & ~s_arready;
        mb <= m_bvalid & ~m_bready; mr <= m_rvalid & ~m_rready;
        maw <= m_awvalid & ~m_awready; mw <= m_wvalid & ~m_wready; mar <= m_arvalid & ~m_arready;
        sb <= s_bvalid & ~s_bready; sr <= s_rvalid & ~s_rready;
        a0 <= address0; a1 <= address1;
        assume (address0 != 2'd3 && address1 != 2'd3);
        if (rst) begin
            assume (s_awvalid == 0 && s_wvalid == 0 && s_arvalid == 0 && m_bvalid == 0 && m_rvalid == 0);
        end
        else begin
            // Reads and writes have nothing in common, and are proved one after the other.
`ifdef READS
            assume (s_awvalid == 0 && s_wvalid == 0);
`else
            assume (s_arvalid == 0);
`endif
            // Initiators keep what they offer, and have one read and one write at a time.
            assume ((aw & ~s_awvalid) == 0 && (w & ~s_wvalid) == 0 && (ar & ~s_arvalid) == 0);
            if (aw[0] || ar[0] || reads[0] || writes[0] || words[0]) assume (address0 == a0);
            if (aw[1] || ar[1] || reads[1] || writes[1] || words[1]) assume (address1 == a1);
            assume ((s_arvalid & reads) == 0);
            assume ((s_awvalid & writes) == 0 && (s_wvalid & words) == 0);
            // Targets answer what they took, once, and keep their answer.
            assume ((m_rvalid & ~target_reads) == 0);
            assume ((m_bvalid & ~(target_writes & target_words)) == 0);
            assume ((mb & ~m_bvalid) == 0 && (mr & ~m_rvalid) == 0);

            reads <= (reads | (s_arvalid & s_arready)) & ~(s_rvalid & s_rready);
            writes <= (writes | (s_awvalid & s_awready)) & ~(s_bvalid & s_bready);
            words <= (words | (s_wvalid & s_wready)) & ~(s_bvalid & s_bready);
            target_reads <= (target_reads | (m_arvalid & m_arready)) & ~(m_rvalid & m_rready);
            target_writes <= (target_writes | (m_awvalid & m_awready)) & ~(m_bvalid & m_bready);
            target_words <= (target_words | (m_wvalid & m_wready)) & ~(m_bvalid & m_bready);

            if (started) begin
                assert ((maw & ~m_awvalid) == 0);
                assert ((mw & ~m_wvalid) == 0);
                assert ((mar & ~m_arvalid) == 0);
                assert ((sb & ~s_bvalid) == 0);
                assert ((sr & ~s_rvalid) == 0);
            end
            // No answer without a request, and none to two.
            assert ((s_rvalid & ~reads) == 0);
            assert ((s_bvalid & ~(writes & words)) == 0);
            assert (s_rvalid != 2'd3 && s_bvalid != 2'd3);
            // One target at a time has a read, and one a write.
            assert (target_reads != 2'd3 && (target_reads & m_arvalid) == 0);
            assert (target_writes != 2'd3 && (target_writes & m_awvalid) == 0);
            // The target that was asked answers; the bus does where there is none.
            if (s_rvalid[0]) assert (read_failed ? address0 == 0 : read_answers == address0);
            if (s_rvalid[1]) assert (read_failed ? address1 == 0 : read_answers == address1);
            if (s_bvalid[0]) assert (write_failed ? address0 == 0 : write_answers == address0);
            if (s_bvalid[1]) assert (write_failed ? address1 == 0 : write_answers == address1);
            // What is under way at a target is what is waited for, and where there is no target the bus knows.
            if (target_reads != 0) assert (read_answers == target_reads && !read_failed);
            if (target_writes != 0) assert (write_answers == target_writes && !write_failed);
            if ((reads[0] && address0 == 0) || (reads[1] && address1 == 0)) assert (read_failed);
            if ((writes[0] && address0 == 0) || (writes[1] && address1 == 0)) assert (write_failed);
`ifdef READS
            cover (s_rvalid[1] && read_failed);
            cover (s_rvalid[0] && !read_failed);
`else
            cover (s_bvalid[0] && write_failed);
            cover (s_bvalid[1] && !write_failed);
            cover (words[0] && !writes[0]);
`endif
        end
    end
endmodule
