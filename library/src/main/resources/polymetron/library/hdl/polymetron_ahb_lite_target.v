// The subordinate's end of AHB-Lite (Arm IHI 0033): a transfer goes on as one access in its data phase, which waits until it is
// done. An error takes the two cycles that the standard asks for. An access of n cycles takes n + 1 on the bus.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_ahb_lite_target #(
    parameter ADDRESS_BITS = 12,
    parameter DATA_BITS = 32
) (
    input  wire                    clk,
    input  wire                    rst,

    input  wire                    s_hsel,
    input  wire [ADDRESS_BITS-1:0] s_haddr,
    input  wire [1:0]              s_htrans,
    input  wire                    s_hwrite,
    input  wire [2:0]              s_hsize,
    input  wire [2:0]              s_hburst,
    input  wire [DATA_BITS-1:0]    s_hwdata,
    input  wire                    s_hready,
    output wire                    s_hreadyout,
    output wire [DATA_BITS-1:0]    s_hrdata,
    output wire                    s_hresp,

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
    localparam LANES = DATA_BITS / 8;
    localparam LANE_BITS = $clog2(LANES);

    reg pending;
    reg failing;
    reg writes;
    reg [ADDRESS_BITS-1:0] at;
    reg [2:0] size;

    // An address phase, of a transfer that is none of IDLE and BUSY.
    wire begins = s_hsel && s_htrans[1] && s_hready;
    wire is_done = request && done;

    assign request = pending && !failing;
    assign write = writes;
    assign address = at;
    assign value = s_hwdata;
    wire [LANE_BITS-1:0] lane = at[LANE_BITS-1:0];
    wire [LANES-1:0] several = ~({LANES{1'b1}} << (8'd1 << size));
    assign bytes = write ? several << lane : {LANES{1'b1}};

    assign s_hreadyout = !pending || failing || (is_done && !error);
    assign s_hresp = failing || (is_done && error);
    assign s_hrdata = answer;

    always @(posedge clk) begin
        if (rst) begin
            pending <= 1'b0;
            failing <= 1'b0;
            writes <= 1'b0;
            at <= {ADDRESS_BITS{1'b0}};
            size <= 3'd0;
        end
        else begin
            failing <= is_done && error;
            if (begins) begin
                pending <= 1'b1;
                writes <= s_hwrite;
                at <= s_haddr;
                size <= s_hsize;
            end
            else if (s_hreadyout) pending <= 1'b0;
        end
    end

    // Each transfer of a burst has an address of its own.
    wire unused_burst = |s_hburst | s_htrans[0];
endmodule

`default_nettype wire
