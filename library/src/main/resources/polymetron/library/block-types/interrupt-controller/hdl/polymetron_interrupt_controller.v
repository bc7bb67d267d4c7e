// Gateways and claims of the RISC-V PLIC 1.0.0 for one context. A source that is high asks once, and again only after its
// completion; of several enabled ones the highest priority is claimed first, and of equal ones the lowest number.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_interrupt_controller #(
    parameter SOURCES = 15,
    parameter PRIORITY_BITS = 3,
    // Words of one bit a source, with that of source 0, which is none.
    parameter WORDS = 1,
    parameter NUMBER_BITS = 4
) (
    input  wire                             clk,
    input  wire                             rst,
    input  wire [SOURCES-1:0]               inputs,
    input  wire [SOURCES*PRIORITY_BITS-1:0] PRIORITY_LEVEL,
    output wire [WORDS*32-1:0]              PENDING_SOURCE,
    input  wire [WORDS*32-1:0]              ENABLE_SOURCE,
    input  wire [PRIORITY_BITS-1:0]         THRESHOLD_LEVEL,
    output wire [NUMBER_BITS-1:0]           CLAIM_SOURCE,
    input  wire                             CLAIM_SOURCE_taken,
    input  wire                             CLAIM_SOURCE_written,
    input  wire [NUMBER_BITS-1:0]           CLAIM_SOURCE_data,
    output wire                             external
);
    reg [SOURCES:0] pending;
    reg [SOURCES:0] claimed;
    reg [NUMBER_BITS-1:0] best;
    reg [PRIORITY_BITS-1:0] highest;
    integer at;

    always @* begin
        best = {NUMBER_BITS{1'b0}};
        highest = {PRIORITY_BITS{1'b0}};
        for (at = 1; at <= SOURCES; at = at + 1) begin
            if (pending[at] && ENABLE_SOURCE[at]
                    && PRIORITY_LEVEL[(at-1)*PRIORITY_BITS +: PRIORITY_BITS] > highest) begin
                best = at[NUMBER_BITS-1:0];
                highest = PRIORITY_LEVEL[(at-1)*PRIORITY_BITS +: PRIORITY_BITS];
            end
        end
    end

    assign CLAIM_SOURCE = best;
    assign external = highest > THRESHOLD_LEVEL;

    wire [WORDS*32-1:0] all_pending = {{WORDS * 32 - SOURCES{1'b0}}, pending[SOURCES:1]} << 1;
    assign PENDING_SOURCE = all_pending;

    wire [SOURCES:0] one = {{SOURCES{1'b0}}, 1'b1};
    wire [SOURCES:0] levels = {inputs, 1'b0};
    wire [SOURCES:0] taken = CLAIM_SOURCE_taken ? (one << best) & {{SOURCES{1'b1}}, 1'b0} : {SOURCES + 1{1'b0}};
    // A completion of a source that is not enabled, or was not claimed, is ignored.
    wire [SOURCES:0] completed = CLAIM_SOURCE_written
        ? (one << CLAIM_SOURCE_data) & ENABLE_SOURCE[SOURCES:0] & claimed : {SOURCES + 1{1'b0}};

    always @(posedge clk) begin
        if (rst) begin
            pending <= {SOURCES + 1{1'b0}};
            claimed <= {SOURCES + 1{1'b0}};
        end
        else begin
            pending <= (pending | (levels & (~claimed | completed))) & ~taken;
            claimed <= (claimed & ~completed) | taken;
        end
    end

`ifdef VERILATOR
    wire unused_sources = ^ENABLE_SOURCE;
`endif
endmodule

`default_nettype wire
