// A processor complex in silicon: for simulation a model of two harts with memory, console, timer and interrupt controller, for
// synthesis a box without contents. Harts and memory of the model take fewer and more cycles than those of silicon would; its
// console says what is sent, and receives nothing.
// SPDX-License-Identifier: 0BSD
`ifdef SIMULATION
`timescale 1ps/1ps
`endif
`default_nettype none

`ifndef SIMULATION
(* blackbox *)
`endif
module polymetron_hard_complex #(
    parameter [31:0] RESET_VECTOR = 32'h0000_0000,
    parameter [31:0] TRAP_VECTOR = 32'h0000_0040,
    parameter HART_ID = 0,
    // Bytes of the memory.
    parameter MEMORY = 16777216,
    parameter ADDRESS_BITS = 24,
    parameter MEMORY_WIDTH = 64,
    parameter INTERRUPTS = 8,
    // Halves of periods in picoseconds, for simulation: of the clocks for the logic, and of the harts.
    parameter HALF0 = 5000,
    parameter HALF1 = 10000,
    parameter CORE_HALF = 1250,
    // Cycles of the harts for a tick of the timer.
    parameter TICK = 40
) (
    input  wire                      port_clk,
    output wire                      clock0,
    output wire                      clock1,
    output wire                      reset,

    // One access each: everything stays as it is from the request until it is done.
    output wire                      harts_request,
    output wire                      harts_write,
    output wire [31:0]               harts_address,
    output wire [31:0]               harts_value,
    output wire [3:0]                harts_bytes,
    input  wire                      harts_done,
    input  wire [31:0]               harts_answer,
    input  wire                      harts_error,

    input  wire                      memory0_request,
    input  wire                      memory0_write,
    input  wire [ADDRESS_BITS-1:0]   memory0_address,
    input  wire [MEMORY_WIDTH-1:0]   memory0_value,
    input  wire [MEMORY_WIDTH/8-1:0] memory0_bytes,
    output wire                      memory0_done,
    output wire [MEMORY_WIDTH-1:0]   memory0_answer,
    output wire                      memory0_error,

    input  wire                      memory1_request,
    input  wire                      memory1_write,
    input  wire [ADDRESS_BITS-1:0]   memory1_address,
    input  wire [MEMORY_WIDTH-1:0]   memory1_value,
    input  wire [MEMORY_WIDTH/8-1:0] memory1_bytes,
    output wire                      memory1_done,
    output wire [MEMORY_WIDTH-1:0]   memory1_answer,
    output wire                      memory1_error,

    input  wire                      memory2_request,
    input  wire                      memory2_write,
    input  wire [ADDRESS_BITS-1:0]   memory2_address,
    input  wire [MEMORY_WIDTH-1:0]   memory2_value,
    input  wire [MEMORY_WIDTH/8-1:0] memory2_bytes,
    output wire                      memory2_done,
    output wire [MEMORY_WIDTH-1:0]   memory2_answer,
    output wire                      memory2_error,

    input  wire                      memory3_request,
    input  wire                      memory3_write,
    input  wire [ADDRESS_BITS-1:0]   memory3_address,
    input  wire [MEMORY_WIDTH-1:0]   memory3_value,
    input  wire [MEMORY_WIDTH/8-1:0] memory3_bytes,
    output wire                      memory3_done,
    output wire [MEMORY_WIDTH-1:0]   memory3_answer,
    output wire                      memory3_error,

    input  wire [(INTERRUPTS > 0 ? INTERRUPTS : 1)-1:0] logic__
);
`ifdef SIMULATION
    localparam WORDS = MEMORY / 4;
    localparam PORT_WORDS = MEMORY_WIDTH / 32;
    localparam SOURCES = 48;
    localparam CONSOLE_SOURCE = 16;
    localparam FIRST_SOURCE = 32;

    // --- clocks and resets

    reg first = 1'b0;
    reg second = 1'b0;
    reg core = 1'b0;
    always #(HALF0) first = !first;
    always #(HALF1) second = !second;
    always #(CORE_HALF) core = !core;
    assign clock0 = first;
    assign clock1 = second;

    reg [4:0] begun = 5'd0;
    always @(posedge port_clk) if (!begun[4]) begun <= begun + 5'd1;
    assign reset = !begun[4];
    wire off;
    polymetron_reset core_reset (.clk(core), .source(reset), .rst(off));

    // --- harts

    wire [1:0] fetches;
    wire [63:0] fetch_address;
    wire [1:0] requests;
    wire [1:0] writes;
    wire [63:0] addresses;
    wire [63:0] values;
    wire [7:0] bytes;
    wire [1:0] dones;
    wire [63:0] answers;
    wire [1:0] errors;
    wire [1:0] externals;
    wire [1:0] timers;
    wire [1:0] softwares;
    reg [63:0] mtime;
    genvar number;
    generate
        for (number = 0; number < 2; number = number + 1) begin : hart
            wire [31:0] pc = fetch_address[32*number +: 32];
            polymetron_rv32_small #(
                .RESET_VECTOR(RESET_VECTOR), .TRAP_VECTOR(TRAP_VECTOR), .HART_ID(HART_ID + number), .MULTIPLIER(2),
                .COMPRESSED(0), .COUNTERS(1), .TIME(1), .LOCAL_INTERRUPTS(0)
            ) core_of (
                .clk(core), .rst(off),
                .instruction_request(fetches[number]), .instruction_address(fetch_address[32*number +: 32]),
                .instruction_done(fetches[number]), .instruction_answer(memory[(pc >> 2) % WORDS]),
                .instruction_error(pc >= MEMORY),
                .data_request(requests[number]), .data_write(writes[number]), .data_address(addresses[32*number +: 32]),
                .data_value(values[32*number +: 32]), .data_bytes(bytes[4*number +: 4]), .data_done(dones[number]),
                .data_answer(answers[32*number +: 32]), .data_error(errors[number]),
                .external(externals[number]), .timer(timers[number]), .software(softwares[number]), .local__(1'b0),
                .mtime(mtime),
                .trace_valid(), .trace_pc(), .trace_instruction(), .trace_register(), .trace_value(), .trace_trap(),
                .trace_cause(), .trace_access(), .trace_write(), .trace_address(), .trace_data(), .trace_bytes(), .trace_cycle()
            );
        end
    endgenerate

    // --- what they get to: memory at once, devices and the logic one after the other

    wire [1:0] to_memory = {requests[1] && addresses[63:32] < MEMORY, requests[0] && addresses[31:0] < MEMORY};
    wire [1:0] to_logic = {requests[1] && addresses[63:62] == 2'b01, requests[0] && addresses[31:30] == 2'b01} & ~to_memory;
    wire [1:0] to_devices = {requests[1] && addresses[63:60] == 4'hE, requests[0] && addresses[31:28] == 4'hE} & ~to_memory;
    wire [1:0] to_nothing = requests & ~to_memory & ~to_logic & ~to_devices;
    wire [1:0] device_turn = {to_devices[1] && !to_devices[0], to_devices[0]};
    reg busy;
    reg whose;
    wire chosen = busy ? whose : !to_logic[0];
    wire out_request = busy || |to_logic;
    wire out_done;
    wire [31:0] out_answer;
    wire out_error;
    wire [1:0] out_turn = {chosen, !chosen} & {2{out_done}};
    wire device_number = device_turn[1];
    wire [31:0] device_address = device_number ? addresses[63:32] : addresses[31:0];
    wire [31:0] device_value = device_number ? values[63:32] : values[31:0];
    wire device_write = device_number ? writes[1] : writes[0];
    reg [31:0] device_answer;
    reg device_error;

    assign dones = to_memory | device_turn | out_turn | to_nothing;
    assign errors = to_nothing | (device_turn & {2{device_error}}) | (out_turn & {2{out_error}});
    genvar side;
    generate
        for (side = 0; side < 2; side = side + 1) begin : data
            wire [31:0] its_address = addresses[32*side +: 32];
            assign answers[32*side +: 32] =
                to_memory[side] ? memory[(its_address >> 2) % WORDS] : to_devices[side] ? device_answer : out_answer;
        end
    endgenerate

    always @(posedge core) begin
        if (off) begin
            busy <= 1'b0;
            whose <= 1'b0;
        end
        else begin
            busy <= out_request && !out_done;
            whose <= chosen;
        end
    end

    polymetron_crossing #(.ADDRESS_BITS(32), .DATA_BITS(32)) crossing (
        .near_clk(core), .near_rst(off),
        .request(out_request), .write(chosen ? writes[1] : writes[0]),
        .address(chosen ? addresses[63:32] : addresses[31:0]), .value(chosen ? values[63:32] : values[31:0]),
        .bytes(chosen ? bytes[7:4] : bytes[3:0]), .done(out_done), .answer(out_answer), .error(out_error),
        .far_clk(port_clk), .far_rst(reset),
        .far_request(harts_request), .far_write(harts_write), .far_address(harts_address), .far_value(harts_value),
        .far_bytes(harts_bytes), .far_done(harts_done), .far_answer(harts_answer), .far_error(harts_error)
    );

    // --- memory

    reg [31:0] memory [0:WORDS-1];
    integer at;

    // Puts a byte in, as a loader would.
    task put(input [31:0] address, input [7:0] value);
        memory[(address >> 2) % WORDS][8*address[1:0] +: 8] = value;
    endtask

    always @(posedge core) begin
        for (at = 0; at < 8; at = at + 1) begin
            if (to_memory[at/4] && writes[at/4] && bytes[at])
                memory[(addresses[32*(at/4) +: 32] >> 2) % WORDS][8*(at%4) +: 8] = values[8*at +: 8];
        end
    end

    genvar word;

    assign memory0_done = memory0_request;
    assign memory0_error = 1'b0;
    generate
        for (word = 0; word < PORT_WORDS; word = word + 1) begin : answers0
            assign memory0_answer[32*word +: 32] = memory[((memory0_address / (MEMORY_WIDTH / 8)) * PORT_WORDS + word) % WORDS];
        end
    endgenerate
    always @(posedge port_clk) if (memory0_request && memory0_write) begin
        for (at = 0; at < MEMORY_WIDTH / 8; at = at + 1) begin
            if (memory0_bytes[at])
                memory[((memory0_address / (MEMORY_WIDTH / 8)) * PORT_WORDS + at / 4) % WORDS][8*(at%4) +: 8] = memory0_value[8*at +: 8];
        end
    end

    assign memory1_done = memory1_request;
    assign memory1_error = 1'b0;
    generate
        for (word = 0; word < PORT_WORDS; word = word + 1) begin : answers1
            assign memory1_answer[32*word +: 32] = memory[((memory1_address / (MEMORY_WIDTH / 8)) * PORT_WORDS + word) % WORDS];
        end
    endgenerate
    always @(posedge port_clk) if (memory1_request && memory1_write) begin
        for (at = 0; at < MEMORY_WIDTH / 8; at = at + 1) begin
            if (memory1_bytes[at])
                memory[((memory1_address / (MEMORY_WIDTH / 8)) * PORT_WORDS + at / 4) % WORDS][8*(at%4) +: 8] = memory1_value[8*at +: 8];
        end
    end

    assign memory2_done = memory2_request;
    assign memory2_error = 1'b0;
    generate
        for (word = 0; word < PORT_WORDS; word = word + 1) begin : answers2
            assign memory2_answer[32*word +: 32] = memory[((memory2_address / (MEMORY_WIDTH / 8)) * PORT_WORDS + word) % WORDS];
        end
    endgenerate
    always @(posedge port_clk) if (memory2_request && memory2_write) begin
        for (at = 0; at < MEMORY_WIDTH / 8; at = at + 1) begin
            if (memory2_bytes[at])
                memory[((memory2_address / (MEMORY_WIDTH / 8)) * PORT_WORDS + at / 4) % WORDS][8*(at%4) +: 8] = memory2_value[8*at +: 8];
        end
    end

    assign memory3_done = memory3_request;
    assign memory3_error = 1'b0;
    generate
        for (word = 0; word < PORT_WORDS; word = word + 1) begin : answers3
            assign memory3_answer[32*word +: 32] = memory[((memory3_address / (MEMORY_WIDTH / 8)) * PORT_WORDS + word) % WORDS];
        end
    endgenerate
    always @(posedge port_clk) if (memory3_request && memory3_write) begin
        for (at = 0; at < MEMORY_WIDTH / 8; at = at + 1) begin
            if (memory3_bytes[at])
                memory[((memory3_address / (MEMORY_WIDTH / 8)) * PORT_WORDS + at / 4) % WORDS][8*(at%4) +: 8] = memory3_value[8*at +: 8];
        end
    end

    // --- timer and software interrupts (RISC-V ACLINT)

    reg [1:0] msip;
    reg [127:0] mtimecmp;
    integer tick;
    assign softwares = msip;
    assign timers = {mtime >= mtimecmp[127:64], mtime >= mtimecmp[63:0]};

    // --- interrupt controller (RISC-V PLIC 1.0.0), a context for each hart

    reg [3*SOURCES-1:0] priorities;
    reg [2*SOURCES-1:0] enables;
    reg [5:0] thresholds;
    reg [SOURCES-1:0] pending;
    reg [SOURCES-1:0] in_service;
    reg [INTERRUPTS:0] seen;
    reg [INTERRUPTS:0] levels;
    wire [INTERRUPTS:0] lines = {1'b0, logic__};

    // The most urgent source of a which, the lowest of several; 0 for none.
    function [5:0] best(input integer which, input [2:0] above);
        integer source;
        reg [2:0] most;
        begin
            best = 6'd0;
            most = above;
            for (source = 1; source < SOURCES; source = source + 1) begin
                if (pending[source] && enables[SOURCES*which + source] && priorities[3*source +: 3] > most) begin
                    best = source[5:0];
                    most = priorities[3*source +: 3];
                end
            end
        end
    endfunction

    reg [1:0] asks;
    assign externals = asks;

    // --- console (16550): what is sent is said

    reg [7:0] console [0:7];

    // --- reading

    wire [27:0] place = device_address[27:0];
    wire in_console = place[27:12] == 16'd0;
    wire in_timer = place[27:16] == 12'h100;
    wire in_controller = place[27:26] == 2'b01;
    wire [25:0] controller = place[25:0];
    reg [5:0] claimed;
    always @* begin
        device_answer = 32'd0;
        device_error = !in_console && !in_timer && !in_controller;
        claimed = 6'd0;
        if (in_console) device_answer = place[4:2] == 3'd5 ? 32'h60 : place[4:2] == 3'd2 ? 32'h01 : {24'd0, console[place[4:2]]};
        if (in_timer) begin
            if (place[15:3] == 13'd0) device_answer = {31'd0, msip[place[2]]};
            if (place[15:4] == 12'h400) device_answer = mtimecmp[32*place[3:2] +: 32];
            if (place[15:3] == 13'h17FF) device_answer = place[2] ? mtime[63:32] : mtime[31:0];
        end
        if (in_controller) begin
            if (controller < 26'd4 * SOURCES) device_answer = {29'd0, priorities[3*controller[7:2] +: 3]};
            if (controller[25:3] == 23'h1000 >> 3) device_answer = controller[2] ? {16'd0, pending[47:32]} : pending[31:0];
            if (controller[25:8] == 18'h20)
                device_answer = controller[2] ? {16'd0, enables[SOURCES*controller[7] + 32 +: 16]} : enables[SOURCES*controller[7] +: 32];
            if (controller[25:13] == 13'h100) begin
                claimed = best({31'd0, controller[12]}, 3'd0);
                device_answer = controller[2] ? {26'd0, claimed} : {29'd0, thresholds[3*controller[12] +: 3]};
            end
        end
    end

    // --- writing, and what happens by itself

    always @(posedge core) begin
        if (off) begin
            mtime <= 64'd0;
            tick <= 0;
            msip <= 2'd0;
            mtimecmp <= {128{1'b1}};
            priorities <= {3 * SOURCES{1'b0}};
            enables <= {2 * SOURCES{1'b0}};
            thresholds <= 6'd0;
            pending <= {SOURCES{1'b0}};
            in_service <= {SOURCES{1'b0}};
            seen <= {INTERRUPTS + 1{1'b0}};
            levels <= {INTERRUPTS + 1{1'b0}};
            asks <= 2'd0;
        end
        else begin
            tick <= tick == TICK - 1 ? 0 : tick + 1;
            if (tick == TICK - 1) mtime <= mtime + 64'd1;
            seen <= lines;
            levels <= seen;
            pending[FIRST_SOURCE +: 16] <= pending[FIRST_SOURCE +: 16] | (levels[INTERRUPTS:0] & ~in_service[FIRST_SOURCE +: 16]);
            asks <= {best(1, thresholds[5:3]) != 6'd0, best(0, thresholds[2:0]) != 6'd0};
            if (|device_turn && device_write) begin
                if (in_console) begin
                    if (place[4:2] != 3'd0 || console[3][7]) console[place[4:2]] <= device_value[7:0];
                    else $write("%c", device_value[7:0]);
                end
                if (in_timer) begin
                    if (place[15:3] == 13'd0) msip[place[2]] <= device_value[0];
                    if (place[15:4] == 12'h400) mtimecmp[32*place[3:2] +: 32] <= device_value;
                    if (place[15:3] == 13'h17FF && place[2]) mtime[63:32] <= device_value;
                    if (place[15:3] == 13'h17FF && !place[2]) mtime[31:0] <= device_value;
                end
                if (in_controller) begin
                    if (controller < 26'd4 * SOURCES) priorities[3*controller[7:2] +: 3] <= device_value[2:0];
                    if (controller[25:8] == 18'h20) begin
                        if (controller[2]) enables[SOURCES*controller[7] + 32 +: 16] <= device_value[15:0];
                        else enables[SOURCES*controller[7] +: 32] <= {device_value[31:1], 1'b0};
                    end
                    if (controller[25:13] == 13'h100) begin
                        if (controller[2]) in_service[device_value[5:0]] <= 1'b0;
                        else thresholds[3*controller[12] +: 3] <= device_value[2:0];
                    end
                end
            end
            // A claim takes the source until it is completed.
            if (|device_turn && !device_write && in_controller && controller[25:13] == 13'h100 && controller[2] && claimed != 6'd0) begin
                pending[claimed] <= 1'b0;
                in_service[claimed] <= 1'b1;
            end
        end
    end
    initial for (at = 0; at < 8; at = at + 1) console[at] = 8'd0;
`else
    // For tools that look inside all the same.
    assign {clock1, clock0} = 2'b00;
    assign reset = 1'b0;
    assign harts_request = 1'b0;
    assign harts_write = 1'b0;
    assign harts_address = RESET_VECTOR ^ TRAP_VECTOR;
    assign harts_value = 32'd0;
    assign harts_bytes = 4'd0;
    assign memory0_done = memory0_request;
    assign memory0_answer = memory0_value;
    assign memory0_error = 1'b0;
    wire unused_memory0 = memory0_write | |memory0_address | |memory0_bytes;
    assign memory1_done = memory1_request;
    assign memory1_answer = memory1_value;
    assign memory1_error = 1'b0;
    wire unused_memory1 = memory1_write | |memory1_address | |memory1_bytes;
    assign memory2_done = memory2_request;
    assign memory2_answer = memory2_value;
    assign memory2_error = 1'b0;
    wire unused_memory2 = memory2_write | |memory2_address | |memory2_bytes;
    assign memory3_done = memory3_request;
    assign memory3_answer = memory3_value;
    assign memory3_error = 1'b0;
    wire unused_memory3 = memory3_write | |memory3_address | |memory3_bytes;
    wire unused_numbers = port_clk || HART_ID + MEMORY + HALF0 + HALF1 + CORE_HALF + TICK == 0 || harts_done || |harts_answer || harts_error || |logic__;
`endif
endmodule

`default_nettype wire
