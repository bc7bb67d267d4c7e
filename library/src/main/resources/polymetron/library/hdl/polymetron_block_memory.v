// Memory with one or two ports. An access takes two cycles: one for the memory, one for what it answers. A memory that software
// cannot write, or can write in whole words only, answers other stores with an error.
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
    output wire                    port_done,
    output reg  [BITS-1:0]         port_answer,
    output wire                    port_error,

    input  wire                    second_request,
    input  wire                    second_write,
    input  wire [ADDRESS_BITS-1:0] second_address,
    input  wire [BITS-1:0]         second_value,
    input  wire [BITS/8-1:0]       second_bytes,
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

    reg port_read;
    wire [ADDRESS_BITS-LOW-1:0] port_word = port_address[ADDRESS_BITS-1:LOW];
    wire port_starts = port_request && !port_read;
    wire port_refuses = WRITABLE == 0 || (BYTE_ENABLES == 0 && port_bytes != {BITS / 8{1'b1}});
    wire port_stores = port_starts && port_write && !port_refuses;
    assign port_done = port_read;
    assign port_error = port_write && port_refuses;

    integer port_part;
    always @(posedge clk) begin
        if (port_stores) begin
            for (port_part = 0; port_part < ENABLES; port_part = port_part + 1) begin
                if (port_bytes[port_part]) words[port_word][PART*port_part +: PART] <= port_value[PART*port_part +: PART];
            end
        end
        if (port_starts && !port_write) port_answer <= words[port_word];
    end

    always @(posedge clk) begin
        if (rst) port_read <= 1'b0;
        else port_read <= port_starts;
    end

    wire unused_port = |port_address[LOW-1:0];

    generate
        if (PORTS > 1) begin : two
            reg read;
            reg [BITS-1:0] answer;
            wire [ADDRESS_BITS-LOW-1:0] word = second_address[ADDRESS_BITS-1:LOW];
            wire starts = second_request && !read;
            wire refuses = WRITABLE == 0 || (BYTE_ENABLES == 0 && second_bytes != {BITS / 8{1'b1}});
            wire stores = starts && second_write && !refuses;
            assign second_done = read;
            assign second_answer = answer;
            assign second_error = second_write && refuses;

            integer part;
            always @(posedge clk) begin
                if (stores) begin
                    for (part = 0; part < ENABLES; part = part + 1) begin
                        if (second_bytes[part]) words[word][PART*part +: PART] <= second_value[PART*part +: PART];
                    end
                end
                if (starts && !second_write) answer <= words[word];
            end

            always @(posedge clk) begin
                if (rst) read <= 1'b0;
                else read <= starts;
            end

            wire unused_second = |second_address[LOW-1:0];
        end
        else begin : single
            assign second_done = 1'b0;
            assign second_answer = {BITS{1'b0}};
            assign second_error = 1'b0;
            wire unused_second = second_request | second_write | (|second_address) | (|second_value) | (|second_bytes);
        end
    endgenerate
endmodule

`default_nettype wire
