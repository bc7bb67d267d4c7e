// A channel from memory to a stream, and one from a stream to memory, each on its own.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_dma #(
    parameter SENDS = 1,
    parameter RECEIVES = 1,
    parameter WIDTH = 32,
    parameter LENGTH = 26,
    parameter FIFO = 512,
    parameter RING = 0,
    parameter BURST = 16
) (
    input  wire               clk,
    input  wire               rst,
    output wire               reads_request,
    output wire               reads_write,
    output wire [31:0]        reads_address,
    output wire [WIDTH-1:0]   reads_value,
    output wire [WIDTH/8-1:0] reads_bytes,
    output wire [7:0]         reads_more,
    input  wire               reads_bursts,
    input  wire               reads_done,
    input  wire [WIDTH-1:0]   reads_answer,
    input  wire               reads_error,
    output wire               writes_request,
    output wire               writes_write,
    output wire [31:0]        writes_address,
    output wire [WIDTH-1:0]   writes_value,
    output wire [WIDTH/8-1:0] writes_bytes,
    output wire [7:0]         writes_more,
    input  wire               writes_bursts,
    input  wire               writes_done,
    input  wire [WIDTH-1:0]   writes_answer,
    input  wire               writes_error,
    output wire [WIDTH-1:0]   to_stream_tdata,
    output wire               to_stream_tvalid,
    input  wire               to_stream_tready,
    output wire               to_stream_tlast,
    output wire [WIDTH/8-1:0] to_stream_tkeep,
    input  wire [WIDTH-1:0]   from_stream_tdata,
    input  wire               from_stream_tvalid,
    output wire               from_stream_tready,
    input  wire               from_stream_tlast,
    input  wire [WIDTH/8-1:0] from_stream_tkeep,
    input  wire               SEND_CONTROL_RUN,
    input  wire               SEND_CONTROL_RING,
    input  wire               SEND_CONTROL_RESET_pulse,
    output wire               SEND_STATUS_DONE_set,
    output wire               SEND_STATUS_ERROR_set,
    output wire               SEND_STATUS_IDLE,
    input  wire [31:0]        SEND_ADDRESS_BYTE,
    input  wire [LENGTH-1:0]  SEND_LENGTH_BYTES,
    input  wire               SEND_LENGTH_BYTES_stored,
    output wire               SEND_LENGTH_BYTES_load,
    output wire [LENGTH-1:0]  SEND_LENGTH_BYTES_new,
    input  wire [31:0]        SEND_RING_ADDRESS,
    input  wire               SEND_RING_ADDRESS_stored,
    input  wire [31:0]        SEND_TAIL_ADDRESS,
    input  wire               RECEIVE_CONTROL_RUN,
    input  wire               RECEIVE_CONTROL_RING,
    input  wire               RECEIVE_CONTROL_RESET_pulse,
    output wire               RECEIVE_STATUS_DONE_set,
    output wire               RECEIVE_STATUS_ERROR_set,
    output wire               RECEIVE_STATUS_IDLE,
    input  wire [31:0]        RECEIVE_ADDRESS_BYTE,
    input  wire [LENGTH-1:0]  RECEIVE_LENGTH_BYTES,
    input  wire               RECEIVE_LENGTH_BYTES_stored,
    output wire               RECEIVE_LENGTH_BYTES_load,
    output wire [LENGTH-1:0]  RECEIVE_LENGTH_BYTES_new,
    input  wire [31:0]        RECEIVE_RING_ADDRESS,
    input  wire               RECEIVE_RING_ADDRESS_stored,
    input  wire [31:0]        RECEIVE_TAIL_ADDRESS
);
    generate
        if (SENDS != 0) begin : sends
            wire in_tready;
            polymetron_dma_channel #(.RECEIVES(0), .WIDTH(WIDTH), .LENGTH(LENGTH), .FIFO(FIFO), .RING(RING), .BURST(BURST)) channel (
                .clk(clk), .rst(rst),
                .request(reads_request), .write(reads_write), .address(reads_address), .value(reads_value),
                .bytes(reads_bytes), .more(reads_more), .bursts(reads_bursts), .done(reads_done), .answer(reads_answer), .error(reads_error),
                .in_tdata({WIDTH{1'b0}}), .in_tvalid(1'b0), .in_tready(in_tready), .in_tlast(1'b0),
                .in_tkeep({WIDTH / 8{1'b0}}),
                .out_tdata(to_stream_tdata), .out_tvalid(to_stream_tvalid), .out_tready(to_stream_tready),
                .out_tlast(to_stream_tlast), .out_tkeep(to_stream_tkeep),
                .run(SEND_CONTROL_RUN), .ring(SEND_CONTROL_RING), .clear(SEND_CONTROL_RESET_pulse),
                .is_done(SEND_STATUS_DONE_set), .is_error(SEND_STATUS_ERROR_set), .is_idle(SEND_STATUS_IDLE),
                .buffer(SEND_ADDRESS_BYTE), .length_stored(SEND_LENGTH_BYTES_stored), .length(SEND_LENGTH_BYTES),
                .length_load(SEND_LENGTH_BYTES_load), .length_new(SEND_LENGTH_BYTES_new),
                .first_stored(SEND_RING_ADDRESS_stored), .first(SEND_RING_ADDRESS), .tail(SEND_TAIL_ADDRESS)
            );
            wire unused = in_tready;
        end
        else begin : sends_not
            assign reads_request = 1'b0;
            assign reads_write = 1'b0;
            assign reads_address = 32'd0;
            assign reads_value = {WIDTH{1'b0}};
            assign reads_bytes = {WIDTH / 8{1'b0}};
            assign reads_more = 8'd0;
            assign to_stream_tdata = {WIDTH{1'b0}};
            assign to_stream_tvalid = 1'b0;
            assign to_stream_tlast = 1'b0;
            assign to_stream_tkeep = {WIDTH / 8{1'b0}};
            assign SEND_STATUS_DONE_set = 1'b0;
            assign SEND_STATUS_ERROR_set = 1'b0;
            assign SEND_STATUS_IDLE = 1'b1;
            assign SEND_LENGTH_BYTES_load = 1'b0;
            assign SEND_LENGTH_BYTES_new = {LENGTH{1'b0}};
            wire unused = &{1'b0, reads_bursts, reads_done, reads_answer, reads_error, to_stream_tready, SEND_CONTROL_RUN,
                SEND_CONTROL_RING, SEND_CONTROL_RESET_pulse, SEND_ADDRESS_BYTE, SEND_LENGTH_BYTES,
                SEND_LENGTH_BYTES_stored, SEND_RING_ADDRESS, SEND_RING_ADDRESS_stored, SEND_TAIL_ADDRESS};
        end
        if (RECEIVES != 0) begin : receives
            wire [WIDTH-1:0] out_tdata;
            wire out_tvalid;
            wire out_tlast;
            wire [WIDTH/8-1:0] out_tkeep;
            polymetron_dma_channel #(.RECEIVES(1), .WIDTH(WIDTH), .LENGTH(LENGTH), .FIFO(FIFO), .RING(RING), .BURST(BURST)) channel (
                .clk(clk), .rst(rst),
                .request(writes_request), .write(writes_write), .address(writes_address), .value(writes_value),
                .bytes(writes_bytes), .more(writes_more), .bursts(writes_bursts), .done(writes_done), .answer(writes_answer), .error(writes_error),
                .in_tdata(from_stream_tdata), .in_tvalid(from_stream_tvalid), .in_tready(from_stream_tready),
                .in_tlast(from_stream_tlast), .in_tkeep(from_stream_tkeep),
                .out_tdata(out_tdata), .out_tvalid(out_tvalid), .out_tready(1'b0), .out_tlast(out_tlast),
                .out_tkeep(out_tkeep),
                .run(RECEIVE_CONTROL_RUN), .ring(RECEIVE_CONTROL_RING), .clear(RECEIVE_CONTROL_RESET_pulse),
                .is_done(RECEIVE_STATUS_DONE_set), .is_error(RECEIVE_STATUS_ERROR_set), .is_idle(RECEIVE_STATUS_IDLE),
                .buffer(RECEIVE_ADDRESS_BYTE), .length_stored(RECEIVE_LENGTH_BYTES_stored),
                .length(RECEIVE_LENGTH_BYTES), .length_load(RECEIVE_LENGTH_BYTES_load),
                .length_new(RECEIVE_LENGTH_BYTES_new),
                .first_stored(RECEIVE_RING_ADDRESS_stored), .first(RECEIVE_RING_ADDRESS), .tail(RECEIVE_TAIL_ADDRESS)
            );
            wire unused = &{1'b0, out_tdata, out_tvalid, out_tlast, out_tkeep};
        end
        else begin : receives_not
            assign writes_request = 1'b0;
            assign writes_write = 1'b0;
            assign writes_address = 32'd0;
            assign writes_value = {WIDTH{1'b0}};
            assign writes_bytes = {WIDTH / 8{1'b0}};
            assign writes_more = 8'd0;
            assign from_stream_tready = 1'b0;
            assign RECEIVE_STATUS_DONE_set = 1'b0;
            assign RECEIVE_STATUS_ERROR_set = 1'b0;
            assign RECEIVE_STATUS_IDLE = 1'b1;
            assign RECEIVE_LENGTH_BYTES_load = 1'b0;
            assign RECEIVE_LENGTH_BYTES_new = {LENGTH{1'b0}};
            wire unused = &{1'b0, writes_bursts, writes_done, writes_answer, writes_error, from_stream_tdata, from_stream_tvalid,
                from_stream_tlast, from_stream_tkeep, RECEIVE_CONTROL_RUN, RECEIVE_CONTROL_RING,
                RECEIVE_CONTROL_RESET_pulse, RECEIVE_ADDRESS_BYTE, RECEIVE_LENGTH_BYTES, RECEIVE_LENGTH_BYTES_stored,
                RECEIVE_RING_ADDRESS, RECEIVE_RING_ADDRESS_stored, RECEIVE_TAIL_ADDRESS};
        end
    endgenerate
endmodule

`default_nettype wire
