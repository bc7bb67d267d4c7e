// Time of the RISC-V ACLINT: MTIME counts once in DIVIDER cycles; a hart's timer line is high while MTIME is not below its
// MTIMECMP, and its software line while software says so.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_machine_timer #(
    parameter DIVIDER = 50
) (
    input  wire        clk,
    input  wire        rst,
    input  wire        MSIP_PENDING,
    input  wire [63:0] MTIMECMP_TIME,
    input  wire [63:0] MTIME_TIME,
    output wire        MTIME_TIME_count,
    output wire        timer,
    output wire        software,
    // for the harts that it serves
    output wire [63:0] mtime
);
    reg [16:0] cycles;
    wire ends = cycles == 17'd0;

    always @(posedge clk) begin
        if (rst) cycles <= DIVIDER - 1;
        else cycles <= ends ? DIVIDER - 1 : cycles - 17'd1;
    end

    assign MTIME_TIME_count = ends;
    assign timer = MTIME_TIME >= MTIMECMP_TIME;
    assign software = MSIP_PENDING;
    assign mtime = MTIME_TIME;
endmodule

`default_nettype wire
