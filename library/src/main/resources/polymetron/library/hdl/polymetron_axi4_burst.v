// The beats of one burst of AXI4 (Arm IHI 0022, A3.4.1): the first one is that of the address channel as it stands there,
// the others follow from here. FIXED stays at its address, WRAP comes back to the beginning of its range, INCR goes on.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_axi4_burst #(
    parameter ADDRESS_BITS = 12
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
    output wire [7:0]              beat_id,
    input  wire                    step
);
    // Enough for the range of any burst, also where the addresses are few.
    localparam BITS = ADDRESS_BITS > 16 ? ADDRESS_BITS : 16;

    reg going;
    reg [7:0] left;
    reg [7:0] its_id;
    reg [7:0] its_len;
    reg [2:0] its_size;
    reg [1:0] its_burst;
    reg [ADDRESS_BITS-1:0] at;

    assign beat = going || valid;
    assign address = going ? at : addr;
    assign last = going ? left == 8'd0 : len == 8'd0;
    assign beat_id = going ? its_id : id;
    assign taken = step && !going;

    wire [2:0] now_size = going ? its_size : size;
    wire [1:0] now_burst = going ? its_burst : burst;
    wire [7:0] now_len = going ? its_len : len;
    wire [BITS-1:0] one = {{BITS - 1{1'b0}}, 1'b1};
    wire [BITS-1:0] bytes = one << now_size;
    wire [BITS-1:0] here = {{BITS - ADDRESS_BITS{1'b0}}, address};
    wire [BITS-1:0] after = (here & ~(bytes - one)) + bytes;
    // Bytes of the whole burst less one: beats of a WRAP are a power of two.
    wire [BITS-1:0] range = (({{BITS - 8{1'b0}}, now_len} + one) << now_size) - one;
    wire [BITS-1:0] next =
        now_burst == 2'b00 ? here : now_burst == 2'b10 ? (here & ~range) | (after & range) : after;

    always @(posedge clk) begin
        if (rst) begin
            going <= 1'b0;
            left <= 8'd0;
            its_id <= 8'd0;
            its_len <= 8'd0;
            its_size <= 3'd0;
            its_burst <= 2'd0;
            at <= {ADDRESS_BITS{1'b0}};
        end
        else if (step) begin
            going <= !last;
            at <= next[ADDRESS_BITS-1:0];
            left <= going ? left - 8'd1 : len - 8'd1;
            if (!going) begin
                its_id <= id;
                its_len <= len;
                its_size <= size;
                its_burst <= burst;
            end
        end
    end

    generate
        if (BITS > ADDRESS_BITS) begin : few
`ifdef VERILATOR
            wire unused_next = |next[BITS-1:ADDRESS_BITS];
`endif
        end
    endgenerate
endmodule

`default_nettype wire
