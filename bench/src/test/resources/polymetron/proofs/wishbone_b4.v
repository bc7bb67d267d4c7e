// Two MASTERs and a SLAVE on one Wishbone B4 bus: one cycle at a time, which ends with ACK or ERR, never both, for the one that has
// its turn; where there is no SLAVE the bus answers with ERR.
module proof (
    input clk, input [1:0] request, input [1:0] write, input [3:0] address0, input [3:0] address1,
    input far_done, input [7:0] far_answer, input far_error
);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire [1:0] cyc, stb, we, ack, err, done, error, initiator;
    wire [3:0] adr0, adr1;
    wire m_cyc, m_stb, m_ack, m_err, far_request, far_write, sel, far_bytes;
    wire [7:0] far_value, dat_r, answer0, answer1, unused0, unused1;
    wire [1:0] sels;
    wire [3:0] adr = (initiator[0] ? adr0 : 4'd0) | (initiator[1] ? adr1 : 4'd0);
    wire target = !adr[3];
    wire [3:0] far_address;
    polymetron_wishbone_b4_initiator #(.ADDRESS_BITS(4), .DATA_BITS(8)) first (
        .clk(clk), .rst(rst), .request(request[0]), .write(write[0]), .address(address0), .value(8'd1), .bytes(1'b1),
        .done(done[0]), .answer(answer0), .error(error[0]), .m_cyc(cyc[0]), .m_stb(stb[0]), .m_we(we[0]), .m_adr(adr0),
        .m_sel(sels[0]), .m_dat_w(unused0), .m_ack(ack[0]), .m_err(err[0]), .m_dat_r(dat_r)
    );
    polymetron_wishbone_b4_initiator #(.ADDRESS_BITS(4), .DATA_BITS(8)) second (
        .clk(clk), .rst(rst), .request(request[1]), .write(write[1]), .address(address1), .value(8'd2), .bytes(1'b1),
        .done(done[1]), .answer(answer1), .error(error[1]), .m_cyc(cyc[1]), .m_stb(stb[1]), .m_we(we[1]), .m_adr(adr1),
        .m_sel(sels[1]), .m_dat_w(unused1), .m_ack(ack[1]), .m_err(err[1]), .m_dat_r(dat_r)
    );
    polymetron_wishbone_b4_bus #(.INITIATORS(2), .TARGETS(1), .BY_PRIORITY(0)) bus (
        .clk(clk), .rst(rst), .s_cyc(cyc), .s_stb(stb), .s_ack(ack), .s_err(err), .initiator(initiator), .target(target),
        .m_cyc(m_cyc), .m_stb(m_stb), .m_ack(m_ack), .m_err(m_err)
    );
    polymetron_wishbone_b4_target #(.ADDRESS_BITS(4), .DATA_BITS(8)) far (
        .clk(clk), .rst(rst), .s_cyc(m_cyc), .s_stb(m_stb), .s_we(|(we & initiator)), .s_adr(adr), .s_sel(1'b1),
        .s_dat_w(initiator[1] ? 8'd2 : 8'd1), .s_ack(m_ack), .s_err(m_err), .s_dat_r(dat_r),
        .request(far_request), .write(far_write), .address(far_address), .value(far_value), .bytes(far_bytes),
        .done(far_done), .answer(far_answer), .error(far_error)
    );
    reg [1:0] held = 0, was_write = 0;
    reg [3:0] was0 = 0, was1 = 0;
    reg [1:0] turn = 0;
    always @(posedge clk) begin
        held <= rst ? 0 : request & ~done; was_write <= write; was0 <= address0; was1 <= address1;
        turn <= rst ? 0 : initiator & ~done;
        assume (!far_done || far_request);
        if (rst) assume (request == 0);
        else begin
            assume (!held[0] || (request[0] && write[0] == was_write[0] && address0 == was0));
            assume (!held[1] || (request[1] && write[1] == was_write[1] && address1 == was1));
            assert (initiator != 2'd3 && (ack & err) == 0 && (done & ~initiator) == 0);
            // Whoever has the turn keeps it until the cycle is over.
            if (turn != 0) assert (initiator == turn);
            if (far_request) assert (!adr[3] && (initiator & request) != 0 && far_address == adr);
            if (far_request) assert (far_write == |(write & initiator) && far_value == (initiator[1] ? 8'd2 : 8'd1));
            if (done[0] && !address0[3]) assert (far_done && error[0] == far_error && answer0 == far_answer);
            if (done[1] && !address1[3]) assert (far_done && error[1] == far_error && answer1 == far_answer);
            // Where there is no SLAVE the cycle ends at once.
            if ((initiator & request) != 0 && adr[3]) assert (done == initiator);
            if (done[0] && address0[3]) assert (error[0] && !far_request);
            cover (done[1] && error[1] && far_request);
            cover (done[0] && !error[0]);
        end
    end
endmodule
