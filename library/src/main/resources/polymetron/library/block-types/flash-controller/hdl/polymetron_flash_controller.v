// Reads of the memory range become read commands of a serial flash (JEDEC JESD216: 1-1-1, 1-2-2, 1-4-4; with addresses of 32 bits
// above 16 MiB). The chip stays selected behind a read, and the next word is clocked out when it is read. Bytes of commands go
// on one line. After a reset the chip may be in any mode: it is brought out of it first.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_flash_controller #(
    parameter ADDRESS_BITS = 24,
    parameter LINES = 4,
    parameter DIVIDER = 4,
    parameter WAIT = 8
) (
    input  wire                    clk,
    input  wire                    rst,
    input  wire                    memory_request,
    input  wire                    memory_write,
    input  wire [ADDRESS_BITS-1:0] memory_address,
    output wire                    memory_done,
    output wire [31:0]             memory_answer,
    output wire                    memory_error,
    output wire                    clock,
    output wire                    select__,
    input  wire [3:0]              data_in,
    output wire [3:0]              data_out,
    output wire [3:0]              data_drive,
    input  wire                    CONTROL_COMMANDS,
    input  wire                    CONTROL_SELECT,
    output wire                    STATUS_BUSY,
    input  wire [7:0]              BYTE_VALUE,
    input  wire                    BYTE_VALUE_stored,
    output wire                    BYTE_VALUE_load,
    output wire [7:0]              BYTE_VALUE_new,
    output wire                    PENDING_DONE_set
);
    localparam LONG = ADDRESS_BITS > 24 ? 1 : 0;
    localparam [7:0] READ = LINES == 4 ? (LONG != 0 ? 8'hec : 8'heb)
        : LINES == 2 ? (LONG != 0 ? 8'hbc : 8'hbb)
        : (LONG != 0 ? 8'h0c : 8'h0b);
    localparam [31:0] HALF = DIVIDER / 2 - 1;
    localparam [31:0] ADDRESS_CLOCKS = (LONG != 0 ? 32 : 24) / LINES - 1;
    localparam [31:0] WAITING = WAIT == 0 ? 1 : WAIT;
    localparam [31:0] WAIT_CLOCKS = WAIT - 1;
    localparam [31:0] DATA_CLOCKS = 32 / LINES - 1;
    // What comes with the address in the first clocks of the wait: no continuous reads.
    localparam [31:0] MODE_CLOCKS = 8 / LINES;

    // --- the beginning: out of continuous reads on four lines, reset, and where it takes them, the enable of four lines

    localparam [2:0] PAUSE = 3'd3;
    localparam [2:0] LAST_STEP = LINES == 4 ? 3'd7 : 3'd4;
    reg [2:0] step;
    reg [12:0] pause;
    wire begins = step != LAST_STEP;
    reg [7:0] first_byte;
    always @* begin
        case (step)
            3'd0: first_byte = 8'hff;
            3'd1: first_byte = 8'h66;
            3'd2: first_byte = 8'h99;
            3'd4: first_byte = 8'h50;
            3'd5: first_byte = 8'h31;
            default: first_byte = 8'h02;
        endcase
    end

    // --- clocks on the lines

    localparam [2:0] RESTS = 3'd0;
    localparam [2:0] COMMAND = 3'd1;
    localparam [2:0] ADDRESS = 3'd2;
    localparam [2:0] WAITS = 3'd3;
    localparam [2:0] DATA = 3'd4;
    localparam [2:0] BYTE = 3'd5;
    localparam [2:0] LEAVES = 3'd6;

    reg [2:0] does;
    reg [31:0] shift;
    reg [31:0] taken;
    reg [5:0] left;
    reg [6:0] time_left;
    reg high;
    reg selected;
    // Software has the chip: nothing of the controller's own is under way.
    reg owned;
    // The chip stands behind a read, before the word of this address.
    reg follows;
    reg [ADDRESS_BITS-3:0] next;
    reg is_done;
    reg byte_done;
    reg asked;
    wire half_ends = time_left == 7'd0;
    wire clocks = does != RESTS && does != LEAVES;
    wire ends = half_ends && high && left == 6'd0;
    wire reads = memory_request && !memory_write && !is_done;
    wire is_next = follows && next == memory_address[ADDRESS_BITS-1:2];

    assign clock = high;
    assign select__ = !(selected || (owned && CONTROL_SELECT));
    assign STATUS_BUSY = does == BYTE || asked;
    assign memory_done = is_done || (memory_request && memory_write);
    assign memory_answer = {shift[7:0], shift[15:8], shift[23:16], shift[31:24]};
    assign memory_error = memory_write;
    assign BYTE_VALUE_load = byte_done;
    assign BYTE_VALUE_new = shift[7:0];
    assign PENDING_DONE_set = byte_done;

    // On one line data comes back on the second one. Lines that carry nothing are high, which neither protects nor holds the chip.
    wire is_wide = LINES > 1 && (does == ADDRESS || does == WAITS || does == DATA);
    wire is_mode = does == WAITS && {26'd0, left} + MODE_CLOCKS >= WAITING;
    wire listens = does == DATA || (does == WAITS && !is_mode);
    wire all_high = begins && step == 3'd0;
    assign data_out = all_high ? 4'b1111
        : !is_wide ? {2'b11, 1'b0, shift[31]}
        : LINES == 4 ? shift[31:28] : {2'b11, shift[31:30]};
    assign data_drive = all_high ? 4'b1111
        : !is_wide ? 4'b1101
        : !listens ? 4'b1111
        : LINES == 4 ? 4'b0000 : 4'b1100;

    wire [31:0] came = !is_wide ? {shift[30:0], data_in[1]}
        : LINES == 4 ? {shift[27:0], data_in} : {shift[29:0], data_in[1:0]};
    wire [31:0] moved = does == DATA || does == BYTE ? taken
        : !is_wide ? {shift[30:0], 1'b0}
        : LINES == 4 ? {shift[27:0], 4'd0} : {shift[29:0], 2'd0};

    wire [31:0] place = {{32 - ADDRESS_BITS{1'b0}}, memory_address[ADDRESS_BITS-1:2], 2'b00};
    wire [31:0] address = LONG != 0 ? place : {place[23:0], 8'd0};
    wire unused_address = |memory_address[1:0];
    wire unused_place = |place[31:24];

    always @(posedge clk) begin
        if (rst) begin
            does <= RESTS;
            step <= 3'd0;
            pause <= 13'd0;
            shift <= 32'd0;
            taken <= 32'd0;
            left <= 6'd0;
            time_left <= 7'd0;
            high <= 1'b0;
            selected <= 1'b0;
            owned <= 1'b0;
            follows <= 1'b0;
            next <= {ADDRESS_BITS - 2{1'b0}};
            is_done <= 1'b0;
            byte_done <= 1'b0;
            asked <= 1'b0;
        end
        else begin
            is_done <= 1'b0;
            byte_done <= 1'b0;
            owned <= CONTROL_COMMANDS && !selected && !begins && (does == RESTS || owned);
            time_left <= half_ends || does == RESTS ? HALF[6:0] : time_left - 7'd1;
            if (clocks && half_ends) begin
                high <= !high;
                if (!high) taken <= came;
                else begin
                    shift <= moved;
                    left <= left - 6'd1;
                end
            end
            case (does)
                RESTS: begin
                    left <= 6'd7;
                    if (begins) begin
                        shift <= {first_byte, 24'd0};
                        if (step == PAUSE) begin
                            pause <= pause + 13'd1;
                            if (pause == 13'h1fff) step <= step + 3'd1;
                        end
                        else begin
                            selected <= 1'b1;
                            does <= BYTE;
                        end
                    end
                    else if (CONTROL_COMMANDS) begin
                        if (selected) leave;
                        else if (owned && asked) begin
                            shift <= {BYTE_VALUE, 24'd0};
                            asked <= 1'b0;
                            does <= BYTE;
                        end
                    end
                    else if (reads) begin
                        if (is_next) begin
                            left <= DATA_CLOCKS[5:0];
                            does <= DATA;
                        end
                        else if (selected) leave;
                        else begin
                            shift <= {READ, 24'd0};
                            selected <= 1'b1;
                            does <= COMMAND;
                        end
                    end
                end
                COMMAND: if (ends) begin
                    shift <= address;
                    left <= ADDRESS_CLOCKS[5:0];
                    does <= ADDRESS;
                end
                ADDRESS: if (ends) begin
                    shift <= 32'd0;
                    left <= WAIT == 0 ? DATA_CLOCKS[5:0] : WAIT_CLOCKS[5:0];
                    does <= WAIT == 0 ? DATA : WAITS;
                end
                WAITS: if (ends) begin
                    left <= DATA_CLOCKS[5:0];
                    does <= DATA;
                end
                DATA: if (ends) begin
                    is_done <= 1'b1;
                    follows <= 1'b1;
                    next <= memory_address[ADDRESS_BITS-1:2] + 1'b1;
                    does <= RESTS;
                end
                BYTE: if (ends) begin
                    byte_done <= !begins;
                    does <= RESTS;
                    if (begins) begin
                        step <= step + 3'd1;
                        // The status goes with the byte that writes it.
                        if (step != 3'd5) leave;
                    end
                end
                default: if (half_ends) begin
                    left <= left - 6'd1;
                    if (left == 6'd0) does <= RESTS;
                end
            endcase
            if (BYTE_VALUE_stored) asked <= 1'b1;
        end
    end

    // Not selected for a clock.
    task leave;
        begin
            selected <= 1'b0;
            follows <= 1'b0;
            left <= 6'd1;
            does <= LEAVES;
        end
    endtask
endmodule

`default_nettype wire
