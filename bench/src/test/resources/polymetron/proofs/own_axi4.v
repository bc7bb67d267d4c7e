    // Arm IHI 0022, A3.2: what is valid stays until it is taken; an answer comes behind what it answers.
    reg ar = 0, aw = 0, w = 0, r = 0, b = 0;
    reg [31:0] was_araddr = 0, was_awaddr = 0, was_wdata = 0, was_rdata = 0;
    reg [3:0] was_wstrb = 0;
    reg [7:0] was_arid = 0, was_awid = 0, read_id = 0, write_id = 0;
    reg [1:0] was_rresp = 0, was_bresp = 0;
    reg [3:0] reads = 0, writes = 0, words = 0, read_waits = 0, write_waits = 0;
    wire answers_are_taken = B_rready && B_bready;
    always @(posedge clk) begin
        ar <= !rst && B_arvalid && !B_arready; was_araddr <= B_araddr;
        aw <= !rst && B_awvalid && !B_awready; was_awaddr <= B_awaddr;
        w <= !rst && B_wvalid && !B_wready; was_wdata <= B_wdata; was_wstrb <= B_wstrb;
        r <= !rst && B_rvalid && !B_rready; was_rdata <= B_rdata; was_rresp <= B_rresp;
        b <= !rst && B_bvalid && !B_bready; was_bresp <= B_bresp;
        was_arid <= B_arid; was_awid <= B_awid;
        if (B_arvalid && B_arready) read_id <= B_arid;
        if (B_awvalid && B_awready) write_id <= B_awid;
        if (rst) assume (!B_arvalid && !B_awvalid && !B_wvalid);
        else begin
            assume (B_arlen == 0 && B_awlen == 0 && (!B_wvalid || B_wlast));
            assume (B_arsize == 2 && B_awsize == 2 && B_arburst == 1 && B_awburst == 1);
            assume (!ar || (B_arvalid && B_araddr == was_araddr));
            assume (!ar || B_arid == was_arid); assume (!aw || B_awid == was_awid);
            // One beat is the last one, and has the ID of its address.
            if (B_rvalid) assert (B_rlast);
            if (B_rvalid && reads == 1) assert (B_rid == read_id);
            if (B_bvalid && writes == 1) assert (B_bid == write_id);
            assume (!aw || (B_awvalid && B_awaddr == was_awaddr));
            assume (!w || (B_wvalid && B_wdata == was_wdata && B_wstrb == was_wstrb));
            // Address and data of a write come together, so that time can be counted.
            assume (aw || w || B_awvalid == B_wvalid);
            if (r) assert (B_rvalid && B_rdata == was_rdata && B_rresp == was_rresp);
            if (b) assert (B_bvalid && B_bresp == was_bresp);
            assert (!B_rvalid || reads != 0);
            assert (!B_bvalid || (writes != 0 && words != 0));
            assert (!B_rvalid || !B_rresp[0]);
            assert (read_waits < 4 && write_waits < 4);
            cover (B_rvalid && B_rready && B_rresp == 0);
            cover (B_rvalid && B_rresp[1] && r);
            cover (B_bvalid && B_bresp[1]);
        end
        if (rst) begin
            reads <= 0; writes <= 0; words <= 0; read_waits <= 0; write_waits <= 0;
        end
        else begin
            reads <= reads + (B_arvalid && B_arready) - (B_rvalid && B_rready);
            writes <= writes + (B_awvalid && B_awready) - (B_bvalid && B_bready);
            words <= words + (B_wvalid && B_wready) - (B_bvalid && B_bready);
            read_waits <= B_arvalid && !B_arready && answers_are_taken ? read_waits + 1 : 0;
            write_waits <= B_awvalid && !B_awready && answers_are_taken ? write_waits + 1 : 0;
            // What was taken is answered in the next cycle.
            if (reads != 0) assert (B_rvalid);
            if (writes != 0 && words != 0) assert (B_bvalid);
        end
    end
