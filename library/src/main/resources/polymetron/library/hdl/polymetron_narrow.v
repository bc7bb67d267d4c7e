// Accesses of wide words as accesses of narrow ones, one after the other from the lowest address on. A write goes to the parts
// of which it has bytes; a read has no bytes on these buses and goes to all of them. An error in one part is an error of
// the access.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_narrow #(
    parameter ADDRESS_BITS = 12,
    parameter WIDE = 64,
    parameter NARROW = 32
) (
    input  wire                    clk,
    input  wire                    rst,

    input  wire                    request,
    input  wire                    write,
    input  wire [ADDRESS_BITS-1:0] address,
    input  wire [WIDE-1:0]         value,
    input  wire [WIDE/8-1:0]       bytes,
    output wire                    done,
    output reg  [WIDE-1:0]         answer,
    output wire                    error,

    output wire                    narrow_request,
    output wire                    narrow_write,
    output wire [ADDRESS_BITS-1:0] narrow_address,
    output reg  [NARROW-1:0]       narrow_value,
    output reg  [NARROW/8-1:0]     narrow_bytes,
    input  wire                    narrow_done,
    input  wire [NARROW-1:0]       narrow_answer,
    input  wire                    narrow_error
);
    localparam PARTS = WIDE / NARROW;
    localparam PART_BITS = PARTS > 4 ? 3 : PARTS > 2 ? 2 : 1;
    localparam LOW = NARROW > 64 ? 4 : NARROW > 32 ? 3 : 2;
    localparam [31:0] LAST = PARTS - 1;

    reg [PART_BITS-1:0] part;
    reg [WIDE-1:0] read;
    reg failed;

    wire is_skipped = write && narrow_bytes == {NARROW / 8{1'b0}};
    wire part_done = request && (is_skipped || narrow_done);
    wire part_failed = !is_skipped && narrow_error;

    assign narrow_request = request && !is_skipped;
    assign narrow_write = write;
    assign narrow_address = {address[ADDRESS_BITS-1:LOW+PART_BITS], part, {LOW{1'b0}}};
    assign done = part_done && part == LAST[PART_BITS-1:0];
    assign error = failed || part_failed;

    integer each;
    always @(*) begin
        narrow_value = value[NARROW-1:0];
        narrow_bytes = bytes[NARROW/8-1:0];
        answer = read;
        for (each = 0; each < PARTS; each = each + 1) begin
            if (part == each[PART_BITS-1:0]) begin
                narrow_value = value[NARROW*each +: NARROW];
                narrow_bytes = bytes[NARROW/8*each +: NARROW/8];
                answer[NARROW*each +: NARROW] = narrow_answer;
            end
        end
    end

    always @(posedge clk) begin
        if (rst || done) begin
            part <= {PART_BITS{1'b0}};
            failed <= 1'b0;
        end
        else if (part_done) begin
            part <= part + {{PART_BITS - 1{1'b0}}, 1'b1};
            failed <= failed || part_failed;
        end
    end

    always @(posedge clk) begin
        if (rst) read <= {WIDE{1'b0}};
        else if (part_done) read <= answer;
    end

    wire unused_address = |address[LOW+PART_BITS-1:0];
endmodule

`default_nettype wire
