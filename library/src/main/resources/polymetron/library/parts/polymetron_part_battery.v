// A stand-in for a battery that nothing charges: its voltage falls by a 4096th of the full scale in 200 milliseconds, of which there
// are RATE times as many in simulation, down to half of it. None where the rate is 0. The same on the bench.
// SPDX-License-Identifier: 0BSD
`timescale 1ps/1ps
`default_nettype none

module polymetron_part_battery (
    input  wire [31:0] rate,
    input  wire [11:0] level,
    // What it falls to, and that it does; 0 before.
    output reg  [11:0] next,
    output reg         falls
);
    localparam [63:0] STEP = 64'd200000000000;
    reg [63:0] wait_left;

    initial begin
        falls = 1'b0;
        next = 12'd0;
        #1;
        while (rate != 32'd0) begin
            wait_left = STEP / rate;
            while (wait_left > 64'd1000000000) begin
                #1000000000;
                wait_left = wait_left - 64'd1000000000;
            end
            #(wait_left[31:0]);
            if (level > 12'd2048) begin
                next = level - 12'd1;
                falls = !falls;
            end
        end
    end
endmodule

`default_nettype wire
