// RV32I hart with machine mode (RISC-V Unprivileged ISA 20191213, Privileged ISA 20211203); M, C, counters that other modes
// could read and local interrupt lines by parameter. One instruction at a time: fetch, execute, and where it takes longer,
// memory access or arithmetic step by step. Nothing is fetched that is not executed.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_rv32_small #(
    parameter [31:0] RESET_VECTOR = 32'h0000_0000,
    parameter [31:0] TRAP_VECTOR = 32'h0000_0040,
    parameter [31:0] HART_ID = 32'd0,
    // 0: no multiplication, 1: a bit in each cycle, 2: multipliers of the device
    parameter MULTIPLIER = 0,
    parameter COMPRESSED = 0,
    // 1: cycle and instret can be read
    parameter COUNTERS = 0,
    // 1: there is a time
    parameter TIME = 0,
    parameter LOCAL_INTERRUPTS = 0
) (
    input  wire        clk,
    input  wire        rst,

    // One access each: everything stays as it is from the request until it is done.
    output wire        instruction_request,
    output wire [31:0] instruction_address,
    input  wire        instruction_done,
    input  wire [31:0] instruction_answer,
    input  wire        instruction_error,

    output wire        data_request,
    output wire        data_write,
    output wire [31:0] data_address,
    output wire [31:0] data_value,
    output wire [3:0]  data_bytes,
    input  wire        data_done,
    input  wire [31:0] data_answer,
    input  wire        data_error,

    input  wire        external,
    input  wire        timer,
    input  wire        software,
    input  wire [(LOCAL_INTERRUPTS > 0 ? LOCAL_INTERRUPTS : 1)-1:0] local__,
    // MTIME of the timer that serves the hart
    input  wire [63:0] mtime

`ifdef SIMULATION
    ,
    output reg         trace_valid,
    output reg  [31:0] trace_pc,
    output reg  [31:0] trace_instruction,
    output reg  [4:0]  trace_register,
    output reg  [31:0] trace_value,
    output reg         trace_trap,
    output reg  [31:0] trace_cause,
    output reg         trace_access,
    output reg         trace_write,
    output reg  [31:0] trace_address,
    output reg  [31:0] trace_data,
    output reg  [3:0]  trace_bytes,
    output reg  [63:0] trace_cycle
`endif
);
    // --- states

    localparam [2:0] FETCH = 3'd0;
    localparam [2:0] EXECUTE = 3'd2;
    localparam [2:0] ACCESS = 3'd3;
    localparam [2:0] ARITHMETIC = 3'd4;
    localparam [2:0] SLEEP = 3'd5;

    reg [2:0] state;
    reg [31:0] pc;
    reg [31:0] word;
    // The instruction as it was fetched, and whether it has 16 bits only.
    reg [31:0] fetched;
    reg is_short;
    reg fetch_fault;
    reg [31:0] fetch_fault_address;

    // --- registers

    reg [31:0] x [0:31];
    wire [4:0] rd = word[11:7];
    wire [4:0] rs1 = word[19:15];
    wire [4:0] rs2 = word[24:20];
    wire [31:0] one = rs1 == 5'd0 ? 32'd0 : x[rs1];
    wire [31:0] two = rs2 == 5'd0 ? 32'd0 : x[rs2];

    // --- decoding

    wire [6:0] opcode = word[6:0];
    wire [2:0] funct3 = word[14:12];
    wire [6:0] funct7 = word[31:25];

    wire is_lui = opcode == 7'b0110111;
    wire is_auipc = opcode == 7'b0010111;
    wire is_jal = opcode == 7'b1101111;
    wire is_jalr = opcode == 7'b1100111 && funct3 == 3'd0;
    wire is_branch = opcode == 7'b1100011 && funct3 != 3'd2 && funct3 != 3'd3;
    wire is_load = opcode == 7'b0000011 && funct3 != 3'd3 && funct3 < 3'd6;
    wire is_store = opcode == 7'b0100011 && funct3 < 3'd3;
    wire is_fence = opcode == 7'b0001111 && funct3[2:1] == 2'd0;
    wire is_system = opcode == 7'b1110011;

    wire is_shift = funct3 == 3'd1 || funct3 == 3'd5;
    wire is_arithmetic_funct7 = funct7 == 7'd0 || (funct7 == 7'b0100000 && funct3 == 3'd5);
    wire is_immediate_op = opcode == 7'b0010011 && (!is_shift || is_arithmetic_funct7);
    wire is_register_op = opcode == 7'b0110011
        && (funct7 == 7'd0 || (funct7 == 7'b0100000 && (funct3 == 3'd0 || funct3 == 3'd5)));
    wire is_multiply_op = opcode == 7'b0110011 && funct7 == 7'd1 && MULTIPLIER != 0;

    wire is_csr = is_system && funct3[1:0] != 2'd0;
    wire is_call = word == 32'h0000_0073;
    wire is_break = word == 32'h0010_0073;
    wire is_return = word == 32'h3020_0073;
    wire is_wait = word == 32'h1050_0073;

    wire [31:0] immediate_i = {{20{word[31]}}, word[31:20]};
    wire [31:0] immediate_s = {{20{word[31]}}, word[31:25], word[11:7]};
    wire [31:0] immediate_b = {{19{word[31]}}, word[31], word[7], word[30:25], word[11:8], 1'b0};
    wire [31:0] immediate_u = {word[31:12], 12'd0};
    wire [31:0] immediate_j = {{11{word[31]}}, word[31], word[19:12], word[20], word[30:21], 1'b0};

    // --- one adder and one shifter

    wire subtracts = is_branch || (is_register_op && funct7[5] && funct3 == 3'd0)
        || ((is_register_op || is_immediate_op) && (funct3 == 3'd2 || funct3 == 3'd3));
    wire [31:0] second = is_register_op || is_branch ? two : is_store ? immediate_s : immediate_i;
    wire [32:0] sum = {1'b0, one} + {1'b0, second ^ {32{subtracts}}} + {32'd0, subtracts};
    wire equal = one == second;
    wire below = !sum[32];
    wire less = one[31] == second[31] ? below : one[31];

    wire [4:0] amount = second[4:0];
    wire [31:0] left_in = {
        one[0], one[1], one[2], one[3], one[4], one[5], one[6], one[7],
        one[8], one[9], one[10], one[11], one[12], one[13], one[14], one[15],
        one[16], one[17], one[18], one[19], one[20], one[21], one[22], one[23],
        one[24], one[25], one[26], one[27], one[28], one[29], one[30], one[31]
    };
    wire [31:0] shift_in = funct3 == 3'd1 ? left_in : one;
    wire fill = funct3 == 3'd5 && word[30] && one[31];
    wire [62:0] wide_shift = {{31{fill}}, shift_in} >> amount;
    wire [31:0] shifted = wide_shift[31:0];
`ifdef VERILATOR
    wire unused_shift = |wide_shift[62:32];
`endif
    wire [31:0] shifted_left = {
        shifted[0], shifted[1], shifted[2], shifted[3], shifted[4], shifted[5], shifted[6], shifted[7],
        shifted[8], shifted[9], shifted[10], shifted[11], shifted[12], shifted[13], shifted[14], shifted[15],
        shifted[16], shifted[17], shifted[18], shifted[19], shifted[20], shifted[21], shifted[22], shifted[23],
        shifted[24], shifted[25], shifted[26], shifted[27], shifted[28], shifted[29], shifted[30], shifted[31]
    };

    reg [31:0] operated;
    always @* begin
        case (funct3)
            3'd0: operated = sum[31:0];
            3'd1: operated = shifted_left;
            3'd2: operated = {31'd0, less};
            3'd3: operated = {31'd0, below};
            3'd4: operated = one ^ second;
            3'd5: operated = shifted;
            3'd6: operated = one | second;
            default: operated = one & second;
        endcase
    end

    wire taken = funct3[2:1] == 2'd0 ? equal != funct3[0]
        : funct3[2:1] == 2'd2 ? less != funct3[0] : below != funct3[0];
    wire [31:0] next = pc + (is_short ? 32'd2 : 32'd4);
    wire [31:0] branch_target = pc + immediate_b;
    wire [31:0] jump_target = is_jal ? pc + immediate_j : {sum[31:1], 1'b0};

    // --- control and status registers

    reg mie_enable;
    reg mpie;
    reg mie_external;
    reg mie_timer;
    reg mie_software;
    reg [31:0] mtvec;
    reg [31:0] mscratch;
    reg [31:0] mepc;
    reg [31:0] mcause;
    reg [31:0] mtval;
    reg [63:0] cycles;
    reg [63:0] retired;

    // Lines of the hart's own, which come after the others, the first one first.
    wire [15:0] local_pending;
    wire [3:0] local_first;
    wire [15:0] local_lines;
    wire [15:0] local_enabled;
    generate
        if (LOCAL_INTERRUPTS > 0) begin : locals
            reg [LOCAL_INTERRUPTS-1:0] enabled;
            always @(posedge clk) begin
                if (rst) enabled <= {LOCAL_INTERRUPTS{1'b0}};
                else if (writes_mie) enabled <= csr_new[16+:LOCAL_INTERRUPTS];
            end
            if (LOCAL_INTERRUPTS == 16) begin : all
                assign local_lines = local__;
                assign local_enabled = enabled;
            end
            else begin : some
                assign local_lines = {{16 - LOCAL_INTERRUPTS{1'b0}}, local__};
                assign local_enabled = {{16 - LOCAL_INTERRUPTS{1'b0}}, enabled};
            end
            reg [3:0] first;
            integer line;
            always @(*) begin
                first = 4'd0;
                for (line = 15; line >= 0; line = line - 1) if (local_pending[line]) first = line[3:0];
            end
            assign local_first = first;
        end
        else begin : no_locals
            assign local_lines = 16'd0;
            assign local_enabled = 16'd0;
            assign local_first = 4'd0;
            wire unused_local = (|local__) | writes_mie;
        end
    endgenerate
    assign local_pending = local_lines & local_enabled;

    // Lines may be of another clock domain's making, but are synchronised before they come here.
    wire pending_external = external && mie_external;
    wire pending_software = software && mie_software;
    wire pending_timer = timer && mie_timer;
    wire pending = pending_external || pending_software || pending_timer || local_pending != 16'd0;
    // A fetch that has been requested is not taken back.
    reg fetch_requested;
    wire interrupted = pending && mie_enable && !fetch_requested;
    wire [31:0] interrupt_cause = {
        1'b1, 26'd0, pending_external ? 5'd11 : pending_software ? 5'd3 : pending_timer ? 5'd7 : {1'b1, local_first}
    };

    wire [11:0] csr = word[31:20];
    wire is_time = COUNTERS != 0 && TIME != 0 && csr[11:8] == 4'hC && csr[6:0] == 7'd1;
    wire is_counter = is_time || ((csr[11:8] == 4'hB || (COUNTERS != 0 && csr[11:8] == 4'hC))
        && (csr[6:0] == 7'd0 || csr[6:0] == 7'd2));
    wire [63:0] counter = is_time ? mtime : csr[1] ? retired : cycles;
    reg [31:0] csr_kept;
    reg csr_exists;
    always @* begin
        csr_exists = 1'b1;
        csr_kept = 32'd0;
        case (csr)
            12'h300: csr_kept = {19'd0, 2'b11, 3'd0, mpie, 3'd0, mie_enable, 3'd0};
            12'h301: csr_kept = 32'h4000_0100 | (MULTIPLIER != 0 ? 32'h1000 : 32'd0) | (COMPRESSED != 0 ? 32'd4 : 32'd0);
            12'h304: csr_kept = {local_enabled, 4'd0, mie_external, 3'd0, mie_timer, 3'd0, mie_software, 3'd0};
            12'h305: csr_kept = mtvec;
            12'h340: csr_kept = mscratch;
            12'h341: csr_kept = mepc;
            12'h342: csr_kept = mcause;
            12'h343: csr_kept = mtval;
            12'h344: csr_kept = {local_lines, 4'd0, external, 3'd0, timer, 3'd0, software, 3'd0};
            12'hF14: csr_kept = HART_ID;
            12'h310, 12'h320, 12'hF11, 12'hF12, 12'hF13, 12'hF15: csr_kept = 32'd0;
            // Counters of events, and what selects them: there are none, and they read as 0.
            default:
                csr_exists = is_counter || (csr >= 12'h323 && csr <= 12'h33F)
                    || (csr >= 12'hB03 && csr <= 12'hB1F)
                    || (csr >= 12'hB83 && csr <= 12'hB9F);
        endcase
    end
    wire [31:0] csr_old = !is_counter ? csr_kept : csr[7] ? counter[63:32] : counter[31:0];

    wire [31:0] csr_operand = funct3[2] ? {27'd0, rs1} : one;
    wire csr_writes = funct3[1:0] == 2'd1 || rs1 != 5'd0;
    wire [31:0] csr_new = funct3[1:0] == 2'd1 ? csr_operand
        : funct3[1:0] == 2'd2 ? csr_old | csr_operand : csr_old & ~csr_operand;
    wire writes_mie = state == EXECUTE && !faults && is_csr && csr_writes && csr == 12'h304;
    wire csr_allowed = csr_exists && !(csr_writes && csr[11:10] == 2'd3);

    // --- memory accesses: always a word, of which a load takes and a store names the bytes

    wire [31:0] address = sum[31:0];
    wire misaligned = (funct3[1:0] == 2'd1 && address[0]) || (funct3[1:0] == 2'd2 && address[1:0] != 2'd0);
    reg [31:0] access_address;
    reg [31:0] store_word;
    reg [3:0] store_bytes;

    wire [31:0] loaded = data_answer >> {access_address[1:0], 3'd0};
    wire [31:0] load_value = funct3[1:0] == 2'd0 ? {{24{loaded[7] && !funct3[2]}}, loaded[7:0]}
        : funct3[1:0] == 2'd1 ? {{16{loaded[15] && !funct3[2]}}, loaded[15:0]} : loaded;

    assign data_request = state == ACCESS;
    assign data_write = is_store;
    assign data_address = {access_address[31:2], 2'd0};
    assign data_value = store_word;
    assign data_bytes = store_bytes;

    // --- fetching: a word, or of two words a half each

    // The upper half of the word that was fetched last, where it follows the last instruction.
    reg [15:0] half;
    reg half_valid;
    wire half_is_short = COMPRESSED != 0 && half_valid && half[1:0] != 2'd3;
    wire is_upper = COMPRESSED != 0 && pc[1];
    wire joins = is_upper && half_valid;
    wire is_bad_pc = COMPRESSED == 0 && pc[1:0] != 2'd0;

    // Nothing is requested during a reset (Arm IHI 0022, A3.1.2).
    assign instruction_request = state == FETCH && !rst && !interrupted && !half_is_short && !is_bad_pc;
    assign instruction_address = joins ? {pc[31:2] + 30'd1, 2'd0} : {pc[31:2], 2'd0};

    wire [15:0] short_half = half_is_short ? half : is_upper ? instruction_answer[31:16] : instruction_answer[15:0];
    wire [31:0] long_word;
    generate
        if (COMPRESSED != 0) begin : with_compressed
            polymetron_rv32_compressed expand (.half(short_half), .word(long_word));
        end
        else begin : without_compressed
            assign long_word = 32'd0;
            wire unused_half = |short_half;
        end
    endgenerate
    wire [31:0] whole = joins ? {instruction_answer[15:0], half} : instruction_answer;
    wire fetched_short = COMPRESSED != 0 && (half_is_short || (!joins && short_half[1:0] != 2'd3));
    // The first half of an instruction that goes on in the next word.
    wire fetched_first = is_upper && !joins && short_half[1:0] == 2'd3;

    // --- multiplication and division, a bit at a time: {high, low} shifts left or right by one

    wire arithmetic_ready;
    wire [31:0] arithmetic_result;
    generate
        if (MULTIPLIER != 0) begin : with_arithmetic
            reg [5:0] steps;
            reg [31:0] high;
            reg [31:0] low;
            reg [31:0] operand;
            reg negate_result;
            reg take_high;
            wire divides = funct3[2];
            wire signed_one = funct3 == 3'd1 || funct3 == 3'd2 || funct3 == 3'd4 || funct3 == 3'd6;
            wire signed_two = funct3 == 3'd1 || funct3 == 3'd4 || funct3 == 3'd6;
            wire minus_one = signed_one && one[31];
            wire minus_two = signed_two && two[31];
            wire [31:0] size_one = minus_one ? 32'd0 - one : one;
            wire [31:0] size_two = minus_two ? 32'd0 - two : two;
            wire [32:0] multiply_sum = {1'b0, high} + (low[0] ? {1'b0, operand} : 33'd0);
            wire [32:0] divide_rest = {high, low[31]};
            wire [32:0] divide_difference = divide_rest - {1'b0, operand};
            wire [63:0] product = negate_result ? 64'd0 - {high, low} : {high, low};
            wire [31:0] quotient_or_rest = take_high ? high : low;
            assign arithmetic_ready = steps == 6'd0;
            assign arithmetic_result = divides
                ? (negate_result ? 32'd0 - quotient_or_rest : quotient_or_rest)
                : take_high ? product[63:32] : product[31:0];

            always @(posedge clk) begin
                if (rst) begin
                    steps <= 6'd0;
                    high <= 32'd0;
                    low <= 32'd0;
                    operand <= 32'd0;
                    negate_result <= 1'b0;
                    take_high <= 1'b0;
                end
                // Division by zero and overflow come out as the ISA has them: all ones, or the dividend.
                else if (state == EXECUTE && is_multiply_op) begin
                    high <= 32'd0;
                    low <= size_one;
                    operand <= size_two;
                    steps <= MULTIPLIER == 2 && !divides ? 6'd0 : 6'd32;
                    take_high <= divides ? funct3[1] : funct3 != 3'd0;
                    negate_result <= divides
                        ? (funct3[1] ? minus_one : (minus_one != minus_two) && two != 32'd0)
                        : minus_one != minus_two;
                    if (MULTIPLIER == 2 && !divides) {high, low} <= {32'd0, size_one} * {32'd0, size_two};
                end
                else if (state == ARITHMETIC && steps != 6'd0) begin
                    steps <= steps - 6'd1;
                    if (divides) begin
                        high <= divide_difference[32] ? divide_rest[31:0] : divide_difference[31:0];
                        low <= {low[30:0], !divide_difference[32]};
                    end
                    else begin
                        {high, low} <= {multiply_sum, low[31:1]};
                    end
                end
            end
        end
        else begin : without_arithmetic
            assign arithmetic_ready = 1'b0;
            assign arithmetic_result = 32'd0;
        end
    endgenerate

    // --- what an instruction does at the end of EXECUTE

    wire is_known = is_lui || is_auipc || is_jal || is_jalr || is_branch || is_load || is_store || is_fence
        || is_immediate_op || is_register_op || is_multiply_op || (is_csr && csr_allowed)
        || is_call || is_break || is_return || is_wait;
    wire jumps = is_jal || is_jalr || (is_branch && taken);
    wire [31:0] target = is_branch ? branch_target : jump_target;
    wire misaligned_target = COMPRESSED == 0 && jumps && target[1:0] != 2'd0;
    wire faults = fetch_fault || !is_known || misaligned_target || is_call || is_break
        || ((is_load || is_store) && misaligned);
    wire [31:0] fault_cause = fetch_fault ? 32'd1 : !is_known ? 32'd2 : misaligned_target ? 32'd0
        : is_call ? 32'd11 : is_break ? 32'd3 : is_load ? 32'd4 : 32'd6;
    wire [31:0] fault_value = fetch_fault ? fetch_fault_address : !is_known ? fetched : misaligned_target ? target
        : is_call ? 32'd0 : is_break ? pc : address;
    wire writes_rd = is_lui || is_auipc || is_jal || is_jalr || is_immediate_op || is_register_op || is_csr;
    wire [31:0] result = is_lui ? immediate_u : is_auipc ? pc + immediate_u
        : is_jal || is_jalr ? next : is_csr ? csr_old : operated;

    wire access_fault = state == ACCESS && data_done && data_error;
    wire access_done = state == ACCESS && data_done && !data_error;
    wire arithmetic_done = MULTIPLIER != 0 && state == ARITHMETIC && arithmetic_ready;
    wire executes = state == EXECUTE && !faults;
    wire goes_on = executes && !is_load && !is_store && !is_multiply_op;
    wire retires = goes_on || access_done || arithmetic_done;
    wire misaligned_pc = state == FETCH && !interrupted && is_bad_pc;
    wire traps = (state == FETCH && interrupted) || misaligned_pc || (state == EXECUTE && faults) || access_fault;
    wire [31:0] trap_cause = state == FETCH ? (interrupted ? interrupt_cause : 32'd0)
        : state == EXECUTE ? fault_cause : is_load ? 32'd5 : 32'd7;
    wire [31:0] trap_value = state == FETCH ? (interrupted ? 32'd0 : pc)
        : state == EXECUTE ? fault_value : access_address;
    wire [31:0] trap_base = {mtvec[31:2], 2'd0};
    wire [31:0] trap_target = mtvec[0] && trap_cause[31]
        ? trap_base + {25'd0, trap_cause[4:0], 2'd0} : trap_base;

    wire writes = (goes_on && writes_rd) || (access_done && is_load) || arithmetic_done;
    wire [31:0] value = arithmetic_done ? arithmetic_result : access_done ? load_value : result;

    always @(posedge clk) begin
        if (writes && rd != 5'd0) x[rd] <= value;
    end

    always @(posedge clk) begin
        if (rst) begin
            state <= FETCH;
            pc <= RESET_VECTOR;
            word <= 32'd0;
            fetched <= 32'd0;
            is_short <= 1'b0;
            half <= 16'd0;
            half_valid <= 1'b0;
            fetch_fault <= 1'b0;
            fetch_fault_address <= 32'd0;
            fetch_requested <= 1'b0;
            access_address <= 32'd0;
            store_word <= 32'd0;
            store_bytes <= 4'd0;
            mie_enable <= 1'b0;
            mpie <= 1'b0;
            mie_external <= 1'b0;
            mie_timer <= 1'b0;
            mie_software <= 1'b0;
            mtvec <= TRAP_VECTOR & 32'hFFFF_FFFD;
            mscratch <= 32'd0;
            mepc <= 32'd0;
            mcause <= 32'd0;
            mtval <= 32'd0;
            cycles <= 64'd0;
            retired <= 64'd0;
        end
        else begin
            fetch_requested <= instruction_request && !instruction_done;
            cycles <= cycles + 64'd1;
            if (retires) retired <= retired + 64'd1;

            case (state)
                FETCH: if (half_is_short || (instruction_request && instruction_done)) begin
                    fetch_fault <= !half_is_short && instruction_error;
                    fetch_fault_address <= instruction_address | (joins ? 32'd0 : {30'd0, pc[1:0]});
                    word <= fetched_short ? long_word : whole;
                    fetched <= fetched_short ? {16'd0, short_half} : whole;
                    is_short <= fetched_short;
                    half <= instruction_answer[31:16];
                    half_valid <= COMPRESSED != 0 && !half_is_short && !instruction_error
                        && (joins || fetched_first || (!is_upper && fetched_short));
                    if (!fetched_first || instruction_error) state <= EXECUTE;
                end

                EXECUTE: begin
                    if (is_load || is_store) access_address <= address;
                    if (is_store) begin
                        store_word <= two << {address[1:0], 3'd0};
                        store_bytes <= funct3[1:0] == 2'd0 ? 4'b0001 << address[1:0]
                            : funct3[1:0] == 2'd1 ? 4'b0011 << address[1:0] : 4'b1111;
                    end
                    if (!faults) begin
                        state <= is_load || is_store ? ACCESS : is_multiply_op ? ARITHMETIC
                            : is_wait && !pending ? SLEEP : FETCH;
                        if (goes_on) pc <= is_return ? mepc : jumps ? target : next;
                        if (jumps || is_return || (is_fence && funct3[0])) half_valid <= 1'b0;
                        if (is_return) begin
                            mie_enable <= mpie;
                            mpie <= 1'b1;
                        end
                        if (is_csr && csr_writes) begin
                            case (csr)
                                12'h300: begin
                                    mie_enable <= csr_new[3];
                                    mpie <= csr_new[7];
                                end
                                12'h304: begin
                                    mie_external <= csr_new[11];
                                    mie_timer <= csr_new[7];
                                    mie_software <= csr_new[3];
                                end
                                12'h305: mtvec <= csr_new & 32'hFFFF_FFFD;
                                12'h340: mscratch <= csr_new;
                                12'h341: mepc <= csr_new & (COMPRESSED != 0 ? 32'hFFFF_FFFE : 32'hFFFF_FFFC);
                                12'h342: mcause <= csr_new;
                                12'h343: mtval <= csr_new;
                                12'hB00: cycles[31:0] <= csr_new;
                                12'hB80: cycles[63:32] <= csr_new;
                                12'hB02: retired[31:0] <= csr_new;
                                12'hB82: retired[63:32] <= csr_new;
                                default: ;
                            endcase
                        end
                    end
                end

                ACCESS: begin
                    if (access_done) begin
                        state <= FETCH;
                        pc <= next;
                    end
                end

                ARITHMETIC: begin
                    if (arithmetic_done) begin
                        state <= FETCH;
                        pc <= next;
                    end
                end

                SLEEP: if (pending) state <= FETCH;

                default: state <= FETCH;
            endcase

            if (traps) begin
                state <= FETCH;
                pc <= trap_target;
                mepc <= {pc[31:2], COMPRESSED != 0 && pc[1], 1'b0};
                half_valid <= 1'b0;
                mcause <= trap_cause;
                mtval <= trap_value;
                mpie <= mie_enable;
                mie_enable <= 1'b0;
            end
        end
    end

`ifdef SIMULATION
    // One line for each instruction that ends and each trap that is taken, for whoever follows the hart.
    always @(posedge clk) begin
        trace_valid <= !rst && (retires || traps);
        trace_pc <= pc;
        trace_instruction <= fetched;
        trace_register <= writes ? rd : 5'd0;
        trace_value <= value;
        trace_trap <= traps;
        trace_cause <= trap_cause;
        trace_access <= state == ACCESS;
        trace_write <= is_store;
        trace_address <= access_address;
        trace_data <= is_store ? store_word : data_answer;
        trace_bytes <= store_bytes;
        trace_cycle <= cycles;
    end
`endif
endmodule

`default_nettype wire
