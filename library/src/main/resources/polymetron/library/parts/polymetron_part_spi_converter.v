// A stand-in for a converter on a serial port, mode 1, highest bit first: when it is selected it takes one sample of each
// channel, and gives them one after the other, the first channel first; behind them comes what it was sent meanwhile, so that
// converters can be in a row. Samples come from a file, over and over, or are what something around the board gives.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_part_spi_converter #(
    parameter CHANNELS = 3,
    parameter BITS = 24,
    parameter SAMPLES = 1024,
    parameter FILE = "spi_converter.hex"
) (
    input  wire clock,
    input  wire select,
    input  wire to_device,
    output wire from_device
);
    // A word of the file is one sample of every channel, the first channel highest.
    reg [CHANNELS*BITS-1:0] samples [0:SAMPLES-1];
    reg [CHANNELS*BITS-1:0] shift;
    reg level;
    integer next;
    // Of something around the board, and whether that acts.
    reg [CHANNELS*BITS-1:0] followed;
    reg follows;

    initial begin
        followed = {CHANNELS * BITS{1'b0}};
        follows = 1'b0;
        $readmemh(FILE, samples);
        next = 0;
        level = 1'b0;
        shift = {CHANNELS * BITS{1'b0}};
    end

    // A simulation may begin with the line low; what counts is that it falls while the clock rests.
    always @(negedge select) begin
        shift = follows ? followed : samples[next];
        next = next == SAMPLES - 1 ? 0 : next + 1;
    end

    always @(posedge clock) begin
        if (!select) begin
            level = shift[CHANNELS*BITS-1];
            shift = shift << 1;
        end
    end
    always @(negedge clock) if (!select) shift[0] = to_device;

    assign from_device = !select && level;
endmodule

`default_nettype wire
