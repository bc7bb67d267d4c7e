// The beats of one burst of AXI4 (Arm IHI 0022, A3.4.1): the first one is that of the address channel as it stands there,
// the others follow from here. FIXED stays at its address, WRAP comes back to the beginning of its range, INCR goes on; none
// leaves its 4 KiB, so that only the lower twelve bits of an address change.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_axi4_burst #(
    parameter ADDRESS_BITS = 12,
    parameter DATA_BITS = 32
) (
    input  wire                    clk,
    input  wire                    rst,

    // The address channel, and whether it is taken now.
    input  wire                    valid,
    input  wire [7:0]              id,
    input  wire [ADDRESS_BITS-1:0] addr,
    input  wire [7:0]              len,
    input  wire [2:0]              size,
    input  wire [1:0]              burst,
    output wire                    taken,

    // The beat that is to be done next, and that it is done now.
    output wire                    beat,
    output wire [ADDRESS_BITS-1:0] address,
    output wire                    last,
    // Whether the one behind it is the following word.
    output wire                    goes_on,
    output wire [7:0]              beat_id,
    input  wire                    step
);
    localparam BITS = ADDRESS_BITS < 12 ? ADDRESS_BITS : 12;
    // Sizes that fit the data, as powers of two.
    localparam LARGEST = $clog2(DATA_BITS / 8);
    localparam SIZE_BITS = LARGEST < 2 ? 1 : LARGEST < 4 ? 2 : 3;

    localparam [1:0] INCR = 2'b01;
    localparam [31:0] LARGEST_SIZE = LARGEST;
    localparam [SIZE_BITS-1:0] WHOLE = LARGEST_SIZE[SIZE_BITS-1:0];

    reg going;
    reg [7:0] left;
    reg [7:0] its_id;
    reg [3:0] its_len;
    reg [SIZE_BITS-1:0] its_size;
    reg [1:0] its_burst;
    reg [ADDRESS_BITS-1:0] at;

    wire [SIZE_BITS-1:0] now_size = going ? its_size : size[SIZE_BITS-1:0];
    wire [1:0] now_burst = going ? its_burst : burst;
    assign beat = going || valid;
    assign address = going ? at : addr;
    assign last = going ? left == 8'd0 : len == 8'd0;
    assign beat_id = going ? its_id : id;
    assign taken = step && !going;
    assign goes_on = !last && now_burst == INCR && now_size == WHOLE;

    // A WRAP has 2, 4, 8 or 16 beats.
    wire [3:0] now_len = going ? its_len : len[3:0];
    wire [11:0] below = (12'd1 << now_size) - 12'd1;
    wire [11:0] here = {{12 - BITS{1'b0}}, address[BITS-1:0]};
    wire [11:0] after = (here | below) + 12'd1;
    // Bytes of the whole burst less one.
    wire [11:0] range = ({8'd0, now_len} << now_size) | below;
    wire [11:0] wrapped = (here & ~range) | (after & range);
    wire [11:0] next = now_burst == 2'b00 ? here : now_burst == 2'b10 ? wrapped : after;

    always @(posedge clk) begin
        if (rst) begin
            going <= 1'b0;
            left <= 8'd0;
            its_id <= 8'd0;
            its_len <= 4'd0;
            its_size <= {SIZE_BITS{1'b0}};
            its_burst <= 2'd0;
            at <= {ADDRESS_BITS{1'b0}};
        end
        else if (step) begin
            going <= !last;
            at <= address;
            at[BITS-1:0] <= next[BITS-1:0];
            left <= going ? left - 8'd1 : len - 8'd1;
            if (!going) begin
                its_id <= id;
                its_len <= len[3:0];
                its_size <= size[SIZE_BITS-1:0];
                its_burst <= burst;
            end
        end
    end

    wire unused_size = |size | |next | |LARGEST_SIZE;
endmodule

`default_nettype wire
