// Accesses of narrow words on a wide bus: in the part of the wide word that the address is in.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_widen #(
    parameter ADDRESS_BITS = 12,
    parameter NARROW = 32,
    parameter WIDE = 64
) (
    input  wire                    request,
    input  wire                    write,
    input  wire [ADDRESS_BITS-1:0] address,
    input  wire [NARROW-1:0]       value,
    input  wire [NARROW/8-1:0]     bytes,
    output wire                    done,
    output reg  [NARROW-1:0]       answer,
    output wire                    error,

    output wire                    wide_request,
    output wire                    wide_write,
    output wire [ADDRESS_BITS-1:0] wide_address,
    output wire [WIDE-1:0]         wide_value,
    output reg  [WIDE/8-1:0]       wide_bytes,
    input  wire                    wide_done,
    input  wire [WIDE-1:0]         wide_answer,
    input  wire                    wide_error
);
    localparam PARTS = WIDE / NARROW;
    localparam PART_BITS = PARTS > 4 ? 3 : PARTS > 2 ? 2 : 1;
    localparam LOW = NARROW > 64 ? 4 : NARROW > 32 ? 3 : 2;

    wire [PART_BITS-1:0] part = address[LOW+PART_BITS-1:LOW];

    assign wide_request = request;
    assign wide_write = write;
    assign wide_address = address;
    assign wide_value = {PARTS{value}};
    assign done = wide_done;
    assign error = wide_error;

    integer each;
    always @(*) begin
        answer = wide_answer[NARROW-1:0];
        wide_bytes = {WIDE / 8{1'b0}};
        for (each = 0; each < PARTS; each = each + 1) begin
            if (part == each[PART_BITS-1:0]) begin
                answer = wide_answer[NARROW*each +: NARROW];
                wide_bytes[NARROW/8*each +: NARROW/8] = bytes;
            end
        end
    end
endmodule

`default_nettype wire
