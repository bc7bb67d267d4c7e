// Takes every word of a stream and counts it, the ends of packets apart, and how many came in the last whole gate time.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_event_counter #(
    parameter WIDTH = 32,
    parameter [31:0] GATE = 32'd100000000
) (
    input  wire             clk,
    input  wire             rst,
    input  wire [WIDTH-1:0] in_tdata,
    input  wire             in_tvalid,
    output wire             in_tready,
    input  wire             in_tlast,
    input  wire             CONTROL_ENABLE,
    input  wire             CONTROL_CLEAR_pulse,
    output reg  [31:0]      COUNT_WORDS,
    output reg  [31:0]      PACKETS_PACKETS,
    output reg  [31:0]      RATE_WORDS
);
    reg [31:0] in_gate;
    reg [31:0] gate;
    wire counts = in_tvalid && CONTROL_ENABLE;
    wire gate_ends = gate == GATE - 32'd1;
    wire unused = |in_tdata;

    assign in_tready = 1'b1;

    always @(posedge clk) begin
        if (rst) begin
            COUNT_WORDS <= 32'd0;
            PACKETS_PACKETS <= 32'd0;
            RATE_WORDS <= 32'd0;
            in_gate <= 32'd0;
            gate <= 32'd0;
        end
        else begin
            // A word that comes with the clear is counted: it is the first of the new count.
            COUNT_WORDS <= (CONTROL_CLEAR_pulse ? 32'd0 : COUNT_WORDS) + {31'd0, counts};
            PACKETS_PACKETS <= (CONTROL_CLEAR_pulse ? 32'd0 : PACKETS_PACKETS) + {31'd0, counts && in_tlast};
            gate <= gate_ends ? 32'd0 : gate + 32'd1;
            in_gate <= (gate_ends ? 32'd0 : in_gate) + {31'd0, counts};
            if (gate_ends) RATE_WORDS <= in_gate;
        end
    end
endmodule

`default_nettype wire
