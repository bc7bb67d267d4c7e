// Counts down from TIME. Below half of it there is a warning, and at the end a reset of some cycles, which is also there as long
// as the watchdog itself is reset; then it counts again. Another word than the key resets at once.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_watchdog (
    input  wire        clk,
    input  wire        rst,
    input  wire        CONTROL_RUN,
    input  wire [31:0] TIME_CYCLES,
    output wire [31:0] COUNT_CYCLES,
    input  wire        RENEW_KEY_written,
    input  wire [31:0] RENEW_KEY_data,
    output wire        CAUSE_WATCHDOG_set,
    output wire        warning,
    output reg         expired
);
    localparam [31:0] KEY = 32'h5EED_CAFE;
    localparam [3:0] RESET_CYCLES = 4'd15;

    reg [31:0] count;
    // It has taken its time over.
    reg started;
    reg [3:0] resets;
    wire renews = RENEW_KEY_written && RENEW_KEY_data == KEY;
    wire fails = RENEW_KEY_written && RENEW_KEY_data != KEY;
    wire ends = CONTROL_RUN && started && count == 32'd0;

    assign COUNT_CYCLES = count;
    assign CAUSE_WATCHDOG_set = ends || fails;
    assign warning = CONTROL_RUN && started && count < {1'b0, TIME_CYCLES[31:1]};

    always @(posedge clk) begin
        if (rst) begin
            count <= 32'd0;
            started <= 1'b0;
            resets <= 4'd0;
            expired <= 1'b1;
        end
        else begin
            expired <= ends || fails || resets != 4'd0;
            if (ends || fails) resets <= RESET_CYCLES;
            else if (resets != 4'd0) resets <= resets - 4'd1;
            started <= CONTROL_RUN;
            if (renews || ends || fails || (CONTROL_RUN && !started)) count <= TIME_CYCLES;
            else if (CONTROL_RUN && started) count <= count - 32'd1;
        end
    end
endmodule

`default_nettype wire
