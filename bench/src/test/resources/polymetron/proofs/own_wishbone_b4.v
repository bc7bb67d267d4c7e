    // Wishbone B4, 3.1.3 and 3.2: a cycle ends with ACK or with ERR, and neither comes without STB.
    reg held = 0, was_we = 0;
    reg [31:0] was_adr = 0, was_dat = 0;
    reg [3:0] was_sel = 0, waits = 0;
    wire ends = B_ack || B_err;
    always @(posedge clk) begin
        held <= !rst && B_cyc && B_stb && !ends; was_we <= B_we; was_adr <= B_adr; was_dat <= B_dat_w; was_sel <= B_sel;
        if (rst) assume (!B_cyc && !B_stb);
        else begin
            assume (!B_stb || B_cyc);
            assume (!held || (B_cyc && B_stb && B_we == was_we && B_adr == was_adr && B_dat_w == was_dat && B_sel == was_sel));
            assert (!ends || (B_cyc && B_stb));
            assert (!(B_ack && B_err));
            assert (waits < 3);
            cover (B_ack && !B_we && B_dat_r != 0);
            cover (B_err && B_we);
        end
        waits <= !rst && B_cyc && B_stb && !ends ? waits + 1 : 0;
    end
