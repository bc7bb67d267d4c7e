    // Arm IHI 0024, 3: a setup phase of one cycle, and an access phase until it is ready.
    reg was_sel = 0, was_enable = 0, was_ready = 0, was_write = 0;
    reg [31:0] was_addr = 0, was_wdata = 0;
    reg [3:0] was_strb = 0, waits = 0;
    always @(posedge clk) begin
        was_sel <= B_psel && !rst; was_enable <= B_penable && !rst; was_ready <= B_pready; was_write <= B_pwrite;
        was_addr <= B_paddr; was_wdata <= B_pwdata; was_strb <= B_pstrb;
        if (rst) assume (!B_psel && !B_penable);
        else begin
            assume (B_penable == (was_sel && !(was_enable && was_ready)));
            assume (!B_penable || (B_psel && B_pwrite == was_write && B_paddr == was_addr && B_pwdata == was_wdata
                && B_pstrb == was_strb));
            assume (B_pwrite || B_pstrb == 0);
            assert (waits < 3);
            cover (B_psel && B_penable && B_pready && B_pslverr && B_pwrite);
            cover (B_psel && B_penable && B_pready && !B_pslverr && !B_pwrite && B_prdata != 0);
        end
        waits <= !rst && B_psel && B_penable && !B_pready ? waits + 1 : 0;
    end
