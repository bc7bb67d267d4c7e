// The target end of AXI4-Lite (Arm IHI 0022): what comes over the bus goes on as one access after the other. Address and data of
// a write may come in either order. The answer is registered: an access of n cycles takes n + 1 on the bus. A read and a
// write that wait for each other go in turn.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_axi4_lite_target #(
    parameter ADDRESS_BITS = 12,
    parameter DATA_BITS = 32
) (
    input  wire                    clk,
    input  wire                    rst,

    input  wire [ADDRESS_BITS-1:0] s_awaddr,
    input  wire                    s_awvalid,
    output wire                    s_awready,
    input  wire [DATA_BITS-1:0]    s_wdata,
    input  wire [DATA_BITS/8-1:0]  s_wstrb,
    input  wire                    s_wvalid,
    output wire                    s_wready,
    output wire [1:0]              s_bresp,
    output reg                     s_bvalid,
    input  wire                    s_bready,
    input  wire [ADDRESS_BITS-1:0] s_araddr,
    input  wire                    s_arvalid,
    output wire                    s_arready,
    output reg  [DATA_BITS-1:0]    s_rdata,
    output wire [1:0]              s_rresp,
    output reg                     s_rvalid,
    input  wire                    s_rready,

    // One access: everything stays as it is from the request until it is done.
    output wire                    request,
    output wire                    write,
    output wire [ADDRESS_BITS-1:0] address,
    output wire [DATA_BITS-1:0]    value,
    output wire [DATA_BITS/8-1:0]  bytes,
    input  wire                    done,
    input  wire [DATA_BITS-1:0]    answer,
    input  wire                    error
);
    reg busy;
    reg busy_writes;
    reg write_first;
    reg read_failed;
    reg write_failed;

    wire can_read = s_arvalid && (!s_rvalid || s_rready);
    wire can_write = s_awvalid && s_wvalid && (!s_bvalid || s_bready);
    assign write = busy ? busy_writes : can_write && (write_first || !can_read);
    assign request = busy || can_read || can_write;
    assign address = write ? s_awaddr : s_araddr;
    assign value = s_wdata;
    assign bytes = write ? s_wstrb : {DATA_BITS / 8{1'b1}};

    wire read_ends = request && done && !write;
    wire write_ends = request && done && write;
    assign s_arready = read_ends;
    assign s_awready = write_ends;
    assign s_wready = write_ends;
    assign s_rresp = {read_failed, 1'b0};
    assign s_bresp = {write_failed, 1'b0};

    always @(posedge clk) begin
        if (rst) begin
            busy <= 1'b0;
            busy_writes <= 1'b0;
            write_first <= 1'b0;
            s_rvalid <= 1'b0;
            s_rdata <= {DATA_BITS{1'b0}};
            read_failed <= 1'b0;
            s_bvalid <= 1'b0;
            write_failed <= 1'b0;
        end
        else begin
            busy <= request && !done;
            busy_writes <= write;
            if (request && done) write_first <= !write;
            if (read_ends) begin
                s_rvalid <= 1'b1;
                s_rdata <= answer;
                read_failed <= error;
            end
            else if (s_rready) s_rvalid <= 1'b0;
            if (write_ends) begin
                s_bvalid <= 1'b1;
                write_failed <= error;
            end
            else if (s_bready) s_bvalid <= 1'b0;
        end
    end
endmodule

`default_nettype wire
