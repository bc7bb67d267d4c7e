// Counts down from LOAD, one each PRESCALE + 1 cycles; the step from 0 on is the end, which is noted, and from which it goes
// on from LOAD or stops. Writing LOAD counts from there; writing any register begins a new step.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_general_timer #(
    parameter WIDTH = 32
) (
    input  wire             clk,
    input  wire             rst,
    input  wire             CONTROL_RUN,
    input  wire             CONTROL_RUN_stored,
    output wire             CONTROL_RUN_load,
    output wire             CONTROL_RUN_new,
    input  wire             CONTROL_REPEAT,
    input  wire [WIDTH-1:0] LOAD_COUNT,
    input  wire             LOAD_COUNT_stored,
    output wire [WIDTH-1:0] COUNT_COUNT,
    input  wire [15:0]      PRESCALE_CYCLES,
    input  wire             PRESCALE_CYCLES_stored,
    output wire             PENDING_END_set
);
    reg [WIDTH-1:0] count;
    reg [15:0] cycles;
    // What was written is there in the cycle after.
    reg loads;

    wire [WIDTH-1:0] now = loads ? LOAD_COUNT : count;
    wire steps = CONTROL_RUN && cycles == PRESCALE_CYCLES;
    wire ends = steps && now == {WIDTH{1'b0}};
    wire stored = CONTROL_RUN_stored || LOAD_COUNT_stored || PRESCALE_CYCLES_stored;

    assign COUNT_COUNT = now;
    assign PENDING_END_set = ends;
    assign CONTROL_RUN_load = ends && !CONTROL_REPEAT;
    assign CONTROL_RUN_new = 1'b0;

    always @(posedge clk) begin
        if (rst) begin
            count <= {WIDTH{1'b0}};
            cycles <= 16'd0;
            loads <= 1'b0;
        end
        else begin
            loads <= LOAD_COUNT_stored;
            cycles <= stored || steps || !CONTROL_RUN ? 16'd0 : cycles + 16'd1;
            count <= ends ? (CONTROL_REPEAT ? LOAD_COUNT : {WIDTH{1'b0}})
                : steps ? now - {{WIDTH - 1{1'b0}}, 1'b1} : now;
        end
    end
endmodule

`default_nettype wire
