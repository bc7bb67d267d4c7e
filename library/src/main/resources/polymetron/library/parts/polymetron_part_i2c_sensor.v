// A stand-in for a temperature sensor on a two-wire bus, device 0x48: a pointer, then registers of two bytes, the higher first.
// Register 0 is the temperature in 1/256 degrees, which falls by 1/16 degree each time it is read; register 1 can be written;
// what else there is reads as 0.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_part_i2c_sensor (
    inout wire scl,
    inout wire sda
);
    localparam [6:0] DEVICE = 7'h48;

    reg [15:0] temperature;
    reg [15:0] limit;
    reg [7:0] pointer;
    reg [7:0] shift;
    integer bits;
    integer bytes;
    reg active;
    reg reads;
    reg pulls;
    reg [15:0] gives;

    assign sda = pulls ? 1'b0 : 1'bz;

    initial begin
        temperature = 16'h1580;
        limit = 16'h5000;
        pointer = 8'd0;
        active = 1'b0;
        reads = 1'b0;
        pulls = 1'b0;
        bits = 0;
        bytes = 0;
        shift = 8'd0;
        gives = 16'd0;
    end

    // Start and stop: the data line changes while the clock line is high.
    always @(negedge sda) if (scl === 1'b1 && !pulls) begin
        active = 1'b1;
        reads = 1'b0;
        bits = 0;
        bytes = 0;
    end
    always @(posedge sda) if (scl === 1'b1) active = 1'b0;

    always @(posedge scl) if (active) begin
        if (bits < 8) shift = {shift[6:0], sda !== 1'b0};
        // Not acknowledged: nothing more is wanted.
        else if (reads && bytes > 0 && sda !== 1'b0) active = 1'b0;
        bits = bits + 1;
    end

    always @(negedge scl) begin
        pulls = 1'b0;
        if (active) begin
            if (bits == 8) begin
                if (bytes == 0) begin
                    active = shift[7:1] == DEVICE;
                    reads = shift[0];
                    pulls = active;
                end
                else if (!reads) begin
                    pulls = 1'b1;
                    if (bytes == 1) pointer = shift;
                    else if (bytes == 2 && pointer == 8'd1) limit[15:8] = shift;
                    else if (bytes == 3 && pointer == 8'd1) limit[7:0] = shift;
                end
            end
            else if (bits == 9) begin
                bits = 0;
                if (reads && bytes == 0) begin
                    gives = pointer == 8'd0 ? temperature : pointer == 8'd1 ? limit : 16'd0;
                    if (pointer == 8'd0) temperature = temperature - 16'd16;
                end
                bytes = bytes + 1;
            end
            if (active && reads && bytes > 0 && bits < 8) begin
                pulls = !gives[15];
                gives = {gives[14:0], 1'b0};
            end
        end
    end
endmodule

`default_nettype wire
