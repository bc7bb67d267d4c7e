// The target end of AXI4 (Arm IHI 0022): what comes over the bus goes on as one access after the other, one for each beat of
// a burst. The answer is registered: an access of n cycles takes n + 1 on the bus. A read and a write that wait for each other go
// in turn; an error in any beat of a write is the answer to all of it.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_axi4_target #(
    parameter ADDRESS_BITS = 12,
    parameter DATA_BITS = 32
) (
    input  wire                    clk,
    input  wire                    rst,

    input  wire [7:0]              s_awid,
    input  wire [ADDRESS_BITS-1:0] s_awaddr,
    input  wire [7:0]              s_awlen,
    input  wire [2:0]              s_awsize,
    input  wire [1:0]              s_awburst,
    input  wire                    s_awvalid,
    output wire                    s_awready,
    input  wire [DATA_BITS-1:0]    s_wdata,
    input  wire [DATA_BITS/8-1:0]  s_wstrb,
    input  wire                    s_wlast,
    input  wire                    s_wvalid,
    output wire                    s_wready,
    output reg  [7:0]              s_bid,
    output wire [1:0]              s_bresp,
    output reg                     s_bvalid,
    input  wire                    s_bready,
    input  wire [7:0]              s_arid,
    input  wire [ADDRESS_BITS-1:0] s_araddr,
    input  wire [7:0]              s_arlen,
    input  wire [2:0]              s_arsize,
    input  wire [1:0]              s_arburst,
    input  wire                    s_arvalid,
    output wire                    s_arready,
    output reg  [7:0]              s_rid,
    output reg  [DATA_BITS-1:0]    s_rdata,
    output wire [1:0]              s_rresp,
    output reg                     s_rlast,
    output reg                     s_rvalid,
    input  wire                    s_rready,

    // One access: everything stays as it is from the request until it is done.
    output wire                    request,
    output wire                    write,
    output wire [ADDRESS_BITS-1:0] address,
    output wire [DATA_BITS-1:0]    value,
    output wire [DATA_BITS/8-1:0]  bytes,
    // The next access in this direction is to the following word.
    output wire                    more,
    input  wire                    done,
    input  wire [DATA_BITS-1:0]    answer,
    input  wire                    error
);
    reg busy;
    reg busy_writes;
    reg write_first;
    reg read_failed;
    reg write_failed;
    reg beat_failed;

    wire read_beat;
    wire [ADDRESS_BITS-1:0] read_address;
    wire read_last;
    wire read_goes_on;
    wire [7:0] read_id;
    wire write_beat;
    wire [ADDRESS_BITS-1:0] write_address;
    wire write_last;
    wire write_goes_on;
    wire [7:0] write_id;

    wire can_read = read_beat && (!s_rvalid || s_rready);
    wire can_write = write_beat && s_wvalid && (!s_bvalid || s_bready);
    assign write = busy ? busy_writes : can_write && (write_first || !can_read);
    assign request = busy || can_read || can_write;
    assign address = write ? write_address : read_address;
    assign value = s_wdata;
    assign more = write ? write_goes_on : read_goes_on;
    assign bytes = write ? s_wstrb : {DATA_BITS / 8{1'b1}};

    wire read_ends = request && done && !write;
    wire write_ends = request && done && write;
    assign s_wready = write_ends;
    assign s_rresp = {read_failed, 1'b0};
    assign s_bresp = {write_failed, 1'b0};

    polymetron_axi4_burst #(.ADDRESS_BITS(ADDRESS_BITS), .DATA_BITS(DATA_BITS)) read_burst (
        .clk(clk), .rst(rst),
        .valid(s_arvalid), .id(s_arid), .addr(s_araddr), .len(s_arlen), .size(s_arsize), .burst(s_arburst),
        .taken(s_arready),
        .beat(read_beat), .address(read_address), .last(read_last), .goes_on(read_goes_on), .beat_id(read_id), .step(read_ends)
    );
    polymetron_axi4_burst #(.ADDRESS_BITS(ADDRESS_BITS), .DATA_BITS(DATA_BITS)) write_burst (
        .clk(clk), .rst(rst),
        .valid(s_awvalid), .id(s_awid), .addr(s_awaddr), .len(s_awlen), .size(s_awsize), .burst(s_awburst),
        .taken(s_awready),
        .beat(write_beat), .address(write_address), .last(write_last), .goes_on(write_goes_on), .beat_id(write_id), .step(write_ends)
    );

    always @(posedge clk) begin
        if (rst) begin
            busy <= 1'b0;
            busy_writes <= 1'b0;
            write_first <= 1'b0;
            s_rvalid <= 1'b0;
            s_rdata <= {DATA_BITS{1'b0}};
            s_rid <= 8'd0;
            s_rlast <= 1'b0;
            read_failed <= 1'b0;
            s_bvalid <= 1'b0;
            s_bid <= 8'd0;
            write_failed <= 1'b0;
            beat_failed <= 1'b0;
        end
        else begin
            busy <= request && !done;
            busy_writes <= write;
            if (request && done) write_first <= !write;
            if (read_ends) begin
                s_rvalid <= 1'b1;
                s_rdata <= answer;
                s_rid <= read_id;
                s_rlast <= read_last;
                read_failed <= error;
            end
            else if (s_rready) s_rvalid <= 1'b0;
            if (write_ends) beat_failed <= !write_last && (beat_failed || error);
            if (write_ends && write_last) begin
                s_bvalid <= 1'b1;
                s_bid <= write_id;
                write_failed <= beat_failed || error;
            end
            else if (s_bready) s_bvalid <= 1'b0;
        end
    end

    // The beats are counted.
    wire unused_last = s_wlast;
endmodule

`default_nettype wire
