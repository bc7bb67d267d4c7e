// Old style, Wishbone B4: a word that is kept, and its sum so far.
module wishing_well (clk_i, rst_i, wb_adr_i, wb_dat_i, wb_dat_o, wb_we_i, wb_sel_i, wb_stb_i, wb_cyc_i, wb_ack_o, shown_o);
    input clk_i, rst_i;
    input [3:0] wb_adr_i;
    input [31:0] wb_dat_i;
    output [31:0] wb_dat_o;
    input wb_we_i;
    input [3:0] wb_sel_i;
    input wb_stb_i, wb_cyc_i;
    output wb_ack_o;
    output [3:0] shown_o;

    reg [31:0] word, sum;
    reg wb_ack_o;
    assign wb_dat_o = wb_adr_i[2] ? sum : word;
    assign shown_o = word[3:0];
    always @(posedge clk_i)
        if (rst_i) begin
            word <= 0;
            sum <= 0;
            wb_ack_o <= 0;
        end else begin
            wb_ack_o <= wb_cyc_i & wb_stb_i & ~wb_ack_o;
            if (wb_cyc_i & wb_stb_i & wb_we_i & ~wb_ack_o & ~wb_adr_i[2]) begin
                word <= wb_dat_i;
                sum <= sum + wb_dat_i;
            end
        end
endmodule
