// Gateways and claims of the RISC-V PLIC 1.0.0. A source that is high asks once, and again only after its completion. In each
// context the enabled source with the highest priority is claimed first, and of equal ones that with the lowest number.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_interrupt_controller #(
    parameter SOURCES = 15,
    parameter PRIORITY_BITS = 3,
    // Words of one bit a source, with that of source 0, which is none.
    parameter WORDS = 1,
    parameter NUMBER_BITS = 4,
    // 1 to 4
    parameter CONTEXTS = 1
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
    output wire                             external,

    input  wire [WORDS*32-1:0]              ENABLE1_SOURCE,
    input  wire [PRIORITY_BITS-1:0]         THRESHOLD1_LEVEL,
    output wire [NUMBER_BITS-1:0]           CLAIM1_SOURCE,
    input  wire                             CLAIM1_SOURCE_taken,
    input  wire                             CLAIM1_SOURCE_written,
    input  wire [NUMBER_BITS-1:0]           CLAIM1_SOURCE_data,
    output wire                             external1,

    input  wire [WORDS*32-1:0]              ENABLE2_SOURCE,
    input  wire [PRIORITY_BITS-1:0]         THRESHOLD2_LEVEL,
    output wire [NUMBER_BITS-1:0]           CLAIM2_SOURCE,
    input  wire                             CLAIM2_SOURCE_taken,
    input  wire                             CLAIM2_SOURCE_written,
    input  wire [NUMBER_BITS-1:0]           CLAIM2_SOURCE_data,
    output wire                             external2,

    input  wire [WORDS*32-1:0]              ENABLE3_SOURCE,
    input  wire [PRIORITY_BITS-1:0]         THRESHOLD3_LEVEL,
    output wire [NUMBER_BITS-1:0]           CLAIM3_SOURCE,
    input  wire                             CLAIM3_SOURCE_taken,
    input  wire                             CLAIM3_SOURCE_written,
    input  wire [NUMBER_BITS-1:0]           CLAIM3_SOURCE_data,
    output wire                             external3
);
    localparam [SOURCES:0] ONE = {{SOURCES{1'b0}}, 1'b1};

    // --- gateways

    reg [SOURCES:0] pending;
    reg [SOURCES:0] claimed;
    wire [SOURCES:0] levels = {inputs, 1'b0};
    wire [SOURCES:0] taken;
    wire [SOURCES:0] completed;

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

    wire [WORDS*32-1:0] all_pending = {{WORDS * 32 - SOURCES{1'b0}}, pending[SOURCES:1]} << 1;
    assign PENDING_SOURCE = all_pending;

    // --- contexts, the first one lowest

    wire [4*WORDS*32-1:0] enables = {ENABLE3_SOURCE, ENABLE2_SOURCE, ENABLE1_SOURCE, ENABLE_SOURCE};
    wire [4*PRIORITY_BITS-1:0] thresholds = {THRESHOLD3_LEVEL, THRESHOLD2_LEVEL, THRESHOLD1_LEVEL, THRESHOLD_LEVEL};
    wire [3:0] takes = {CLAIM3_SOURCE_taken, CLAIM2_SOURCE_taken, CLAIM1_SOURCE_taken, CLAIM_SOURCE_taken};
    wire [3:0] completes = {CLAIM3_SOURCE_written, CLAIM2_SOURCE_written, CLAIM1_SOURCE_written, CLAIM_SOURCE_written};
    wire [4*NUMBER_BITS-1:0] numbers = {CLAIM3_SOURCE_data, CLAIM2_SOURCE_data, CLAIM1_SOURCE_data, CLAIM_SOURCE_data};
    wire [4*NUMBER_BITS-1:0] claims;
    wire [3:0] lines;
    wire [4*(SOURCES+1)-1:0] all_taken;
    wire [4*(SOURCES+1)-1:0] all_completed;

    genvar context_number;
    generate
        for (context_number = 0; context_number < 4; context_number = context_number + 1) begin : contexts
            if (context_number < CONTEXTS) begin : one_context
                wire [SOURCES:0] enabled = enables[context_number*WORDS*32 +: SOURCES+1];
                reg [NUMBER_BITS-1:0] best;
                reg [PRIORITY_BITS-1:0] highest;
                integer at;
                always @(*) begin
                    best = {NUMBER_BITS{1'b0}};
                    highest = {PRIORITY_BITS{1'b0}};
                    for (at = 1; at <= SOURCES; at = at + 1) begin
                        if (pending[at] && enabled[at]
                                && PRIORITY_LEVEL[(at-1)*PRIORITY_BITS +: PRIORITY_BITS] > highest) begin
                            best = at[NUMBER_BITS-1:0];
                            highest = PRIORITY_LEVEL[(at-1)*PRIORITY_BITS +: PRIORITY_BITS];
                        end
                    end
                end
                assign claims[context_number*NUMBER_BITS +: NUMBER_BITS] = best;
                assign lines[context_number] = highest > thresholds[context_number*PRIORITY_BITS +: PRIORITY_BITS];
                assign all_taken[context_number*(SOURCES+1) +: SOURCES+1] = takes[context_number]
                    ? (ONE << best) & ~ONE : {SOURCES + 1{1'b0}};
                // A completion of a source that is not enabled, or was not claimed, is ignored.
                assign all_completed[context_number*(SOURCES+1) +: SOURCES+1] = completes[context_number]
                    ? (ONE << numbers[context_number*NUMBER_BITS +: NUMBER_BITS]) & enabled & claimed
                    : {SOURCES + 1{1'b0}};
            end
            else begin : no_context
                assign claims[context_number*NUMBER_BITS +: NUMBER_BITS] = {NUMBER_BITS{1'b0}};
                assign lines[context_number] = 1'b0;
                assign all_taken[context_number*(SOURCES+1) +: SOURCES+1] = {SOURCES + 1{1'b0}};
                assign all_completed[context_number*(SOURCES+1) +: SOURCES+1] = {SOURCES + 1{1'b0}};
            end
        end
    endgenerate

    assign {CLAIM3_SOURCE, CLAIM2_SOURCE, CLAIM1_SOURCE, CLAIM_SOURCE} = claims;
    assign {external3, external2, external1, external} = lines;
    assign taken = all_taken[SOURCES:0] | all_taken[SOURCES+1 +: SOURCES+1]
        | all_taken[2*(SOURCES+1) +: SOURCES+1] | all_taken[3*(SOURCES+1) +: SOURCES+1];
    assign completed = all_completed[SOURCES:0] | all_completed[SOURCES+1 +: SOURCES+1]
        | all_completed[2*(SOURCES+1) +: SOURCES+1] | all_completed[3*(SOURCES+1) +: SOURCES+1];

    wire unused_contexts = (^enables) | (^thresholds) | (^takes) | (^completes) | (^numbers);
endmodule

`default_nettype wire
