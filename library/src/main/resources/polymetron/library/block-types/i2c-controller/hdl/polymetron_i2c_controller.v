// Two-wire bus as a controller (UM10204): a command is a start, a byte with its acknowledgement and a stop, in this order. Each of
// them goes through the same phases: the clock line is low for two halves, of which the second has the new level of the data line;
// it is released, and counts as high once it is; a start or stop changes the data line then. Between commands the clock line stays
// low, so that the bus stays ours.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_i2c_controller #(
    parameter FILTER = 5
) (
    input  wire        clk,
    input  wire        rst,
    input  wire        CONTROL_ENABLE,
    output wire        STATUS_BUSY,
    output wire        STATUS_REFUSED,
    output wire        STATUS_LOST,
    output wire        STATUS_TAKEN,
    input  wire        COMMAND_START_pulse,
    input  wire        COMMAND_WRITE_pulse,
    input  wire        COMMAND_READ_pulse,
    input  wire        COMMAND_LAST_pulse,
    input  wire        COMMAND_STOP_pulse,
    input  wire [7:0]  DATA_BYTE,
    output wire        DATA_BYTE_load,
    output wire [7:0]  DATA_BYTE_new,
    input  wire [15:0] LOW_CYCLES,
    input  wire [15:0] HIGH_CYCLES,
    output wire        PENDING_DONE_set,

    input  wire        scl_in,
    output wire        scl_out,
    output wire        scl_drive,
    input  wire        sda_in,
    output wire        sda_out,
    output wire        sda_drive
);
    // --- the lines: shorter pulses than the filter are not seen

    wire [1:0] levels;
    reg [1:0] seen;
    reg [5:0] scl_stable;
    reg [5:0] sda_stable;
    reg last_sda;
    reg taken;
    localparam [31:0] SPIKES = FILTER;

    polymetron_synchroniser #(.BITS(2), .INITIAL(2'b11)) synchroniser (
        .clk(clk), .rst(rst), .in({scl_in, sda_in}), .out(levels)
    );
    wire scl = seen[1];
    wire sda = seen[0];

    always @(posedge clk) begin
        if (rst) begin
            seen <= 2'b11;
            scl_stable <= 6'd0;
            sda_stable <= 6'd0;
            last_sda <= 1'b1;
            taken <= 1'b0;
        end
        else begin
            scl_stable <= levels[1] == scl ? 6'd0 : scl_stable + 6'd1;
            if (levels[1] != scl && scl_stable == SPIKES[5:0]) begin
                seen[1] <= levels[1];
                scl_stable <= 6'd0;
            end
            sda_stable <= levels[0] == sda ? 6'd0 : sda_stable + 6'd1;
            if (levels[0] != sda && sda_stable == SPIKES[5:0]) begin
                seen[0] <= levels[0];
                sda_stable <= 6'd0;
            end
            last_sda <= sda;
            // A start and a stop, whosever they are (UM10204, 3.1.4).
            if (scl && last_sda && !sda) taken <= 1'b1;
            else if (scl && !last_sda && sda) taken <= 1'b0;
        end
    end

    // --- what is still to do

    localparam [2:0] IDLE = 3'd0;
    localparam [2:0] LOW_OLD = 3'd1;
    localparam [2:0] LOW_NEW = 3'd2;
    localparam [2:0] RISES = 3'd3;
    localparam [2:0] HIGH = 3'd4;
    localparam [2:0] CHANGED = 3'd5;

    reg [2:0] phase;
    reg starts;
    reg writes;
    reg reads;
    reg last;
    reg stops;
    // The clock line is held low by us.
    reg owned;
    reg refused;
    reg lost;
    reg data;
    reg [3:0] bit_number;
    reg [7:0] shift;
    reg [15:0] time_left;

    wire is_start = starts;
    wire is_byte = !starts && (writes || reads);
    wire is_stop = !starts && !writes && !reads;
    wire is_acknowledge = bit_number == 4'd8;
    // The level that the data line gets: released where the other side speaks.
    wire new_data = is_start || (is_byte && (is_acknowledge ? (writes || last) : (reads || shift[7])));
    wire phase_ends = time_left == 16'd0;
    // Less the cycle in which a phase ends.
    wire [15:0] half_low = LOW_CYCLES[15:1] == 15'd0 ? 16'd0 : {1'b0, LOW_CYCLES[15:1]} - 16'd1;
    wire [15:0] rest = LOW_CYCLES - {1'b0, LOW_CYCLES[15:1]};
    wire [15:0] rest_low = rest == 16'd0 ? 16'd0 : rest - 16'd1;
    wire [15:0] high = HIGH_CYCLES == 16'd0 ? 16'd0 : HIGH_CYCLES - 16'd1;

    wire begins = (phase == IDLE) && CONTROL_ENABLE
        && (COMMAND_START_pulse || COMMAND_WRITE_pulse || COMMAND_READ_pulse || COMMAND_STOP_pulse);
    wire high_ends = phase == HIGH && phase_ends;
    wire is_beaten = high_ends && data && !sda && (is_start || (is_byte && writes && !is_acknowledge));
    wire byte_ends = high_ends && is_byte && is_acknowledge && !is_beaten;
    wire changed_ends = phase == CHANGED && phase_ends;
    // The last thing that is to be done has been done.
    wire ends = (byte_ends && !stops) || (changed_ends && (is_stop || (!writes && !reads && !stops))) || is_beaten;

    assign STATUS_BUSY = phase != IDLE;
    assign STATUS_REFUSED = refused;
    assign STATUS_LOST = lost;
    assign STATUS_TAKEN = taken;
    assign DATA_BYTE_load = high_ends && is_byte && reads && bit_number == 4'd7;
    assign DATA_BYTE_new = {shift[6:0], sda};
    assign PENDING_DONE_set = ends;
    assign scl_out = 1'b0;
    assign sda_out = 1'b0;
    assign scl_drive = CONTROL_ENABLE && (phase == LOW_OLD || phase == LOW_NEW || (phase == IDLE && owned));
    assign sda_drive = CONTROL_ENABLE && !data;

    always @(posedge clk) begin
        if (rst || !CONTROL_ENABLE) begin
            phase <= IDLE;
            starts <= 1'b0;
            writes <= 1'b0;
            reads <= 1'b0;
            last <= 1'b0;
            stops <= 1'b0;
            owned <= 1'b0;
            refused <= 1'b0;
            lost <= 1'b0;
            data <= 1'b1;
            bit_number <= 4'd0;
            shift <= 8'd0;
            time_left <= 16'd0;
        end
        else begin
            if (!phase_ends) time_left <= time_left - 16'd1;
            if (begins) begin
                starts <= COMMAND_START_pulse;
                writes <= COMMAND_WRITE_pulse;
                reads <= COMMAND_READ_pulse && !COMMAND_WRITE_pulse;
                last <= COMMAND_LAST_pulse;
                stops <= COMMAND_STOP_pulse;
                refused <= 1'b0;
                lost <= 1'b0;
                bit_number <= 4'd0;
                shift <= DATA_BYTE;
                // Of a bus that is not ours the clock line is high; others may still have it.
                phase <= owned || !COMMAND_START_pulse ? LOW_OLD : RISES;
                time_left <= owned || !COMMAND_START_pulse ? half_low : 16'd0;
                if (!owned && COMMAND_START_pulse) data <= 1'b1;
            end
            case (phase)
                LOW_OLD: if (phase_ends) begin
                    phase <= LOW_NEW;
                    data <= new_data;
                    time_left <= rest_low;
                end

                LOW_NEW: if (phase_ends) phase <= RISES;

                // A device, or another controller, may hold the line (UM10204, 3.1.9).
                RISES: if (scl && (owned || !is_start || !taken)) begin
                    phase <= HIGH;
                    time_left <= high;
                end

                HIGH: if (phase_ends) begin
                    if (is_beaten) begin
                        phase <= IDLE;
                        owned <= 1'b0;
                        lost <= 1'b1;
                        data <= 1'b1;
                    end
                    else if (is_byte) begin
                        owned <= 1'b1;
                        shift <= {shift[6:0], sda};
                        bit_number <= is_acknowledge ? 4'd0 : bit_number + 4'd1;
                        phase <= byte_ends && !stops ? IDLE : LOW_OLD;
                        time_left <= half_low;
                        if (is_acknowledge) begin
                            refused <= writes && sda;
                            writes <= 1'b0;
                            reads <= 1'b0;
                        end
                    end
                    else begin
                        phase <= CHANGED;
                        data <= !is_start;
                        time_left <= high;
                    end
                end

                CHANGED: if (phase_ends) begin
                    owned <= is_start;
                    starts <= 1'b0;
                    if (is_stop) stops <= 1'b0;
                    phase <= ends ? IDLE : LOW_OLD;
                    time_left <= half_low;
                end

                default: ;
            endcase
        end
    end
endmodule

`default_nettype wire
