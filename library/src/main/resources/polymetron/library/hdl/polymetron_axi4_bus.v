// The handshakes of one AXI4 or AXI4-Lite bus (Arm IHI 0022): initiators take turns, one read and one write at a time, each a
// whole burst, and each goes to the target whose range its address is in. Choosing between several initiators takes a cycle.
// Where there is no target the bus itself answers every beat with an error (DECERR). Addresses, data and responses are
// multiplexed around it, by what it says.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_axi4_bus #(
    parameter INITIATORS = 2,
    parameter TARGETS = 2,
    // 1: the initiator with the lower number comes first; 0: round robin
    parameter BY_PRIORITY = 0,
    // 1: AXI4, with bursts; 0: AXI4-Lite, where everything is the last beat
    parameter BURSTS = 0
) (
    input  wire                  clk,
    input  wire                  rst,

    input  wire [INITIATORS-1:0] s_awvalid,
    output wire [INITIATORS-1:0] s_awready,
    input  wire [INITIATORS-1:0] s_wvalid,
    output wire [INITIATORS-1:0] s_wready,
    output wire [INITIATORS-1:0] s_bvalid,
    input  wire [INITIATORS-1:0] s_bready,
    input  wire [INITIATORS-1:0] s_arvalid,
    output wire [INITIATORS-1:0] s_arready,
    output wire [INITIATORS-1:0] s_rvalid,
    input  wire [INITIATORS-1:0] s_rready,

    // Whose turn it is, and which target its address leads to; none is an error.
    output wire [INITIATORS-1:0] write_initiator,
    input  wire [TARGETS-1:0]    write_target,
    output wire [INITIATORS-1:0] read_initiator,
    input  wire [TARGETS-1:0]    read_target,

    // Of the chosen initiators: the last beat of the data, and beats after the first of a read.
    input  wire                  write_last,
    input  wire [7:0]            read_length,

    // IDs of the chosen initiators, and of those whose answer it is.
    input  wire [7:0]            write_id,
    input  wire [7:0]            read_id,
    output wire [7:0]            write_id_kept,
    output wire [7:0]            read_id_kept,

    // The last beat of the target that answers, and that of the bus's own answer.
    input  wire                  read_last,
    output wire                  own_last,

    // Whose answer it is; the bus's own is an error.
    output reg  [TARGETS-1:0]    write_answers,
    output reg                   write_failed,
    output reg  [TARGETS-1:0]    read_answers,
    output reg                   read_failed,

    output wire [TARGETS-1:0]    m_awvalid,
    input  wire [TARGETS-1:0]    m_awready,
    output wire [TARGETS-1:0]    m_wvalid,
    input  wire [TARGETS-1:0]    m_wready,
    input  wire [TARGETS-1:0]    m_bvalid,
    output wire [TARGETS-1:0]    m_bready,
    output wire [TARGETS-1:0]    m_arvalid,
    input  wire [TARGETS-1:0]    m_arready,
    input  wire [TARGETS-1:0]    m_rvalid,
    output wire [TARGETS-1:0]    m_rready
);
    // --- writes

    wire write_ends;
    reg address_sent;
    reg data_sent;

    polymetron_turns #(.INITIATORS(INITIATORS), .BY_PRIORITY(BY_PRIORITY)) write_turns (
        .clk(clk), .rst(rst), .requests(s_awvalid), .ends(write_ends), .chosen(write_initiator)
    );

    wire address_valid = |(write_initiator & s_awvalid) && !address_sent;
    wire data_valid = |(write_initiator & s_wvalid) && !data_sent;
    wire [TARGETS-1:0] write_to = address_sent ? write_answers : write_target;
    // Data waits until it is known where it goes.
    wire is_known = address_sent || address_valid;
    wire is_nowhere = write_to == {TARGETS{1'b0}};
    wire address_taken = address_valid && (is_nowhere || |(write_to & m_awready));
    wire data_taken = data_valid && is_known && (is_nowhere || |(write_to & m_wready));
    wire is_sent = address_sent && data_sent;
    wire is_answered = is_sent && (write_failed || |(write_answers & m_bvalid));
    wire is_write_wanted = |(write_initiator & s_bready);

    assign m_awvalid = {TARGETS{address_valid}} & write_to;
    assign m_wvalid = {TARGETS{data_valid && is_known}} & write_to;
    assign s_awready = {INITIATORS{address_taken}} & write_initiator;
    assign s_wready = {INITIATORS{data_taken}} & write_initiator;
    assign s_bvalid = {INITIATORS{is_answered}} & write_initiator;
    assign m_bready = {TARGETS{is_sent && is_write_wanted}} & write_answers;
    assign write_ends = is_answered && is_write_wanted;

    always @(posedge clk) begin
        if (rst || write_ends) begin
            address_sent <= 1'b0;
            data_sent <= 1'b0;
            write_failed <= 1'b0;
            write_answers <= {TARGETS{1'b0}};
        end
        else begin
            if (address_taken) begin
                address_sent <= 1'b1;
                write_answers <= write_to;
                write_failed <= is_nowhere;
            end
            if (data_taken && write_last) data_sent <= 1'b1;
        end
    end

    // --- reads

    wire read_ends;
    reg read_sent;

    polymetron_turns #(.INITIATORS(INITIATORS), .BY_PRIORITY(BY_PRIORITY)) read_turns (
        .clk(clk), .rst(rst), .requests(s_arvalid), .ends(read_ends), .chosen(read_initiator)
    );

    wire read_valid = |(read_initiator & s_arvalid) && !read_sent;
    wire is_read_nowhere = read_target == {TARGETS{1'b0}};
    wire read_taken = read_valid && (is_read_nowhere || |(read_target & m_arready));
    wire is_read_answered = read_sent && (read_failed || |(read_answers & m_rvalid));
    wire is_read_wanted = |(read_initiator & s_rready);

    assign m_arvalid = {TARGETS{read_valid}} & read_target;
    assign s_arready = {INITIATORS{read_taken}} & read_initiator;
    assign s_rvalid = {INITIATORS{is_read_answered}} & read_initiator;
    assign m_rready = {TARGETS{read_sent && is_read_wanted}} & read_answers;
    wire is_beat = is_read_answered && is_read_wanted;
    assign read_ends = is_beat && (read_failed ? own_last : read_last);

    generate
        if (BURSTS != 0) begin : bursts
            reg [7:0] left;
            reg [7:0] its_write_id;
            reg [7:0] its_read_id;
            assign write_id_kept = its_write_id;
            assign read_id_kept = its_read_id;
            always @(posedge clk) begin
                if (rst) begin
                    its_write_id <= 8'd0;
                    its_read_id <= 8'd0;
                end
                else begin
                    if (address_taken) its_write_id <= write_id;
                    if (read_taken) its_read_id <= read_id;
                end
            end
            assign own_last = left == 8'd0;
            always @(posedge clk) begin
                if (rst) left <= 8'd0;
                else if (read_taken) left <= read_length;
                else if (is_beat && !own_last) left <= left - 8'd1;
            end
        end
        else begin : single
            assign own_last = 1'b1;
            assign write_id_kept = 8'd0;
            assign read_id_kept = 8'd0;
`ifdef VERILATOR
            wire unused_length = |read_length | |write_id | |read_id;
`endif
        end
    endgenerate

    always @(posedge clk) begin
        if (rst || read_ends) begin
            read_sent <= 1'b0;
            read_failed <= 1'b0;
            read_answers <= {TARGETS{1'b0}};
        end
        else if (read_taken) begin
            read_sent <= 1'b1;
            read_failed <= is_read_nowhere;
            read_answers <= read_target;
        end
    end
endmodule

`default_nettype wire
