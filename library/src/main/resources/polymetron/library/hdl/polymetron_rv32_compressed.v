// The 32-bit instruction that a compressed one stands for (RISC-V Unprivileged ISA 20191213, chapter 16, RV32C without floating
// point). What is reserved becomes 0, which is illegal.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_rv32_compressed (
    input  wire [15:0] half,
    output reg  [31:0] word
);
    localparam [6:0] LOAD = 7'b0000011;
    localparam [6:0] STORE = 7'b0100011;
    localparam [6:0] IMMEDIATE = 7'b0010011;
    localparam [6:0] REGISTER = 7'b0110011;
    localparam [6:0] LUI = 7'b0110111;
    localparam [6:0] JAL = 7'b1101111;
    localparam [6:0] JALR = 7'b1100111;
    localparam [6:0] BRANCH = 7'b1100011;

    wire [4:0] rd = half[11:7];
    wire [4:0] rs2 = half[6:2];
    wire [4:0] low_one = {2'b01, half[9:7]};
    wire [4:0] low_two = {2'b01, half[4:2]};
    wire [11:0] short_immediate = {{7{half[12]}}, half[6:2]};
    wire [11:0] jump = {half[12], half[8], half[10:9], half[6], half[7], half[2], half[11], half[5:3], half[12]};
    wire [31:0] jal = {jump[11:1], half[12], {8{half[12]}}, 5'd0, JAL};
    wire [7:0] branch = {half[12], half[6:5], half[2], half[11:10], half[4:3]};
    wire [11:0] word_offset = {5'd0, half[5], half[12:10], half[6], 2'b00};
    wire [11:0] stack_load = {4'd0, half[3:2], half[12], half[6:4], 2'b00};
    wire [11:0] stack_store = {4'd0, half[8:7], half[12:9], 2'b00};

    always @(*) begin
        word = 32'd0;
        case ({half[1:0], half[15:13]})
            // C.ADDI4SPN, C.LW, C.SW
            5'b00_000: if (half[12:5] != 8'd0) begin
                word = {2'd0, half[10:7], half[12:11], half[5], half[6], 2'b00, 5'd2, 3'd0, low_two, IMMEDIATE};
            end
            5'b00_010: word = {word_offset, low_one, 3'd2, low_two, LOAD};
            5'b00_110: word = {word_offset[11:5], low_two, low_one, 3'd2, word_offset[4:0], STORE};
            // C.ADDI, C.JAL, C.LI
            5'b01_000: word = {short_immediate, rd, 3'd0, rd, IMMEDIATE};
            5'b01_001: word = jal | 32'h0000_0080;
            5'b01_010: word = {short_immediate, 5'd0, 3'd0, rd, IMMEDIATE};
            // C.ADDI16SP, C.LUI
            5'b01_011: if ({half[12], half[6:2]} != 6'd0) begin
                if (rd == 5'd2) begin
                    word = {{3{half[12]}}, half[4:3], half[5], half[2], half[6], 4'd0, 5'd2, 3'd0, 5'd2, IMMEDIATE};
                end
                else word = {{15{half[12]}}, half[6:2], rd, LUI};
            end
            // C.SRLI, C.SRAI, C.ANDI, C.SUB, C.XOR, C.OR, C.AND
            5'b01_100: begin
                case (half[11:10])
                    2'd0: if (!half[12]) word = {7'b0000000, rs2, low_one, 3'd5, low_one, IMMEDIATE};
                    2'd1: if (!half[12]) word = {7'b0100000, rs2, low_one, 3'd5, low_one, IMMEDIATE};
                    2'd2: word = {short_immediate, low_one, 3'd7, low_one, IMMEDIATE};
                    default: if (!half[12]) begin
                        case (half[6:5])
                            2'd0: word = {7'b0100000, low_two, low_one, 3'd0, low_one, REGISTER};
                            2'd1: word = {7'b0000000, low_two, low_one, 3'd4, low_one, REGISTER};
                            2'd2: word = {7'b0000000, low_two, low_one, 3'd6, low_one, REGISTER};
                            default: word = {7'b0000000, low_two, low_one, 3'd7, low_one, REGISTER};
                        endcase
                    end
                endcase
            end
            // C.J, C.BEQZ, C.BNEZ
            5'b01_101: word = jal;
            5'b01_110, 5'b01_111: begin
                word = {{4{branch[7]}}, branch[6:4], 5'd0, low_one, 2'b00, half[13], branch[3:0], branch[7], BRANCH};
            end
            // C.SLLI, C.LWSP
            5'b10_000: if (!half[12]) word = {7'd0, rs2, rd, 3'd1, rd, IMMEDIATE};
            5'b10_010: if (rd != 5'd0) word = {stack_load, 5'd2, 3'd2, rd, LOAD};
            // C.JR, C.MV, C.EBREAK, C.JALR, C.ADD
            5'b10_100: begin
                if (rs2 != 5'd0) word = {7'd0, rs2, half[12] ? rd : 5'd0, 3'd0, rd, REGISTER};
                else if (rd != 5'd0) word = {12'd0, rd, 3'd0, 4'd0, half[12], JALR};
                else if (half[12]) word = 32'h0010_0073;
            end
            // C.SWSP
            5'b10_110: word = {stack_store[11:5], rs2, 5'd2, 3'd2, stack_store[4:0], STORE};
            default: ;
        endcase
    end

    // The lowest bit of an offset is always 0.
    wire unused_jump = jump[0];
endmodule

`default_nettype wire
