// A stand-in for a serial flash: identification, status, reads on one, two and four lines with addresses of 24 and 32 bits, writes of
// pages of 256 bytes, erase of 4 KiB, 64 KiB and all (commands of JEDEC JESD216). A page takes 7 us and an erase 45 us, a hundredth
// and a thousandth of what chips take. It keeps a megabyte; addresses beyond it meet the same bytes again.
// SPDX-License-Identifier: 0BSD
`timescale 1ps/1ps
`default_nettype none

module polymetron_part_serial_flash (
    input wire clock,
    input wire select,
    inout wire [3:0] data
);
    localparam SIZE = 1048576;
    localparam [23:0] IDENTITY = 24'h0f4019;

    reg [7:0] bytes [0:SIZE-1];
    reg [7:0] page [0:255];
    reg [255:0] written;
    // An erase or a page is under way until a time.
    reg busy;
    reg [63:0] ready_at;
    reg enabled;
    reg quad;
    reg may_reset;
    // Continuous reads: a command begins with its address.
    reg continuous;
    reg [7:0] command;
    reg [31:0] address;
    reg [31:0] shift;
    reg [3:0] out;
    reg [3:0] drive;
    integer clocks;
    integer lines;
    integer address_clocks;
    integer wait_clocks;
    integer count;
    integer each;
    assign data[0] = drive[0] && !select ? out[0] : 1'bz;
    assign data[1] = drive[1] && !select ? out[1] : 1'bz;
    assign data[2] = drive[2] && !select ? out[2] : 1'bz;
    assign data[3] = drive[3] && !select ? out[3] : 1'bz;

    initial begin
        for (each = 0; each < SIZE; each = each + 1) bytes[each] = 8'hff;
        busy = 1'b0;
        ready_at = 64'd0;
        enabled = 1'b0;
        quad = 1'b0;
        may_reset = 1'b0;
        continuous = 1'b0;
        drive = 4'd0;
        out = 4'd0;
        clocks = 0;
        command = 8'h00;
        lines = 1;
        address_clocks = 0;
        wait_clocks = 0;
        count = 0;
        shift = 32'd0;
        address = 32'd0;
        written = 256'd0;
    end

    // Its end is noticed at the next command.
    task settle;
        if (busy && $time >= ready_at) begin
            busy = 1'b0;
            enabled = 1'b0;
        end
    endtask

    always @(negedge select) begin
        settle;
        clocks = continuous ? 8 : 0;
        count = 0;
        written = 256'd0;
        if (continuous) known;
    end

    // What a command has: lines of address and data, clocks of the address and of the wait behind it.
    task known;
        begin
            lines = command == 8'heb || command == 8'hec ? 4 : command == 8'hbb || command == 8'hbc ? 2 : 1;
            case (command)
                8'h03, 8'h0b, 8'hbb, 8'heb, 8'h02, 8'h20, 8'hd8: address_clocks = 24 / lines;
                8'h13, 8'h0c, 8'hbc, 8'hec, 8'h12, 8'h21, 8'hdc: address_clocks = 32 / lines;
                default: address_clocks = 0;
            endcase
            case (command)
                8'h0b, 8'h0c, 8'hbb, 8'hbc, 8'heb, 8'hec: wait_clocks = 8;
                default: wait_clocks = 0;
            endcase
            address = 32'd0;
        end
    endtask

    // A bit or more that comes in.
    always @(posedge clock) if (!select) begin
        if (clocks < 8) begin
            command = {command[6:0], data[0]};
            clocks = clocks + 1;
            if (clocks == 8) known;
        end
        else begin
            clocks = clocks + 1;
            if (clocks - 8 <= address_clocks) begin
                if (lines == 4) address = {address[27:0], data};
                else if (lines == 2) address = {address[29:0], data[1:0]};
                else address = {address[30:0], data[0]};
            end
            else if (clocks - 8 <= address_clocks + wait_clocks) begin
                // The first four of the bits behind the address: continuous reads follow where they are 1010.
                if (lines == 4 && clocks - 9 == address_clocks) continuous = data == 4'b1010;
            end
            else begin
                shift = {shift[30:0], data[0]};
                count = count + 1;
                if ((command == 8'h02 || command == 8'h12) && count % 8 == 0) begin
                    page[address[7:0]] = shift[7:0];
                    written[address[7:0]] = 1'b1;
                    address[7:0] = address[7:0] + 8'd1;
                end
            end
        end
    end

    // A bit or more that goes out, behind the address and the wait.
    reg [7:0] gives;
    integer at;
    always @(negedge clock) if (!select) begin
        at = clocks - 8 - address_clocks - wait_clocks;
        settle;
        drive = 4'd0;
        if (clocks >= 8 && at >= 0) begin
            case (command)
                8'h9f: gives = IDENTITY >> (16 - 8 * (at / 8 % 3));
                8'h05: gives = {6'd0, enabled, busy};
                8'h35: gives = {6'd0, quad, 1'b0};
                default: gives = busy ? 8'h00 : bytes[(address + at * lines / 8) % SIZE];
            endcase
            case (command)
                8'h9f, 8'h05, 8'h35, 8'h03, 8'h13, 8'h0b, 8'h0c: begin
                    drive = 4'b0010;
                    out[1] = gives[7 - at % 8];
                end
                8'hbb, 8'hbc: begin
                    drive = 4'b0011;
                    out[1:0] = gives >> (6 - 2 * (at % 4));
                end
                8'heb, 8'hec: if (quad) begin
                    drive = 4'b1111;
                    out = gives >> (4 - 4 * (at % 2));
                end
                default: ;
            endcase
        end
    end

    // What a command does, it does when the chip is no longer selected.
    always @(posedge select) begin
        drive = 4'd0;
        if (clocks == 8 && command == 8'hff) continuous = 1'b0;
        if (clocks == 8 && command == 8'h99 && may_reset) begin
            enabled = 1'b0;
            quad = 1'b0;
            continuous = 1'b0;
        end
        may_reset = clocks == 8 && command == 8'h66;
        if (!busy) begin
            case (command)
                8'h06: if (clocks == 8) enabled = 1'b1;
                8'h50: if (clocks == 8) enabled = 1'b1;
                8'h04: if (clocks == 8) enabled = 1'b0;
                8'h31: if (count == 8) begin
                    if (enabled) quad = shift[1];
                    enabled = 1'b0;
                end
                8'h02, 8'h12: if (enabled && count >= 8 && count % 8 == 0) begin
                    busy = 1'b1;
                    ready_at = $time + 64'd7000000;
                    for (each = 0; each < 256; each = each + 1) begin
                        if (written[each]) begin
                            at = {address[31:8], 8'd0} % SIZE + each;
                            bytes[at] = bytes[at] & page[each];
                        end
                    end
                end
                8'h20, 8'h21: if (enabled && clocks - 8 == address_clocks) erase(4096);
                8'hd8, 8'hdc: if (enabled && clocks - 8 == address_clocks) erase(65536);
                8'hc7: if (enabled && clocks == 8) erase(SIZE);
                default: ;
            endcase
        end
        clocks = 0;
    end

    task erase(input integer size);
        begin
            busy = 1'b1;
            ready_at = $time + 64'd45000000;
            at = address % SIZE / size * size;
            for (each = 0; each < size; each = each + 1) bytes[at + each] = 8'hff;
        end
    endtask

    // Puts a byte in, as a programmer would.
    task put(input [31:0] address, input [7:0] value);
        bytes[address % SIZE] = value;
    endtask
endmodule

`default_nettype wire
