// A stand-in for a lock chamber between an upper and a lower water: two gates above, two below. A drive moves its gate by the width
// of its pulses, half the period for standing; end switches are pressed at both ends. Water goes through open gates as fast
// as the levels differ, and through sluices into the chamber while all gates are shut. A step is a millisecond of the
// chamber's time, of which there are RATE in one of simulation; none where that is 0. All made up, and the same on the bench.
// SPDX-License-Identifier: 0BSD
`timescale 1ps/1ps
`default_nettype none

module polymetron_part_lock_chamber #(
    // 1: pulses; 0: a line that is high for opening and low for shutting
    parameter PULSES = 1
) (
    input  wire [31:0]  rate,
    input  wire [3:0]   drives,
    // For each gate fully open, and fully shut above it.
    output reg  [7:0]   ends,
    // Upper water and chamber, of 4096 for 5 m.
    output reg  [23:0]  gauges,
    // Of each gate, in millionths.
    output wire [127:0] opening
);
    localparam integer OPEN = 1000000;
    localparam signed [63:0] UPPER = 4000000;
    localparam signed [63:0] LOWER = 1000000;
    localparam signed [63:0] GAUGE = 5000000;

    integer open_now [0:3];
    reg signed [63:0] chamber;
    assign opening = {open_now[3], open_now[2], open_now[1], open_now[0]};

    // The last pulse of each drive, and the period before it.
    time rose [0:3];
    time high [0:3];
    time period [0:3];
    reg [3:0] has_risen;
    reg [3:0] was_driven;
    integer line;
    always @(drives) begin
        for (line = 0; line < 4; line = line + 1) begin
            if (drives[line] === 1'b1 && was_driven[line] === 1'b0) begin
                // The first period is not known yet.
                if (has_risen[line]) period[line] = $time - rose[line];
                has_risen[line] = 1'b1;
                rose[line] = $time;
            end
            if (drives[line] === 1'b0 && was_driven[line] === 1'b1) high[line] = $time - rose[line];
        end
        was_driven = drives;
    end

    // Millionths in a step: 125 at 90 % of the period, 8 s from end to end.
    function integer speed(input integer gate);
        real part;
        begin
            if (PULSES == 0) part = drives[gate] === 1'b1 ? 0.9 : 0.1;
            else if (period[gate] == 0 || $time - rose[gate] > 2 * period[gate]) part = 0.0;
            else part = (1.0 * high[gate]) / (1.0 * period[gate]);
            speed = part > 0.02 && part < 0.98 ? $rtoi($floor((part - 0.5) / 0.4 * 125.0 + 0.5)) : 0;
        end
    endfunction

    integer gate;
    reg all_shut;
    reg signed [63:0] both;
    task step;
        begin
            all_shut = 1'b1;
            for (gate = 0; gate < 4; gate = gate + 1) begin
                open_now[gate] = open_now[gate] + speed(gate);
                if (open_now[gate] < 0) open_now[gate] = 0;
                if (open_now[gate] > OPEN) open_now[gate] = OPEN;
                if (open_now[gate] != 0) all_shut = 1'b0;
                ends[2*gate] = open_now[gate] == OPEN;
                ends[2*gate+1] = open_now[gate] == 0;
            end
            both = open_now[0] + open_now[1];
            chamber = chamber + (UPPER - chamber) * both / (2 * OPEN) / 4000;
            both = open_now[2] + open_now[3];
            chamber = chamber + (LOWER - chamber) * both / (2 * OPEN) / 4000;
            if (all_shut) chamber = chamber + 200 > UPPER ? UPPER : chamber + 200;
            show;
        end
    endtask

    task show;
        reg signed [63:0] steps;
        begin
            steps = UPPER * 4095 / GAUGE;
            gauges[11:0] = steps[11:0];
            steps = chamber * 4095 / GAUGE;
            gauges[23:12] = steps[11:0];
        end
    endtask

    integer each;
    initial begin
        for (each = 0; each < 4; each = each + 1) begin
            open_now[each] = 0;
            rose[each] = 0;
            high[each] = 0;
            period[each] = 0;
        end
        has_risen = 4'd0;
        was_driven = 4'd0;
        chamber = LOWER;
        ends = 8'b10101010;
        show;
        // The rate is known after the beginning.
        #1;
        while (rate != 32'd0) begin
            #(1000000000 / rate);
            step;
        end
    end
endmodule

`default_nettype wire
