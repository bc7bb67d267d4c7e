// Packs narrow words into wide ones, or cuts wide words up, the lowest bits first. Of a wide word, parts behind the last byte that
// counts are not sent.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_stream_width_adapter #(
    parameter IN_WIDTH = 32,
    parameter OUT_WIDTH = 64
) (
    input  wire                   clk,
    input  wire                   rst,
    input  wire [IN_WIDTH-1:0]    in_tdata,
    input  wire                   in_tvalid,
    output wire                   in_tready,
    input  wire                   in_tlast,
    input  wire [IN_WIDTH/8-1:0]  in_tkeep,
    output wire [OUT_WIDTH-1:0]   out_tdata,
    output wire                   out_tvalid,
    input  wire                   out_tready,
    output wire                   out_tlast,
    output wire [OUT_WIDTH/8-1:0] out_tkeep
);
    localparam BITS = IN_WIDTH + 1 + IN_WIDTH / 8;
    localparam NARROW = IN_WIDTH < OUT_WIDTH ? IN_WIDTH : OUT_WIDTH;
    localparam PARTS = (IN_WIDTH > OUT_WIDTH ? IN_WIDTH : OUT_WIDTH) / NARROW;
    localparam PLACE = PARTS == 1 ? 1 : $clog2(PARTS);
    localparam LAST = PARTS - 1;

    wire [IN_WIDTH-1:0] data;
    wire last;
    wire [IN_WIDTH/8-1:0] keep;
    wire is_there;
    wire takes;
    reg [PLACE-1:0] place;

    polymetron_stream_slice #(.BITS(BITS)) slice (
        .clk(clk), .rst(rst),
        .in({in_tkeep, in_tlast, in_tdata}), .in_valid(in_tvalid), .in_ready(in_tready),
        .out({keep, last, data}), .out_valid(is_there), .out_ready(takes)
    );

    generate
        if (IN_WIDTH < OUT_WIDTH) begin : packs
            reg [OUT_WIDTH-1:0] packed_data;
            reg [OUT_WIDTH/8-1:0] packed_keep;
            reg packed_last;
            reg is_whole;
            wire has_room = !is_whole || out_tready;
            wire completes = place == LAST[PLACE-1:0] || last;
            assign takes = has_room;
            assign out_tdata = packed_data;
            assign out_tkeep = packed_keep;
            assign out_tlast = packed_last;
            assign out_tvalid = is_whole;

            integer part;
            always @(posedge clk) begin
                if (is_there && takes) begin
                    for (part = 0; part < PARTS; part = part + 1) begin
                        if (part[PLACE-1:0] == place) begin
                            packed_data[part*NARROW +: NARROW] <= data;
                            packed_keep[part*(NARROW/8) +: NARROW/8] <= keep;
                        end
                        else if (place == {PLACE{1'b0}}) begin
                            packed_data[part*NARROW +: NARROW] <= {NARROW{1'b0}};
                            packed_keep[part*(NARROW/8) +: NARROW/8] <= {NARROW / 8{1'b0}};
                        end
                    end
                    packed_last <= last;
                end
            end

            always @(posedge clk) begin
                if (rst) begin
                    place <= {PLACE{1'b0}};
                    is_whole <= 1'b0;
                end
                else if (is_there && takes) begin
                    place <= completes ? {PLACE{1'b0}} : place + {{PLACE - 1{1'b0}}, 1'b1};
                    is_whole <= completes;
                end
                else if (out_tready) is_whole <= 1'b0;
            end
        end
        else begin : cuts
            // Whether a byte behind this part counts.
            reg more;
            integer part;
            always @* begin
                more = 1'b0;
                for (part = 1; part < PARTS; part = part + 1) begin
                    if (part > {{32 - PLACE{1'b0}}, place} && keep[part*(NARROW/8) +: NARROW/8] != {NARROW / 8{1'b0}}) more = 1'b1;
                end
            end
            assign takes = out_tready && !more;
            assign out_tdata = data[place*NARROW +: NARROW];
            assign out_tkeep = keep[place*(NARROW/8) +: NARROW/8];
            assign out_tlast = last && !more;
            assign out_tvalid = is_there;

            always @(posedge clk) begin
                if (rst || (is_there && takes)) place <= {PLACE{1'b0}};
                else if (is_there && out_tready) place <= place + {{PLACE - 1{1'b0}}, 1'b1};
            end
            wire unused = &{1'b0, LAST[PLACE-1:0]};
        end
    endgenerate
endmodule

`default_nettype wire
