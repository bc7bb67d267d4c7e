// One direction of a DMA: accesses of the data width at a bus, words of a stream, and descriptors, which are read and written back at
// the same bus. Where the end of the bus makes bursts, accesses of the data follow each other as bursts that are planned before they
// begin: as many words as there is room for or are there, up to the end of the packet, of the buffer and of the 4 KiB that no burst
// of AXI4 leaves (Arm IHI 0022, A3.4.1). A plain transfer starts when its length is written. In the ring a descriptor has four words: address of the next
// one, address of the buffer, bytes to move, and a word in which the block says how it ended (done in bit 31, error in bit 30,
// bytes moved in the bits below).
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_dma_channel #(
    // 1 from a stream to memory, 0 from memory to a stream.
    parameter RECEIVES = 0,
    parameter WIDTH = 32,
    parameter LENGTH = 26,
    parameter FIFO = 512,
    parameter RING = 0,
    // Most accesses of a burst.
    parameter BURST = 1
) (
    input  wire               clk,
    input  wire               rst,

    output wire               request,
    output wire               write,
    output wire [31:0]        address,
    output wire [WIDTH-1:0]   value,
    output wire [WIDTH/8-1:0] bytes,
    // Accesses that follow this one in its burst, each of them requested in any case; and whether there are bursts at all.
    output wire [7:0]         more,
    input  wire               bursts,
    input  wire               done,
    input  wire [WIDTH-1:0]   answer,
    input  wire               error,

    input  wire [WIDTH-1:0]   in_tdata,
    input  wire               in_tvalid,
    output wire               in_tready,
    input  wire               in_tlast,
    input  wire [WIDTH/8-1:0] in_tkeep,
    output wire [WIDTH-1:0]   out_tdata,
    output wire               out_tvalid,
    input  wire               out_tready,
    output wire               out_tlast,
    output wire [WIDTH/8-1:0] out_tkeep,

    input  wire               run,
    input  wire               ring,
    input  wire               clear,
    output wire               is_done,
    output wire               is_error,
    output wire               is_idle,
    input  wire [31:0]        buffer,
    input  wire               length_stored,
    input  wire [LENGTH-1:0]  length,
    output wire               length_load,
    output wire [LENGTH-1:0]  length_new,
    input  wire               first_stored,
    input  wire [31:0]        first,
    input  wire [31:0]        tail
);
    localparam [31:0] BYTES = WIDTH / 8;
    localparam LOW = $clog2(BYTES);
    localparam COUNT = $clog2(BYTES + 1);
    // Wide enough for a length and for the bytes of a word.
    localparam WIDE = (LENGTH > COUNT ? LENGTH : COUNT) + 1;
    localparam [32:0] WIDE_BYTES = {1'b0, BYTES};
    localparam [WIDE-1:0] WORD = WIDE_BYTES[WIDE-1:0];

    localparam [2:0] RESTS = 3'd0;
    localparam [2:0] READS_NEXT = 3'd1;
    localparam [2:0] READS_BUFFER = 3'd2;
    localparam [2:0] READS_LENGTH = 3'd3;
    localparam [2:0] STARTS = 3'd4;
    localparam [2:0] MOVES = 3'd5;
    localparam [2:0] TELLS = 3'd6;
    localparam [2:0] ENDS = 3'd7;

    reg [2:0] does;
    // A length that was written, and waits until it may run.
    reg asked;
    reg from_ring;
    reg failed;
    reg leaves;
    reg [31:0] place;
    reg [WIDE-1:0] left;
    // Bytes of accesses that are done, and of those whose answer is known: a burst of writes has one for all.
    reg [LENGTH-1:0] moving;
    reg [LENGTH-1:0] moved;
    // Accesses that follow this one in its burst, once it was requested.
    reg planned;
    localparam BEATS = BURST > 4 ? $clog2(BURST) : 2;
    reg [BEATS-1:0] beats;
    reg [31:0] descriptor;
    reg [31:0] next;

    // --- the stream

    wire [WIDTH-1:0] data;
    wire [BYTES-1:0] keep;
    wire last;
    wire is_there;
    wire goes;
    wire has_room;
    wire is_off = leaves && (request ? done && more == 8'd0 : !planned);
    wire [BYTES-1:0] part = left >= WORD ? {BYTES{1'b1}} : ~({BYTES{1'b1}} << left[LOW:0]);
    wire ends_here = left <= WORD;

    polymetron_stream_fifo #(.WIDTH(WIDTH), .DEPTH(FIFO), .PACKETS(1), .LANES(1)) waits (
        .clk(clk), .rst(rst || is_off),
        .in_tdata(RECEIVES != 0 ? in_tdata : answer),
        .in_tvalid(RECEIVES != 0 ? in_tvalid && !leaves : goes),
        .in_tready(has_room),
        .in_tlast(RECEIVES != 0 ? in_tlast : ends_here),
        .in_tkeep(RECEIVES != 0 ? in_tkeep : part),
        .out_tdata(data), .out_tvalid(is_there),
        .out_tready(RECEIVES != 0 ? goes : out_tready),
        .out_tlast(last), .out_tkeep(keep)
    );
    assign in_tready = RECEIVES != 0 && has_room && !leaves;
    assign out_tdata = data;
    assign out_tvalid = RECEIVES == 0 && is_there;
    assign out_tlast = last;
    assign out_tkeep = keep;

    // Words that have come and not gone: those in the memory, and on their way into and out of it.
    localparam ROOM = FIFO < 4 ? 4 : FIFO;
    localparam HELD = $clog2(ROOM) + 1;
    reg [HELD-1:0] held;
    wire comes = RECEIVES != 0 ? in_tvalid && in_tready : goes && has_room;
    wire departs = RECEIVES != 0 ? goes : out_tvalid && out_tready;
    always @(posedge clk) begin
        if (rst || is_off) held <= {HELD{1'b0}};
        else held <= held + {{HELD - 1{1'b0}}, comes} - {{HELD - 1{1'b0}}, departs};
    end

    // --- bursts

    generate
        if (BURST > 1) begin : in_bursts
            localparam [31:0] LONGEST = BURST;
            localparam [8:0] MOST = LONGEST[8:0];
            localparam [31:0] PAGE = 4096 / BYTES;
            localparam [31:0] FULL = ROOM;
            // Up to the end of what is to be moved, of the page, and of the words that are there or have room.
            // A length of 32 bits has 33 here.
            wire [63:0] all = {{64 - WIDE{1'b0}}, left} + {32'd0, BYTES} - 64'd1;
            wire [63:0] of_length = {{LOW{1'b0}}, all[63:LOW]};
            wire [31:0] of_page = PAGE - {{20 + LOW{1'b0}}, place[11:LOW]};
            wire [31:0] of_words;
            wire [31:0] words_held = {{32 - HELD{1'b0}}, held};
            wire [8:0] to_length = of_length < {32'd0, LONGEST} ? of_length[8:0] : MOST;
            wire [8:0] to_page = of_page < {23'd0, to_length} ? of_page[8:0] : to_length;
            wire [8:0] to_words = of_words < {23'd0, to_page} ? of_words[8:0] : to_page;
            wire [8:0] following = to_words - 9'd1;
            assign more = planned ? {{8 - BEATS{1'b0}}, beats} : !moves || !bursts || to_words == 9'd0 ? 8'd0 : following[7:0];
            wire unused_plan = following[8] | (|all[LOW-1:0]) | (|place[31:12]);
            if (RECEIVES != 0) begin : packets
                // Of up to eight packets whose end is there it is known how many words they have; where there are more, words
                // go one by one until the last of them has gone.
                reg [HELD-1:0] come;
                reg [HELD-1:0] gone;
                reg [HELD-1:0] ends;
                reg too_many;
                wire [HELD-1:0] length_of_first;
                wire [3:0] known;
                wire is_known = known != 4'd0;
                wire end_comes = comes && in_tlast;
                wire end_departs = departs && last;
                wire keeps_length = end_comes && !too_many && known != 4'd8;
                polymetron_fifo #(.BITS(HELD), .DEPTH_BITS(3)) lengths (
                    .clk(clk), .rst(rst || is_off), .push(keeps_length), .in(come + {{HELD - 1{1'b0}}, 1'b1}),
                    .pop(end_departs && is_known), .out(length_of_first), .count(known)
                );
                always @(posedge clk) begin
                    if (rst || is_off) begin
                        come <= {HELD{1'b0}};
                        gone <= {HELD{1'b0}};
                        ends <= {HELD{1'b0}};
                        too_many <= 1'b0;
                    end
                    else begin
                        if (comes) come <= in_tlast ? {HELD{1'b0}} : come + {{HELD - 1{1'b0}}, 1'b1};
                        if (departs) gone <= last ? {HELD{1'b0}} : gone + {{HELD - 1{1'b0}}, 1'b1};
                        ends <= ends + {{HELD - 1{1'b0}}, end_comes} - {{HELD - 1{1'b0}}, end_departs};
                        if (end_comes) too_many <= too_many || known == 4'd8;
                        else if (ends == {HELD{1'b0}}) too_many <= 1'b0;
                    end
                end
                wire [HELD-1:0] of_first = length_of_first - gone;
                assign of_words = ends == {HELD{1'b0}} ? words_held : is_known ? {{32 - HELD{1'b0}}, of_first} : 32'd1;
            end
            else begin : room
                assign of_words = FULL - words_held;
            end
        end
        else begin : one_by_one
            assign more = 8'd0;
            wire unused_plan = bursts | (|held) | planned | (|beats);
        end
    endgenerate

    // --- accesses

    wire moves = does == MOVES;
    wire reads_descriptor = does == READS_NEXT || does == READS_BUFFER || does == READS_LENGTH;
    wire [31:0] at = does == READS_BUFFER ? descriptor + 32'd4
        : does == READS_LENGTH ? descriptor + 32'd8
        : does == TELLS ? descriptor + 32'd12
        : descriptor;
    // A word of the stream may end before the buffer does, and the other way round. Reads are of whole words.
    wire [BYTES-1:0] stores = RECEIVES != 0 ? keep & part : {BYTES{1'b1}};
    integer each;
    reg [COUNT-1:0] stored;
    always @* begin
        stored = {COUNT{1'b0}};
        for (each = 0; each < BYTES; each = each + 1) stored = stored + {{COUNT - 1{1'b0}}, stores[each]};
    end
    wire [WIDE-1:0] amount = RECEIVES != 0 ? {{WIDE - COUNT{1'b0}}, stored} : ends_here ? left : WORD;
    wire is_last = RECEIVES != 0 ? last || amount == left : ends_here;

    assign request = reads_descriptor || does == TELLS || (moves && (RECEIVES != 0 ? is_there : has_room));
    assign write = does == TELLS || (moves && RECEIVES != 0);
    assign address = moves ? {place[31:LOW], {LOW{1'b0}}} : {at[31:LOW], {LOW{1'b0}}};
    wire [29:0] moved_word;
    wire [31:0] told = {1'b1, failed, moved_word};
    wire [31:0] word;
    generate
        if (LENGTH < 30) begin : short_length
            assign moved_word = {{30 - LENGTH{1'b0}}, moved};
        end
        else begin : long_length
            assign moved_word = moved[29:0];
        end
        if (WIDTH > 32) begin : wide
            localparam LANES = WIDTH / 32;
            wire [LOW-3:0] lane = at[LOW-1:2];
            assign word = answer[lane*32 +: 32];
            assign bytes = moves ? stores : {{BYTES - 4{1'b0}}, 4'hf} << {lane, 2'b00};
            assign value = moves ? data : {LANES{told}};
        end
        else begin : same
            assign word = answer;
            assign bytes = moves ? stores : 4'hf;
            assign value = moves ? data : told;
        end
    endgenerate
    wire unused_address = |at[1:0] | |place[LOW-1:0];
    // Behind a word that could not be read the rest of its burst is read, and not sent.
    assign goes = moves && request && done && (RECEIVES != 0 || !(error || failed));
    wire is_answered = RECEIVES == 0 || more == 8'd0;
    wire is_wrong = error || failed;

    assign is_idle = does == RESTS && !asked && (RECEIVES != 0 || held == {HELD{1'b0}});
    assign is_done = does == ENDS && !leaves;
    assign is_error = is_done && failed;
    assign length_load = does == STARTS || (moves && request && done && is_answered);
    wire [WIDE-1:0] left_then = left - amount;
    wire [LENGTH-1:0] moving_then = moving + amount[LENGTH-1:0];
    assign length_new = RECEIVES != 0 ? (does == STARTS ? {LENGTH{1'b0}} : error ? moved : moving_then)
        : does == STARTS ? left[LENGTH-1:0] : is_wrong ? left[LENGTH-1:0] : left_then[LENGTH-1:0];

    // The first descriptor was written: its address is there a cycle later.
    reg begins;
    wire has_work = RING != 0 && ring && !begins && descriptor != tail && !failed;

    always @(posedge clk) begin
        if (rst) begin
            does <= RESTS;
            asked <= 1'b0;
            from_ring <= 1'b0;
            failed <= 1'b0;
            leaves <= 1'b0;
            begins <= 1'b0;
            place <= 32'd0;
            left <= {WIDE{1'b0}};
            moving <= {LENGTH{1'b0}};
            moved <= {LENGTH{1'b0}};
            planned <= 1'b0;
            beats <= {BEATS{1'b0}};
            descriptor <= 32'd0;
            next <= 32'd0;
        end
        else begin
            case (does)
                RESTS: begin
                    from_ring <= 1'b0;
                    place <= buffer;
                    left <= {{WIDE - LENGTH{1'b0}}, length};
                    if (run && asked) begin
                        does <= STARTS;
                        asked <= 1'b0;
                        failed <= 1'b0;
                    end
                    else if (run && has_work && !first_stored) begin
                        does <= READS_NEXT;
                        from_ring <= 1'b1;
                    end
                end
                READS_NEXT: if (done) begin
                    next <= word;
                    failed <= error;
                    does <= error ? ENDS : READS_BUFFER;
                end
                READS_BUFFER: if (done) begin
                    place <= word;
                    failed <= error;
                    does <= error ? ENDS : READS_LENGTH;
                end
                READS_LENGTH: if (done) begin
                    left <= {{WIDE - LENGTH{1'b0}}, word[LENGTH-1:0]};
                    failed <= error;
                    does <= error ? ENDS : STARTS;
                end
                STARTS: begin
                    moving <= {LENGTH{1'b0}};
                    moved <= {LENGTH{1'b0}};
                    does <= left != {WIDE{1'b0}} ? MOVES : from_ring ? TELLS : ENDS;
                end
                MOVES: if (request && done) begin
                    place <= place + BYTES;
                    if (!is_wrong) begin
                        left <= left_then;
                        moving <= moving_then;
                        if (is_answered) moved <= moving_then;
                    end
                    failed <= is_wrong;
                    if (more == 8'd0 && (is_wrong || is_last)) does <= from_ring ? TELLS : ENDS;
                end
                TELLS: if (done) begin
                    descriptor <= next;
                    failed <= failed || error;
                    does <= ENDS;
                end
                default: does <= RESTS;
            endcase
            if (request) begin
                planned <= !done || more != 8'd0;
                beats <= more[BEATS-1:0] - {{BEATS - 1{1'b0}}, done};
            end
            // One that is written while the one before it starts is another one.
            if (length_stored && !ring) asked <= 1'b1;
            begins <= first_stored;
            if (begins) begin
                descriptor <= first;
                failed <= 1'b0;
            end
            // What is under way at the bus ends first. A reset that comes as one before it ends is another one.
            if (is_off) begin
                does <= RESTS;
                leaves <= 1'b0;
                failed <= 1'b0;
            end
            if (clear) begin
                leaves <= 1'b1;
                asked <= 1'b0;
            end
        end
    end
endmodule

`default_nettype wire
