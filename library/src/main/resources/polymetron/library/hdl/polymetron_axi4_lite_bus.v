// One AXI4-Lite bus (Arm IHI 0022): initiators take turns, one read and one write at a time, and each goes to the target
// whose range its address is in. Choosing between several initiators takes a cycle. Where there is no target the bus itself
// answers with an error (DECERR).
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_axi4_lite_bus #(
    parameter INITIATORS = 2,
    parameter TARGETS = 2,
    parameter ADDRESS_BITS = 32,
    parameter DATA_BITS = 32,
    // 1: the initiator with the lower number comes first; 0: each in turn
    parameter BY_PRIORITY = 0
) (
    input  wire                               clk,
    input  wire                               rst,

    input  wire [INITIATORS*ADDRESS_BITS-1:0] s_awaddr,
    input  wire [INITIATORS-1:0]              s_awvalid,
    output wire [INITIATORS-1:0]              s_awready,
    input  wire [INITIATORS*DATA_BITS-1:0]    s_wdata,
    input  wire [INITIATORS*DATA_BITS/8-1:0]  s_wstrb,
    input  wire [INITIATORS-1:0]              s_wvalid,
    output wire [INITIATORS-1:0]              s_wready,
    output wire [1:0]                         s_bresp,
    output wire [INITIATORS-1:0]              s_bvalid,
    input  wire [INITIATORS-1:0]              s_bready,
    input  wire [INITIATORS*ADDRESS_BITS-1:0] s_araddr,
    input  wire [INITIATORS-1:0]              s_arvalid,
    output wire [INITIATORS-1:0]              s_arready,
    output wire [DATA_BITS-1:0]               s_rdata,
    output wire [1:0]                         s_rresp,
    output wire [INITIATORS-1:0]              s_rvalid,
    input  wire [INITIATORS-1:0]              s_rready,

    // Which target an address leads to for the initiator that is at it; none is an error.
    output wire [ADDRESS_BITS-1:0]            write_address,
    output wire [INITIATORS-1:0]              write_initiator,
    input  wire [TARGETS-1:0]                 write_target,
    output wire [ADDRESS_BITS-1:0]            read_address,
    output wire [INITIATORS-1:0]              read_initiator,
    input  wire [TARGETS-1:0]                 read_target,

    output wire [TARGETS-1:0]                 m_awvalid,
    input  wire [TARGETS-1:0]                 m_awready,
    output wire [DATA_BITS-1:0]               m_wdata,
    output wire [DATA_BITS/8-1:0]             m_wstrb,
    output wire [TARGETS-1:0]                 m_wvalid,
    input  wire [TARGETS-1:0]                 m_wready,
    input  wire [TARGETS*2-1:0]               m_bresp,
    input  wire [TARGETS-1:0]                 m_bvalid,
    output wire [TARGETS-1:0]                 m_bready,
    output wire [TARGETS-1:0]                 m_arvalid,
    input  wire [TARGETS-1:0]                 m_arready,
    input  wire [TARGETS*DATA_BITS-1:0]       m_rdata,
    input  wire [TARGETS*2-1:0]               m_rresp,
    input  wire [TARGETS-1:0]                 m_rvalid,
    output wire [TARGETS-1:0]                 m_rready
);
    integer at;

    // --- writes

    wire [INITIATORS-1:0] write_chosen;
    wire write_ends;
    reg address_sent;
    reg data_sent;
    reg write_failed;

    polymetron_turns #(.INITIATORS(INITIATORS), .BY_PRIORITY(BY_PRIORITY)) write_turns (
        .clk(clk), .rst(rst), .requests(s_awvalid), .ends(write_ends), .chosen(write_chosen)
    );

    reg [ADDRESS_BITS-1:0] chosen_awaddr;
    reg [DATA_BITS-1:0] chosen_wdata;
    reg [DATA_BITS/8-1:0] chosen_wstrb;
    always @* begin
        chosen_awaddr = {ADDRESS_BITS{1'b0}};
        chosen_wdata = {DATA_BITS{1'b0}};
        chosen_wstrb = {DATA_BITS / 8{1'b0}};
        for (at = 0; at < INITIATORS; at = at + 1) begin
            if (write_chosen[at]) begin
                chosen_awaddr = chosen_awaddr | s_awaddr[at*ADDRESS_BITS +: ADDRESS_BITS];
                chosen_wdata = chosen_wdata | s_wdata[at*DATA_BITS +: DATA_BITS];
                chosen_wstrb = chosen_wstrb | s_wstrb[at*DATA_BITS/8 +: DATA_BITS/8];
            end
        end
    end

    assign write_address = chosen_awaddr;
    assign write_initiator = write_chosen;
    assign m_wdata = chosen_wdata;
    assign m_wstrb = chosen_wstrb;

    wire write_address_valid = |(write_chosen & s_awvalid) && !address_sent;
    wire write_data_valid = |(write_chosen & s_wvalid) && !data_sent;
    reg [TARGETS-1:0] write_kept;
    wire [TARGETS-1:0] write_to = address_sent ? write_kept : write_target;
    wire write_known = address_sent || write_address_valid;
    wire write_nowhere = write_known && write_to == {TARGETS{1'b0}};
    wire address_taken = write_address_valid && (write_nowhere || |(write_to & m_awready));
    // Data waits until it is known where it goes.
    wire data_taken = write_data_valid && write_known && (write_nowhere || |(write_to & m_wready));
    wire answered = write_failed || |(write_kept & m_bvalid);

    assign m_awvalid = {TARGETS{write_address_valid}} & write_to;
    assign m_wvalid = {TARGETS{write_data_valid && write_known}} & write_to;
    assign s_awready = {INITIATORS{address_taken}} & write_chosen;
    assign s_wready = {INITIATORS{data_taken}} & write_chosen;
    wire write_sent = address_sent && data_sent;
    assign s_bvalid = {INITIATORS{write_sent && answered}} & write_chosen;
    assign m_bready = {TARGETS{write_sent && |(write_chosen & s_bready)}} & write_kept;
    assign write_ends = write_sent && answered && |(write_chosen & s_bready);

    reg [1:0] chosen_bresp;
    always @* begin
        chosen_bresp = {2{write_failed}};
        for (at = 0; at < TARGETS; at = at + 1) begin
            if (write_kept[at]) chosen_bresp = chosen_bresp | m_bresp[at*2 +: 2];
        end
    end
    assign s_bresp = chosen_bresp;

    always @(posedge clk) begin
        if (rst || write_ends) begin
            address_sent <= 1'b0;
            data_sent <= 1'b0;
            write_failed <= 1'b0;
            write_kept <= {TARGETS{1'b0}};
        end
        else begin
            if (address_taken) begin
                address_sent <= 1'b1;
                write_kept <= write_to;
                write_failed <= write_nowhere;
            end
            if (data_taken) data_sent <= 1'b1;
        end
    end

    // --- reads

    wire [INITIATORS-1:0] read_chosen;
    wire read_ends;
    reg read_sent;
    reg read_failed;
    reg [TARGETS-1:0] read_kept;

    polymetron_turns #(.INITIATORS(INITIATORS), .BY_PRIORITY(BY_PRIORITY)) read_turns (
        .clk(clk), .rst(rst), .requests(s_arvalid), .ends(read_ends), .chosen(read_chosen)
    );

    reg [ADDRESS_BITS-1:0] chosen_araddr;
    always @* begin
        chosen_araddr = {ADDRESS_BITS{1'b0}};
        for (at = 0; at < INITIATORS; at = at + 1) begin
            if (read_chosen[at]) chosen_araddr = chosen_araddr | s_araddr[at*ADDRESS_BITS +: ADDRESS_BITS];
        end
    end
    assign read_address = chosen_araddr;
    assign read_initiator = read_chosen;

    wire read_valid = |(read_chosen & s_arvalid) && !read_sent;
    wire read_nowhere = read_target == {TARGETS{1'b0}};
    wire read_taken = read_valid && (read_nowhere || |(read_target & m_arready));
    wire read_answered = read_sent && (read_failed || |(read_kept & m_rvalid));

    assign m_arvalid = {TARGETS{read_valid}} & read_target;
    assign s_arready = {INITIATORS{read_taken}} & read_chosen;
    assign s_rvalid = {INITIATORS{read_answered}} & read_chosen;
    assign m_rready = {TARGETS{read_sent && |(read_chosen & s_rready)}} & read_kept;
    assign read_ends = read_answered && |(read_chosen & s_rready);

    reg [DATA_BITS-1:0] chosen_rdata;
    reg [1:0] chosen_rresp;
    always @* begin
        chosen_rdata = {DATA_BITS{1'b0}};
        chosen_rresp = {2{read_failed}};
        for (at = 0; at < TARGETS; at = at + 1) begin
            if (read_kept[at]) begin
                chosen_rdata = chosen_rdata | m_rdata[at*DATA_BITS +: DATA_BITS];
                chosen_rresp = chosen_rresp | m_rresp[at*2 +: 2];
            end
        end
    end
    assign s_rdata = chosen_rdata;
    assign s_rresp = chosen_rresp;

    always @(posedge clk) begin
        if (rst || read_ends) begin
            read_sent <= 1'b0;
            read_failed <= 1'b0;
            read_kept <= {TARGETS{1'b0}};
        end
        else if (read_taken) begin
            read_sent <= 1'b1;
            read_failed <= read_nowhere;
            read_kept <= read_target;
        end
    end
endmodule

`default_nettype wire
