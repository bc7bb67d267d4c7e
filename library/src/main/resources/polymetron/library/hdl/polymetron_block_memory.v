// Memory with one or two ports. An access takes two cycles: one for the memory, one for what it answers. A memory that software
// cannot write, or can write in whole words only, answers other stores with an error. Where an access is announced to be to the
// following word it takes one: a read is under way before its request, and a store is done as it comes.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_block_memory #(
    parameter ADDRESS_BITS = 14,
    parameter WORDS = 4096,
    parameter BITS = 32,
    parameter PORTS = 1,
    parameter WRITABLE = 1,
    parameter BYTE_ENABLES = 1,
    // A file for $readmemh with all words; none leaves them as the device does.
    parameter CONTENTS = ""
) (
    input  wire                    clk,
    input  wire                    rst,

    input  wire                    port_request,
    input  wire                    port_write,
    input  wire [ADDRESS_BITS-1:0] port_address,
    input  wire [BITS-1:0]         port_value,
    input  wire [BITS/8-1:0]       port_bytes,
    input  wire                    port_more,
    output wire                    port_done,
    output reg  [BITS-1:0]         port_answer,
    output wire                    port_error,

    input  wire                    second_request,
    input  wire                    second_write,
    input  wire [ADDRESS_BITS-1:0] second_address,
    input  wire [BITS-1:0]         second_value,
    input  wire [BITS/8-1:0]       second_bytes,
    input  wire                    second_more,
    output wire                    second_done,
    output wire [BITS-1:0]         second_answer,
    output wire                    second_error
);
    localparam LOW = BITS > 64 ? 4 : BITS > 32 ? 3 : 2;
    localparam ENABLES = BYTE_ENABLES != 0 ? BITS / 8 : 1;
    localparam PART = BITS / ENABLES;

    reg [BITS-1:0] words [0:WORDS-1];

    initial begin
        if (CONTENTS != "") $readmemh(CONTENTS, words);
    end

    // An access began a cycle before, or is one that was announced: in that direction, and no other came in between.
    reg port_answers;
    reg port_ahead;
    reg port_ahead_writes;
    wire [ADDRESS_BITS-LOW-1:0] port_word = port_address[ADDRESS_BITS-1:LOW];
    wire port_is_ready = port_answers && (!port_ahead || port_ahead_writes == port_write);
    wire port_starts = port_request && !port_is_ready;
    wire port_goes_on = port_request && port_is_ready && port_more;
    wire [ADDRESS_BITS-LOW-1:0] port_next = port_word + {{ADDRESS_BITS - LOW - 1{1'b0}}, port_is_ready};
    wire port_refuses = WRITABLE == 0 || (BYTE_ENABLES == 0 && port_bytes != {BITS / 8{1'b1}});
    wire port_stores = port_request && port_write && !port_refuses && (port_ahead || !port_is_ready);
    assign port_done = port_is_ready;
    assign port_error = port_write && port_refuses;

    integer port_part;
    always @(posedge clk) begin
        if (port_stores) begin
            for (port_part = 0; port_part < ENABLES; port_part = port_part + 1) begin
                if (port_bytes[port_part]) words[port_word][PART*port_part +: PART] <= port_value[PART*port_part +: PART];
            end
        end
        if ((port_starts || port_goes_on) && !port_write) port_answer <= words[port_next];
    end

    always @(posedge clk) begin
        if (rst) begin
            port_answers <= 1'b0;
            port_ahead <= 1'b0;
            port_ahead_writes <= 1'b0;
        end
        else if (port_request || !port_ahead) begin
            port_answers <= port_starts || port_goes_on;
            port_ahead <= port_goes_on;
            port_ahead_writes <= port_write;
        end
    end

    wire unused_port = |port_address[LOW-1:0];

    generate
        if (PORTS > 1) begin : two
            reg [BITS-1:0] answer;
            // An access began a cycle before, or is one that was announced: in that direction, and no other came in between.
            reg answers;
            reg ahead;
            reg ahead_writes;
            wire [ADDRESS_BITS-LOW-1:0] word = second_address[ADDRESS_BITS-1:LOW];
            wire is_ready = answers && (!ahead || ahead_writes == second_write);
            wire starts = second_request && !is_ready;
            wire goes_on = second_request && is_ready && second_more;
            wire [ADDRESS_BITS-LOW-1:0] next = word + {{ADDRESS_BITS - LOW - 1{1'b0}}, is_ready};
            wire refuses = WRITABLE == 0 || (BYTE_ENABLES == 0 && second_bytes != {BITS / 8{1'b1}});
            wire stores = second_request && second_write && !refuses && (ahead || !is_ready);
            assign second_done = is_ready;
            assign second_answer = answer;
            assign second_error = second_write && refuses;

            integer part;
            always @(posedge clk) begin
                if (stores) begin
                    for (part = 0; part < ENABLES; part = part + 1) begin
                        if (second_bytes[part]) words[word][PART*part +: PART] <= second_value[PART*part +: PART];
                    end
                end
                if ((starts || goes_on) && !second_write) answer <= words[next];
            end

            always @(posedge clk) begin
                if (rst) begin
                    answers <= 1'b0;
                    ahead <= 1'b0;
                    ahead_writes <= 1'b0;
                end
                else if (second_request || !ahead) begin
                    answers <= starts || goes_on;
                    ahead <= goes_on;
                    ahead_writes <= second_write;
                end
            end

            wire unused_second = |second_address[LOW-1:0];
        end
        else begin : single
            assign second_done = 1'b0;
            assign second_answer = {BITS{1'b0}};
            assign second_error = 1'b0;
            wire unused_second = second_request | second_write | second_more | (|second_address) | (|second_value) | (|second_bytes);
        end
    endgenerate
endmodule

`default_nettype wire
