// A controller for synchronous dynamic memory with a single data rate (JEDEC JESD21-C, 3.11.5): power-up sequence, refresh, and
// one open row in each of the four banks. A word of the bus is one or more words of the chips, in following columns. Chips get
// the inverted clock: what they are told is stable half a cycle before and behind its edge, and what they say is taken with
// their next edge.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_external_memory_controller #(
    parameter ADDRESS_BITS = 26,
    parameter DATA_BITS = 32,
    // Bytes of the chips, which their stand-in is told as well.
    parameter SIZE = 67108864,
    parameter LINES = 16,
    parameter ROWS = 13,
    parameter COLUMN_BITS = 10,
    parameter LATENCY = 3,
    // Cycles to close a row and open another.
    parameter ROW_CYCLES = 7,
    // Cycles before the first command, and between two refreshes.
    parameter POWER_UP = 20000,
    parameter REFRESH = 780
) (
    input  wire                    clk,
    input  wire                    rst,

    input  wire                    port_request,
    input  wire                    port_write,
    input  wire [ADDRESS_BITS-1:0] port_address,
    input  wire [DATA_BITS-1:0]    port_value,
    input  wire [DATA_BITS/8-1:0]  port_bytes,
    output wire                    port_done,
    output wire [DATA_BITS-1:0]    port_answer,
    output wire                    port_error,

    output wire                    clock,
    output reg  [3:0]              command,
    output reg  [1:0]              bank,
    output reg  [ROWS-1:0]         row,
    output reg  [LINES/8-1:0]      mask,
    input  wire [LINES-1:0]        data_in,
    output reg  [LINES-1:0]        data_out,
    output wire [LINES-1:0]        data_drive
);
    // CS, RAS, CAS and WE, each low when it is meant.
    localparam [3:0] NOTHING = 4'b0111;
    localparam [3:0] ACTIVATE = 4'b0011;
    localparam [3:0] READ = 4'b0101;
    localparam [3:0] WRITE = 4'b0100;
    localparam [3:0] PRECHARGE = 4'b0010;
    localparam [3:0] AUTO_REFRESH = 4'b0001;
    localparam [3:0] LOAD_MODE = 4'b0000;

    localparam [3:0] POWER = 4'd0;
    localparam [3:0] CLOSE_ALL = 4'd1;
    localparam [3:0] FIRST_REFRESHES = 4'd2;
    localparam [3:0] MODE = 4'd3;
    localparam [3:0] IDLE = 4'd4;
    localparam [3:0] OPEN = 4'd5;
    localparam [3:0] COLUMN = 4'd6;
    localparam [3:0] ANSWER = 4'd7;
    localparam [3:0] DONE = 4'd8;
    localparam [3:0] REFRESHES = 4'd9;

    localparam PARTS = DATA_BITS / LINES;
    localparam PART_BITS = PARTS > 1 ? $clog2(PARTS) : 1;
    localparam LANE_BITS = $clog2(LINES / 8);
    localparam [31:0] CLOSING = (ROW_CYCLES + 1) / 2;
    localparam [31:0] OPENING = ROW_CYCLES / 2;
    localparam [31:0] REFRESHING = 2 * ROW_CYCLES;
    // A row stays open for as long, and for two cycles after a write.
    localparam [31:0] LEAST_OPEN = ROW_CYCLES + 1;
    localparam [31:0] FIRST_WAIT = POWER_UP;
    localparam [31:0] BETWEEN = REFRESH;
    localparam [31:0] CAS_LATENCY = LATENCY;
    localparam [ROWS-1:0] ALL_BANKS = 1 << 10;

    reg [3:0] state;
    reg [31:0] wait_left;
    reg [31:0] until_refresh;
    reg refresh_due;
    reg [2:0] refreshes_left;
    reg [5:0] open_left;
    reg [3:0] is_open;
    reg [4*ROWS-1:0] open_rows;
    reg [PART_BITS-1:0] part;
    reg drives;

    // Words of the chips: a row has a column for each, and rows with the same number follow in the four banks.
    wire [ADDRESS_BITS-1:0] word = port_address >> LANE_BITS;
    wire [COLUMN_BITS-1:0] first_column = word[COLUMN_BITS-1:0];
    wire [1:0] its_bank = word[COLUMN_BITS +: 2];
    wire [31:0] row_number = {{32 - ADDRESS_BITS{1'b0}}, word} >> (COLUMN_BITS + 2);
    wire [ROWS-1:0] its_row = row_number[ROWS-1:0];
    wire [ROWS-1:0] open_row = open_rows[its_bank*ROWS +: ROWS];
    wire is_hit = is_open[its_bank] && open_row == its_row;

    // The first column of the whole word, and the part that is next; bit 10 of the row lines is no column.
    wire [31:0] whole = {{32 - COLUMN_BITS{1'b0}}, first_column} & ~(PARTS - 32'd1);
    wire [31:0] column = whole | {{32 - PART_BITS{1'b0}}, part};
    wire [31:0] column_lines = {column[30:10], 1'b0, column[9:0]};

    // What was read comes back some cycles after its column was named, one part after the other.
    reg [LATENCY:0] returning;
    reg [LINES-1:0] at_edge;
    reg [DATA_BITS-1:0] gathered;
    reg [PART_BITS:0] returned;
    wire [DATA_BITS+LINES-1:0] with_next = {at_edge, gathered};

    assign clock = ~clk;
    assign data_drive = {LINES{drives}};
    assign port_done = state == DONE;
    assign port_answer = gathered;
    assign port_error = 1'b0;

    wire is_last = {{32 - PART_BITS{1'b0}}, part} == PARTS - 32'd1;
    wire [DATA_BITS-1:0] value_left = port_value >> (part * LINES);
    wire [DATA_BITS/8-1:0] bytes_left = port_bytes >> (part * (LINES / 8));

    always @(negedge clk) at_edge <= data_in;

    always @(posedge clk) begin
        command <= NOTHING;
        mask <= {LINES / 8{1'b0}};
        drives <= 1'b0;
        returning <= {returning[LATENCY-1:0], 1'b0};
        if (returning[LATENCY]) begin
            gathered <= with_next[DATA_BITS+LINES-1:LINES];
            returned <= returned + 1'b1;
        end
        if (wait_left != 32'd0) wait_left <= wait_left - 32'd1;
        if (open_left != 6'd0) open_left <= open_left - 6'd1;
        if (until_refresh == 32'd0) begin
            until_refresh <= BETWEEN;
            refresh_due <= 1'b1;
        end
        else until_refresh <= until_refresh - 32'd1;

        if (wait_left == 32'd0) case (state)
            POWER: state <= CLOSE_ALL;
            CLOSE_ALL: begin
                command <= PRECHARGE;
                row <= ALL_BANKS;
                wait_left <= CLOSING;
                state <= FIRST_REFRESHES;
            end
            FIRST_REFRESHES: begin
                command <= AUTO_REFRESH;
                wait_left <= REFRESHING;
                refreshes_left <= refreshes_left - 3'd1;
                if (refreshes_left == 3'd0) state <= MODE;
            end
            MODE: begin
                // Single words, and the latency (JESD21-C, mode register).
                command <= LOAD_MODE;
                bank <= 2'd0;
                row <= {{ROWS - 7{1'b0}}, CAS_LATENCY[2:0], 4'b0000};
                wait_left <= 32'd2;
                state <= IDLE;
            end
            IDLE: begin
                part <= {PART_BITS{1'b0}};
                returned <= {PART_BITS + 1{1'b0}};
                bank <= its_bank;
                if (refresh_due) begin
                    if (open_left == 6'd0) begin
                        command <= PRECHARGE;
                        row <= ALL_BANKS;
                        is_open <= 4'd0;
                        wait_left <= CLOSING;
                        state <= REFRESHES;
                    end
                end
                else if (port_request && is_hit) state <= COLUMN;
                else if (port_request && is_open[its_bank]) begin
                    if (open_left == 6'd0) begin
                        command <= PRECHARGE;
                        row <= {ROWS{1'b0}};
                        is_open[its_bank] <= 1'b0;
                        wait_left <= CLOSING - 32'd1;
                        state <= OPEN;
                    end
                end
                else if (port_request) state <= OPEN;
            end
            OPEN: begin
                command <= ACTIVATE;
                row <= its_row;
                open_rows[its_bank*ROWS +: ROWS] <= its_row;
                is_open[its_bank] <= 1'b1;
                open_left <= LEAST_OPEN[5:0];
                wait_left <= OPENING - 32'd1;
                state <= COLUMN;
            end
            COLUMN: begin
                command <= port_write ? WRITE : READ;
                row <= column_lines[ROWS-1:0];
                part <= part + 1'b1;
                if (port_write) begin
                    drives <= 1'b1;
                    data_out <= value_left[LINES-1:0];
                    mask <= ~bytes_left[LINES/8-1:0];
                    if (open_left < 6'd3) open_left <= 6'd3;
                end
                else returning[0] <= 1'b1;
                if (is_last) state <= port_write ? DONE : ANSWER;
            end
            ANSWER: if ({{31 - PART_BITS{1'b0}}, returned} == PARTS) state <= DONE;
            DONE: state <= IDLE;
            REFRESHES: begin
                command <= AUTO_REFRESH;
                refresh_due <= 1'b0;
                wait_left <= REFRESHING;
                state <= IDLE;
            end
            default: state <= POWER;
        endcase

        if (rst) begin
            state <= POWER;
            wait_left <= FIRST_WAIT;
            until_refresh <= BETWEEN;
            refresh_due <= 1'b0;
            refreshes_left <= 3'd7;
            open_left <= 6'd0;
            is_open <= 4'd0;
            open_rows <= {4 * ROWS{1'b0}};
            part <= {PART_BITS{1'b0}};
            returning <= {LATENCY + 1{1'b0}};
            returned <= {PART_BITS + 1{1'b0}};
            gathered <= {DATA_BITS{1'b0}};
            bank <= 2'd0;
            row <= {ROWS{1'b0}};
            data_out <= {LINES{1'b0}};
        end
    end

    wire unused_parts = SIZE == 0 | |column[31] | |column_lines[31:ROWS] | |row_number[31:ROWS] | |LEAST_OPEN[31:6] | |CAS_LATENCY[31:3]
        | |with_next[LINES-1:0] | |(value_left >> LINES) | |(bytes_left >> (LINES / 8));
endmodule

`default_nettype wire
