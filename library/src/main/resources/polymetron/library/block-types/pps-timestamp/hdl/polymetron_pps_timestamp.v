// Seconds that begin with a pulse. A pulse is believed where one is due: a second after the last one, or where this one ends, give or
// take a window. Without a pulse a second ends when the window has passed, and has begun by then. Reading the seconds holds the cycles.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_pps_timestamp #(
    parameter [31:0] NOMINAL = 32'd100000000,
    parameter [31:0] WINDOW = 32'd20000
) (
    input  wire        clk,
    input  wire        rst,
    input  wire        pulse,
    input  wire        CONTROL_ENABLE,
    output wire        STATUS_PULSE_set,
    output wire        STATUS_MISSED_set,
    output wire        STATUS_STRAY_set,
    input  wire        SECONDS_SECONDS_taken,
    output wire        SECONDS_SECONDS_count,
    output reg  [31:0] CYCLES_CYCLES,
    output reg  [31:0] LENGTH_CYCLES
);
    wire level;
    polymetron_synchroniser #(.BITS(1)) receiver (.clk(clk), .rst(rst), .in(pulse), .out(level));

    reg was;
    // A pulse has begun a second.
    reg follows;
    // In this second, and since the last pulse: no further than it matters.
    reg [31:0] passed;
    reg [31:0] since;
    wire begins = level && !was && CONTROL_ENABLE;
    wire [31:0] earliest = LENGTH_CYCLES - WINDOW;
    wire [31:0] latest = LENGTH_CYCLES + WINDOW;
    wire [31:0] now = passed + 32'd1;
    wire [31:0] interval = since + 32'd1;
    wire is_interval = follows && interval >= earliest && interval <= latest;
    wire is_due = now >= earliest && now <= latest;
    // Just after a second that ended without a pulse it would be late by more than the window.
    wire believed = begins && (!follows || is_interval || is_due);
    wire runs_out = now >= (CONTROL_ENABLE && follows ? latest : LENGTH_CYCLES);
    wire missed = runs_out && !believed;

    assign STATUS_PULSE_set = believed || missed;
    assign STATUS_MISSED_set = missed && CONTROL_ENABLE && follows;
    assign STATUS_STRAY_set = begins && !believed;
    assign SECONDS_SECONDS_count = believed || missed;

    always @(posedge clk) begin
        if (rst) begin
            was <= 1'b0;
            follows <= 1'b0;
            passed <= 32'd0;
            since <= 32'd0;
            LENGTH_CYCLES <= NOMINAL;
            CYCLES_CYCLES <= 32'd0;
        end
        else begin
            was <= level;
            if (believed) follows <= 1'b1;
            passed <= believed ? 32'd0 : missed ? (CONTROL_ENABLE && follows ? WINDOW : 32'd0) : now;
            since <= begins ? 32'd0 : since > latest ? since : interval;
            if (begins && is_interval) LENGTH_CYCLES <= interval;
            if (SECONDS_SECONDS_taken) CYCLES_CYCLES <= passed;
        end
    end
endmodule

`default_nettype wire
