// RV32I hart with machine mode (RISC-V Unprivileged ISA 20191213, Privileged ISA 20211203), and M by parameter.
// One instruction at a time: fetch, execute, and where it takes longer, memory access or arithmetic step by step.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_rv32_small #(
    parameter [31:0] RESET_VECTOR = 32'h0000_0000,
    parameter [31:0] TRAP_VECTOR = 32'h0000_0040,
    parameter [31:0] HART_ID = 32'd0,
    // 0: no multiplication, 1: a bit in each cycle, 2: multipliers of the device
    parameter MULTIPLIER = 0
) (
    input  wire        clk,
    input  wire        rst,

    output wire [31:0] instruction_araddr,
    output wire        instruction_arvalid,
    input  wire        instruction_arready,
    input  wire [31:0] instruction_rdata,
    input  wire [1:0]  instruction_rresp,
    input  wire        instruction_rvalid,
    output wire        instruction_rready,

    output wire [31:0] data_awaddr,
    output wire        data_awvalid,
    input  wire        data_awready,
    output wire [31:0] data_wdata,
    output wire [3:0]  data_wstrb,
    output wire        data_wvalid,
    input  wire        data_wready,
    input  wire [1:0]  data_bresp,
    input  wire        data_bvalid,
    output wire        data_bready,
    output wire [31:0] data_araddr,
    output wire        data_arvalid,
    input  wire        data_arready,
    input  wire [31:0] data_rdata,
    input  wire [1:0]  data_rresp,
    input  wire        data_rvalid,
    output wire        data_rready,

    input  wire        external,
    input  wire        timer,
    input  wire        software

`ifdef SIMULATION
    ,
    output reg         trace_valid,
    output reg  [31:0] trace_pc,
    output reg  [31:0] trace_instruction,
    output reg  [4:0]  trace_register,
    output reg  [31:0] trace_value,
    output reg         trace_trap,
    output reg  [31:0] trace_cause
`endif
);
    // --- states

    localparam [2:0] FETCH = 3'd0;
    localparam [2:0] WAIT_FETCH = 3'd1;
    localparam [2:0] EXECUTE = 3'd2;
    localparam [2:0] ACCESS = 3'd3;
    localparam [2:0] ARITHMETIC = 3'd4;
    localparam [2:0] SLEEP = 3'd5;

    reg [2:0] state;
    reg [31:0] pc;
    reg [31:0] word;
    reg fetch_fault;

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
    wire [31:0] next = pc + 32'd4;
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

    // Lines may be of another clock domain's making, but are synchronised before they come here.
    wire pending_external = external && mie_external;
    wire pending_software = software && mie_software;
    wire pending_timer = timer && mie_timer;
    wire pending = pending_external || pending_software || pending_timer;
    // A fetch that has been requested is not taken back.
    reg fetch_requested;
    wire interrupted = pending && mie_enable && !fetch_requested;
    wire [31:0] interrupt_cause = {
        1'b1, 27'd0, pending_external ? 4'd11 : pending_software ? 4'd3 : 4'd7
    };

    wire [11:0] csr = word[31:20];
    wire is_counter = csr[11:8] == 4'hB && (csr[6:0] == 7'd0 || csr[6:0] == 7'd2);
    wire [63:0] counter = csr[1] ? retired : cycles;
    reg [31:0] csr_kept;
    reg csr_exists;
    always @* begin
        csr_exists = 1'b1;
        csr_kept = 32'd0;
        case (csr)
            12'h300: csr_kept = {19'd0, 2'b11, 3'd0, mpie, 3'd0, mie_enable, 3'd0};
            12'h301: csr_kept = MULTIPLIER != 0 ? 32'h4000_1100 : 32'h4000_0100;
            12'h304: csr_kept = {20'd0, mie_external, 3'd0, mie_timer, 3'd0, mie_software, 3'd0};
            12'h305: csr_kept = mtvec;
            12'h340: csr_kept = mscratch;
            12'h341: csr_kept = mepc;
            12'h342: csr_kept = mcause;
            12'h343: csr_kept = mtval;
            12'h344: csr_kept = {20'd0, external, 3'd0, timer, 3'd0, software, 3'd0};
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
    wire csr_allowed = csr_exists && !(csr_writes && csr[11:10] == 2'd3);

    // --- memory accesses: always a word, of which a load takes and a store names the bytes

    wire [31:0] address = sum[31:0];
    wire misaligned = (funct3[1:0] == 2'd1 && address[0]) || (funct3[1:0] == 2'd2 && address[1:0] != 2'd0);
    reg [31:0] access_address;
    reg read_requested;
    reg write_requested;
    reg data_requested;
    reg [31:0] store_word;
    reg [3:0] store_bytes;

    wire [31:0] loaded = data_rdata >> {access_address[1:0], 3'd0};
    wire [31:0] load_value = funct3[1:0] == 2'd0 ? {{24{loaded[7] && !funct3[2]}}, loaded[7:0]}
        : funct3[1:0] == 2'd1 ? {{16{loaded[15] && !funct3[2]}}, loaded[15:0]} : loaded;

    assign instruction_araddr = {pc[31:2], 2'd0};
    // Nothing is requested during a reset (Arm IHI 0022, A3.1.2).
    assign instruction_arvalid = state == FETCH && !rst && !interrupted && pc[1:0] == 2'd0;
    assign instruction_rready = state == WAIT_FETCH;
    assign data_araddr = {access_address[31:2], 2'd0};
    assign data_arvalid = read_requested;
    assign data_rready = state == ACCESS;
    assign data_awaddr = {access_address[31:2], 2'd0};
    assign data_awvalid = write_requested;
    assign data_wdata = store_word;
    assign data_wstrb = store_bytes;
    assign data_wvalid = data_requested;
    assign data_bready = state == ACCESS;

    // --- multiplication and division, a bit at a time: {high, low} shifts left or right by one

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
    wire [31:0] arithmetic_result = divides
        ? (negate_result ? 32'd0 - quotient_or_rest : quotient_or_rest)
        : take_high ? product[63:32] : product[31:0];

    // --- what an instruction does at the end of EXECUTE

    wire is_known = is_lui || is_auipc || is_jal || is_jalr || is_branch || is_load || is_store || is_fence
        || is_immediate_op || is_register_op || is_multiply_op || (is_csr && csr_allowed)
        || is_call || is_break || is_return || is_wait;
    wire jumps = is_jal || is_jalr || (is_branch && taken);
    wire [31:0] target = is_branch ? branch_target : jump_target;
    wire misaligned_target = jumps && target[1:0] != 2'd0;
    wire faults = fetch_fault || !is_known || misaligned_target || is_call || is_break
        || ((is_load || is_store) && misaligned);
    wire [31:0] fault_cause = fetch_fault ? 32'd1 : !is_known ? 32'd2 : misaligned_target ? 32'd0
        : is_call ? 32'd11 : is_break ? 32'd3 : is_load ? 32'd4 : 32'd6;
    wire [31:0] fault_value = fetch_fault ? pc : !is_known ? word : misaligned_target ? target
        : is_call ? 32'd0 : is_break ? pc : address;
    wire writes_rd = is_lui || is_auipc || is_jal || is_jalr || is_immediate_op || is_register_op || is_csr;
    wire [31:0] result = is_lui ? immediate_u : is_auipc ? pc + immediate_u
        : is_jal || is_jalr ? next : is_csr ? csr_old : operated;

    wire read_done = state == ACCESS && is_load && data_rvalid;
    wire write_done = state == ACCESS && is_store && data_bvalid;
    wire access_fault = (read_done && data_rresp[1]) || (write_done && data_bresp[1]);
    wire access_done = (read_done || write_done) && !access_fault;
    wire arithmetic_done = state == ARITHMETIC && steps == 6'd0;
    wire executes = state == EXECUTE && !faults;
    wire goes_on = executes && !is_load && !is_store && !is_multiply_op;
    wire retires = goes_on || access_done || arithmetic_done;
    wire misaligned_pc = state == FETCH && !interrupted && pc[1:0] != 2'd0;
    wire traps = (state == FETCH && interrupted) || misaligned_pc || (state == EXECUTE && faults) || access_fault;
    wire [31:0] trap_cause = state == FETCH ? (interrupted ? interrupt_cause : 32'd0)
        : state == EXECUTE ? fault_cause : is_load ? 32'd5 : 32'd7;
    wire [31:0] trap_value = state == FETCH ? (interrupted ? 32'd0 : pc)
        : state == EXECUTE ? fault_value : access_address;
    wire [31:0] trap_base = {mtvec[31:2], 2'd0};
    wire [31:0] trap_target = mtvec[0] && trap_cause[31]
        ? trap_base + {26'd0, trap_cause[3:0], 2'd0} : trap_base;

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
            fetch_fault <= 1'b0;
            fetch_requested <= 1'b0;
            read_requested <= 1'b0;
            write_requested <= 1'b0;
            data_requested <= 1'b0;
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
            steps <= 6'd0;
            high <= 32'd0;
            low <= 32'd0;
            operand <= 32'd0;
            negate_result <= 1'b0;
            take_high <= 1'b0;
        end
        else begin
            fetch_requested <= instruction_arvalid && !instruction_arready;
            cycles <= cycles + 64'd1;
            if (retires) retired <= retired + 64'd1;

            case (state)
                FETCH: if (instruction_arvalid && instruction_arready) state <= WAIT_FETCH;

                WAIT_FETCH: if (instruction_rvalid) begin
                    word <= instruction_rdata;
                    fetch_fault <= instruction_rresp[1];
                    state <= EXECUTE;
                end

                EXECUTE: begin
                    if (is_load || is_store) access_address <= address;
                    if (is_store) begin
                        store_word <= two << {address[1:0], 3'd0};
                        store_bytes <= funct3[1:0] == 2'd0 ? 4'b0001 << address[1:0]
                            : funct3[1:0] == 2'd1 ? 4'b0011 << address[1:0] : 4'b1111;
                    end
                    // Division by zero and overflow come out as the ISA has them: all ones, or the dividend.
                    if (is_multiply_op) begin
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
                    if (!faults) begin
                        state <= is_load || is_store ? ACCESS : is_multiply_op ? ARITHMETIC
                            : is_wait && !pending ? SLEEP : FETCH;
                        read_requested <= is_load;
                        write_requested <= is_store;
                        data_requested <= is_store;
                        if (goes_on) pc <= is_return ? mepc : jumps ? target : next;
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
                                12'h341: mepc <= csr_new & 32'hFFFF_FFFC;
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
                    if (data_arready) read_requested <= 1'b0;
                    if (data_awready) write_requested <= 1'b0;
                    if (data_wready) data_requested <= 1'b0;
                    if (access_done) begin
                        state <= FETCH;
                        pc <= next;
                    end
                end

                ARITHMETIC: begin
                    if (steps == 6'd0) begin
                        state <= FETCH;
                        pc <= next;
                    end
                    else begin
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

                SLEEP: if (pending) state <= FETCH;

                default: state <= FETCH;
            endcase

            if (traps) begin
                state <= FETCH;
                pc <= trap_target;
                mepc <= {pc[31:2], 2'd0};
                mcause <= trap_cause;
                mtval <= trap_value;
                mpie <= mie_enable;
                mie_enable <= 1'b0;
            end
        end
    end

    // EXOKAY and DECERR are no news beside OKAY and SLVERR.
`ifdef VERILATOR
    wire unused_responses = instruction_rresp[0] | data_rresp[0] | data_bresp[0];
`endif

`ifdef SIMULATION
    // One line for each instruction that ends and each trap that is taken, for whoever follows the hart.
    always @(posedge clk) begin
        trace_valid <= !rst && (retires || traps);
        trace_pc <= pc;
        trace_instruction <= word;
        trace_register <= writes ? rd : 5'd0;
        trace_value <= value;
        trace_trap <= traps;
        trace_cause <= trap_cause;
    end
`endif
endmodule

`default_nettype wire
