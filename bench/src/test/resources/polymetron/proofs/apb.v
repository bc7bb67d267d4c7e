// Behind the requester's end the completer's: phases as Arm IHI 0024 has them, one access in for one out.
module proof (
    input clk, input request, input write, input [3:0] address, input [7:0] value, input bytes,
    input far_done, input [7:0] far_answer, input far_error
);
    reg rst = 1'b1;
    always @(posedge clk) rst <= 1'b0;
    wire done, error, psel, penable, pwrite, pready, pslverr, far_request, far_write;
    wire [7:0] answer, pwdata, prdata, far_value;
    wire [3:0] paddr, far_address;
    wire pstrb, far_bytes;
    polymetron_apb_initiator #(.ADDRESS_BITS(4), .DATA_BITS(8)) near (
        .clk(clk), .rst(rst), .request(request), .write(write), .address(address), .value(value), .bytes(bytes),
        .done(done), .answer(answer), .error(error), .m_paddr(paddr), .m_psel(psel), .m_penable(penable),
        .m_pwrite(pwrite), .m_pwdata(pwdata), .m_pstrb(pstrb), .m_pready(pready), .m_prdata(prdata), .m_pslverr(pslverr)
    );
    polymetron_apb_target #(.ADDRESS_BITS(4), .DATA_BITS(8)) far (
        .clk(clk), .rst(rst), .s_paddr(paddr), .s_psel(psel), .s_penable(penable), .s_pwrite(pwrite), .s_pwdata(pwdata),
        .s_pstrb(pstrb), .s_pready(pready), .s_prdata(prdata), .s_pslverr(pslverr),
        .request(far_request), .write(far_write), .address(far_address), .value(far_value), .bytes(far_bytes),
        .done(far_done), .answer(far_answer), .error(far_error)
    );
    reg held = 0, was_write = 0, was_sel = 0, was_enable = 0, was_done = 0;
    reg [3:0] was_address = 0;
    reg was_bytes = 0;
    reg [7:0] was_value = 0;
    always @(posedge clk) begin
        held <= request && !done; was_write <= write; was_address <= address; was_value <= value; was_bytes <= bytes;
        was_sel <= psel && !rst; was_enable <= penable; was_done <= done;
        assume (!far_done || far_request);
        if (rst) assume (!request);
        else begin
            assume (!held || (request && write == was_write && address == was_address && value == was_value
                && bytes == was_bytes));
            // The access phase follows the setup phase and lasts until it is ready; none follows without another setup.
            assert (!penable || psel);
            assert (penable == (was_sel && !was_done));
            if (far_request) assert (request && far_write == write && far_address == address);
            if (far_request && write) assert (far_value == value && far_bytes == bytes);
            if (!pwrite) assert (pstrb == 1'b0);
            assert (done == far_done);
            if (done) assert (answer == far_answer && error == far_error);
            cover (done && error && was_enable);
        end
    end
endmodule
