    // Arm IHI 0033: address and data phase (3.1), IDLE is answered at once (3.2), an error takes two cycles (5.1).
    reg active = 0, was_ready = 1, was_error = 0, was_data = 0, was_write = 0;
    reg [1:0] was_trans = 0;
    reg [31:0] was_addr = 0, was_wdata = 0;
    reg [2:0] was_size = 0;
    reg [3:0] waits = 0;
    always @(posedge clk) begin
        was_ready <= B_hreadyout || rst; was_error <= B_hresp && !rst; was_trans <= B_htrans; was_addr <= B_haddr;
        was_size <= B_hsize; was_write <= B_hwrite; was_wdata <= B_hwdata; was_data <= active && !B_hreadyout && !rst;
        assume (B_hready == B_hreadyout);
        assume (B_hsel);
        if (rst) assume (B_htrans == 0);
        else begin
            assume (B_htrans == 0 || B_htrans == 2);
            assume (B_hsize <= 2 && (B_haddr & ((1 << B_hsize) - 1)) == 0);
            // A transfer that waits stays; behind an error it may be withdrawn.
            assume (was_ready || was_error || (B_htrans == was_trans && B_haddr == was_addr && B_hsize == was_size
                && B_hwrite == was_write));
            assume (!was_data || B_hwdata == was_wdata);
            if (!active) assert (B_hreadyout && !B_hresp);
            if (B_hresp && B_hreadyout) assert (was_error && !was_ready);
            if (was_error && !was_ready) assert (B_hresp && B_hreadyout);
            assert (waits < 8);
            cover (active && B_hresp && B_hreadyout);
            cover (active && B_hreadyout && !B_hresp && B_hrdata != 0);
        end
        waits <= !rst && !B_hreadyout ? waits + 1 : 0;
        if (rst) active <= 0;
        else if (B_hreadyout) active <= B_htrans == 2;
    end
