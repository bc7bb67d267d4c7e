// A stand-in for synchronous dynamic memory chips with a single data rate (JEDEC JESD21-C, 3.11.5), several of them side by side
// as one of LINES data lines. It says when it is used before its power-up sequence, without an open row, against its times, or
// without a refresh for too long.
// SPDX-License-Identifier: 0BSD
`timescale 1ps/1ps
`default_nettype none

module polymetron_part_external_memory #(
    parameter SIZE = 1048576,
    parameter LINES = 16,
    parameter ROWS = 13,
    parameter COLUMN_BITS = 10
) (
    input  wire               clock,
    input  wire [3:0]         command,
    input  wire [1:0]         bank,
    input  wire [ROWS-1:0]    row,
    input  wire [LINES/8-1:0] mask,
    inout  wire [LINES-1:0]   data
);
    // Common values of chips for 166 MHz, in picoseconds; from memory, common practice.
    localparam PRECHARGE_TIME = 15000;
    localparam ROW_TO_COLUMN_TIME = 15000;
    localparam LEAST_OPEN_TIME = 42000;
    localparam REFRESH_TIME = 60000;
    // All rows within 64 ms, with some room for refreshes that wait for an access.
    localparam RETENTION = 64'd70000000000;
    localparam WORDS = SIZE / (LINES / 8);

    reg [LINES-1:0] words [0:WORDS-1];

    reg [3:0] is_open;
    reg [ROWS-1:0] open_row [0:3];
    reg [63:0] opened [0:3];
    reg [63:0] closed [0:3];
    reg [63:0] refreshed;
    reg [63:0] row_refreshes;
    reg [63:0] window;
    reg is_ready;
    integer refreshes;
    reg [2:0] latency;
    integer at;
    integer lane;
    initial begin
        is_open = 4'd0;
        is_ready = 1'b0;
        refreshes = 0;
        refreshed = 64'd0;
        row_refreshes = 64'd0;
        window = 64'd0;
        latency = 3'd0;
        for (at = 0; at < 4; at = at + 1) begin
            opened[at] = 64'd0;
            closed[at] = 64'd0;
            open_row[at] = {ROWS{1'b0}};
        end
    end

    task wrong(input [8*48-1:0] what);
        $display("memory chips, %0d ns: %0s", $time / 1000, what);
    endtask

    // Puts a byte in, as a programmer would.
    task put(input [31:0] address, input [7:0] value);
        words[(address / (LINES / 8)) % WORDS][8*(address % (LINES / 8)) +: 8] = value;
    endtask

    wire [31:0] lines = {{32 - ROWS{1'b0}}, row};
    wire [31:0] column = {1'b0, lines[31:11], lines[9:0]};
    wire [31:0] place =
        (({{32 - ROWS{1'b0}}, open_row[bank]} << (COLUMN_BITS + 2)) | ({30'd0, bank} << COLUMN_BITS) | (column & ((1 << COLUMN_BITS) - 1)))
        % WORDS;

    // What is read goes out so many edges after its command, and stays until the next one.
    reg [LINES-1:0] pipe [0:7];
    reg [7:0] valid;
    reg [LINES-1:0] out;
    reg drives;
    initial begin
        valid = 8'd0;
        out = {LINES{1'b0}};
        drives = 1'b0;
    end
    assign data = drives ? out : {LINES{1'bz}};

    always @(posedge clock) begin
        drives <= valid[1];
        out <= pipe[1];
        for (at = 0; at < 7; at = at + 1) begin
            pipe[at] <= pipe[at+1];
            valid[at] <= valid[at+1];
        end
        valid[7] <= 1'b0;
        case (command)
            4'b0011: begin
                if (!is_ready) wrong("a row is opened before the mode is set");
                if (is_open[bank]) wrong("a row is opened while another one is open");
                if ($time - closed[bank] < PRECHARGE_TIME) wrong("a row is opened too soon after the last one");
                if ($time - refreshed < REFRESH_TIME) wrong("a row is opened too soon after a refresh");
                if (is_ready && $time - window > RETENTION) wrong("it was not refreshed in time");
                is_open[bank] <= 1'b1;
                open_row[bank] <= row;
                opened[bank] <= $time;
            end
            4'b0101, 4'b0100: begin
                if (!is_open[bank]) wrong("there is no open row");
                if ($time - opened[bank] < ROW_TO_COLUMN_TIME) wrong("a column is used too soon");
                if (command[0]) begin
                    pipe[latency-3'd1] <= words[place];
                    valid[latency-3'd1] <= 1'b1;
                end
                else begin
                    if (drives) wrong("it is written while it drives its lines");
                    for (lane = 0; lane < LINES / 8; lane = lane + 1) begin
                        if (!mask[lane]) words[place][8*lane +: 8] <= data[8*lane +: 8];
                    end
                end
            end
            4'b0010: begin
                for (at = 0; at < 4; at = at + 1) begin
                    if (row[10] || at == {30'd0, bank}) begin
                        if (is_open[at] && $time - opened[at] < LEAST_OPEN_TIME) wrong("a row is closed too soon");
                        is_open[at] <= 1'b0;
                        closed[at] <= $time;
                    end
                end
            end
            4'b0001: begin
                if (is_open != 4'd0) wrong("it is refreshed while a row is open");
                if ($time - refreshed < REFRESH_TIME) wrong("it is refreshed too soon after the last refresh");
                refreshed <= $time;
                refreshes <= refreshes + 1;
                row_refreshes <= row_refreshes + 1;
                if (row_refreshes == (64'd1 << ROWS) - 1) begin
                    row_refreshes <= 64'd0;
                    if (is_ready && $time - window > RETENTION) wrong("it was not refreshed in time");
                    window <= $time;
                end
            end
            4'b0000: begin
                if (refreshes < 2) wrong("the mode is set before two refreshes");
                if ($time < 64'd100000000) wrong("the mode is set before 100 us have passed");
                latency <= row[6:4];
                if (row[6:4] == 3'd0 || row[6:4] > 3'd3) wrong("it has no such latency");
                if (row[2:0] != 3'd0) wrong("it is used for single words here");
                is_ready <= 1'b1;
            end
            default: ;
        endcase
    end
endmodule

`default_nettype wire
