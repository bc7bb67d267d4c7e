// What a UART with the registers of the PC16550D does: 8 data bits, no parity, one stop bit, each bit 16 times the divisor
// long. Modem lines, parity and breaks are not there.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_uart (
    input  wire       clk,
    input  wire       rst,

    output wire [7:0] RBR_DATA,
    input  wire       RBR_DATA_taken,
    input  wire       THR_DATA_written,
    input  wire [7:0] THR_DATA_data,
    input  wire [7:0] DLL_DIVISOR,
    input  wire [7:0] DLM_DIVISOR,
    input  wire       IER_ERBFI,
    input  wire       IER_ETBEI,
    input  wire       IER_ELSI,
    output wire       IIR_NONE,
    output wire [2:0] IIR_ID,
    input  wire       IIR_ID_taken,
    output wire [1:0] IIR_FIFO,
    input  wire       FCR_ENABLE,
    input  wire       FCR_CLEAR_RX_pulse,
    input  wire       FCR_CLEAR_TX_pulse,
    input  wire [1:0] FCR_TRIGGER,
    input  wire       MCR_LOOP,
    output wire       LSR_DR,
    input  wire       LSR_OE,
    output wire       LSR_OE_set,
    output wire       LSR_THRE,
    output wire       LSR_TEMT,

    output wire       irq,
    output wire       txd,
    input  wire       rxd
);
    // --- FIFOs: sixteen characters, or one while they are off; switching them empties both

    reg was_on;
    wire switched = was_on != FCR_ENABLE;
    always @(posedge clk) begin
        if (rst) was_on <= 1'b0;
        else was_on <= FCR_ENABLE;
    end

    wire received;
    wire [7:0] received_character;
    wire [4:0] receive_count;
    wire receive_full = FCR_ENABLE ? receive_count[4] : receive_count != 5'd0;
    wire arrives = received && !receive_full;
    polymetron_fifo #(.BITS(8), .DEPTH_BITS(4)) receive_fifo (
        .clk(clk), .rst(rst || switched || FCR_CLEAR_RX_pulse),
        .push(arrives), .in(received_character), .pop(RBR_DATA_taken), .out(receive_oldest), .count(receive_count)
    );
    wire [7:0] receive_oldest;
    assign RBR_DATA = receive_count == 5'd0 ? 8'd0 : receive_oldest;
    assign LSR_DR = receive_count != 5'd0;
    assign LSR_OE_set = received && receive_full;

    wire starts;
    wire [7:0] send_oldest;
    wire [4:0] send_count;
    wire send_full = FCR_ENABLE ? send_count[4] : send_count != 5'd0;
    polymetron_fifo #(.BITS(8), .DEPTH_BITS(4)) send_fifo (
        .clk(clk), .rst(rst || switched || FCR_CLEAR_TX_pulse),
        .push(THR_DATA_written && !send_full), .in(THR_DATA_data), .pop(starts), .out(send_oldest), .count(send_count)
    );

    // --- time: sixteen parts of a bit, each as long as the divisor says

    wire [15:0] divisor = {DLM_DIVISOR, DLL_DIVISOR};
    wire [15:0] last = divisor == 16'd0 ? 16'd0 : divisor - 16'd1;

    // --- sending: start bit, eight bits from the lowest on, stop bit

    reg [9:0] send_shift;
    reg [3:0] send_bits;
    reg [3:0] send_parts;
    reg [15:0] send_time;
    wire sends = send_bits != 4'd0;
    wire send_part_ends = send_time == 16'd0;
    wire send_ends = sends && send_bits == 4'd1 && send_parts == 4'd0 && send_part_ends;
    assign starts = send_count != 5'd0 && (!sends || send_ends);
    wire line = sends ? send_shift[0] : 1'b1;
    assign txd = MCR_LOOP || line;
    assign LSR_THRE = send_count == 5'd0;
    assign LSR_TEMT = send_count == 5'd0 && !sends;

    always @(posedge clk) begin
        if (rst) begin
            send_shift <= 10'h3FF;
            send_bits <= 4'd0;
            send_parts <= 4'd0;
            send_time <= 16'd0;
        end
        else if (starts) begin
            send_shift <= {1'b1, send_oldest, 1'b0};
            send_bits <= 4'd10;
            send_parts <= 4'd15;
            send_time <= last;
        end
        else if (sends) begin
            if (!send_part_ends) send_time <= send_time - 16'd1;
            else begin
                send_time <= last;
                send_parts <= send_parts - 4'd1;
                if (send_parts == 4'd0) begin
                    send_shift <= {1'b1, send_shift[9:1]};
                    send_bits <= send_bits - 4'd1;
                end
            end
        end
    end

    // --- receiving: bits are looked at in their middle

    wire line_in;
    polymetron_synchroniser #(.BITS(1), .INITIAL(1'b1)) synchroniser (
        .clk(clk), .rst(rst), .in(MCR_LOOP ? line : rxd), .out(line_in)
    );
    reg [7:0] receive_shift;
    reg [3:0] receive_bits;
    reg [3:0] receive_parts;
    reg [15:0] receive_time;
    wire receives = receive_bits != 4'd0;
    wire receive_part_ends = receive_time == 16'd0;
    wire looks = receives && receive_part_ends && receive_parts == 4'd0;
    assign received = looks && receive_bits == 4'd1 && line_in;
    assign received_character = receive_shift;

    always @(posedge clk) begin
        if (rst) begin
            receive_shift <= 8'd0;
            receive_bits <= 4'd0;
            receive_parts <= 4'd0;
            receive_time <= 16'd0;
        end
        else if (!receives) begin
            receive_parts <= 4'd7;
            receive_time <= last;
            if (!line_in) receive_bits <= 4'd10;
        end
        else if (!receive_part_ends) receive_time <= receive_time - 16'd1;
        else begin
            receive_time <= last;
            receive_parts <= receive_parts - 4'd1;
            if (looks) begin
                // A start bit that is gone in its middle was none.
                receive_bits <= receive_bits == 4'd10 && line_in ? 4'd0 : receive_bits - 4'd1;
                receive_shift <= {line_in, receive_shift[7:1]};
                if (receive_bits == 4'd1) receive_shift <= receive_shift;
            end
        end
    end

    // --- interrupts, the most urgent first (PC16550D, table "Interrupt control functions")

    reg emptied;
    reg empty_was_enabled;
    reg was_counting;
    wire is_empty = send_count == 5'd0;
    wire [4:0] level = !FCR_ENABLE ? 5'd1
        : FCR_TRIGGER == 2'd0 ? 5'd1 : FCR_TRIGGER == 2'd1 ? 5'd4 : FCR_TRIGGER == 2'd2 ? 5'd8 : 5'd14;

    // Four characters' time without one that comes or is read.
    reg [21:0] quiet;
    wire [21:0] four_characters = {divisor, 6'd0} * 22'd10;
    wire timed_out = LSR_DR && quiet == four_characters;

    wire line_status = IER_ELSI && LSR_OE;
    wire data_available = IER_ERBFI && receive_count >= level;
    wire time_out = IER_ERBFI && FCR_ENABLE && timed_out;
    wire empty_pending = IER_ETBEI && emptied;
    assign IIR_ID = line_status ? 3'd3 : data_available ? 3'd2 : time_out ? 3'd6 : empty_pending ? 3'd1 : 3'd0;
    assign IIR_NONE = !(line_status || data_available || time_out || empty_pending);
    assign IIR_FIFO = {2{FCR_ENABLE}};
    assign irq = !IIR_NONE;

    always @(posedge clk) begin
        if (rst) begin
            emptied <= 1'b0;
            empty_was_enabled <= 1'b0;
            was_counting <= 1'b0;
            quiet <= 22'd0;
        end
        else begin
            empty_was_enabled <= IER_ETBEI;
            was_counting <= !is_empty;
            if (THR_DATA_written) emptied <= 1'b0;
            else if ((was_counting && is_empty) || (IER_ETBEI && !empty_was_enabled && is_empty)) emptied <= 1'b1;
            else if (IIR_ID_taken && IIR_ID == 3'd1) emptied <= 1'b0;
            if (received || RBR_DATA_taken || !LSR_DR) quiet <= 22'd0;
            else if (!timed_out) quiet <= quiet + 22'd1;
        end
    end
endmodule

`default_nettype wire
