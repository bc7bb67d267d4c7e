// Whose turn it is on a bus. A single initiator always has it. Of several one is chosen in a cycle of its own, and has it
// until its access ends: by priority the lowest number that requests, else the next one after the last that had it.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_turns #(
    parameter INITIATORS = 2,
    parameter BY_PRIORITY = 0
) (
    input  wire                  clk,
    input  wire                  rst,
    input  wire [INITIATORS-1:0] requests,
    input  wire                  ends,
    output wire [INITIATORS-1:0] chosen
);
    generate
        if (INITIATORS == 1) begin : single
            assign chosen = 1'b1;
`ifdef VERILATOR
            wire unused_single = clk | rst | requests[0] | ends;
`endif
        end
        else begin : several
            reg [INITIATORS-1:0] turn;
            // Those after the last one that had its turn.
            reg [INITIATORS-1:0] after;
            wire [INITIATORS-1:0] preferred = BY_PRIORITY != 0 ? {INITIATORS{1'b0}} : requests & after;
            wire [INITIATORS-1:0] among = preferred != {INITIATORS{1'b0}} ? preferred : requests;
            // The lowest 1 of them.
            wire [INITIATORS-1:0] first = among & (~among + {{INITIATORS - 1{1'b0}}, 1'b1});
            wire is_free = turn == {INITIATORS{1'b0}};

            assign chosen = turn;

            always @(posedge clk) begin
                if (rst) begin
                    turn <= {INITIATORS{1'b0}};
                    after <= {INITIATORS{1'b0}};
                end
                else if (ends) turn <= {INITIATORS{1'b0}};
                else if (is_free) begin
                    turn <= first;
                    // All above the chosen one; without a request the last choice stays.
                    if (first != {INITIATORS{1'b0}}) begin
                        after <= ~(first | (first - {{INITIATORS - 1{1'b0}}, 1'b1}));
                    end
                end
            end
        end
    endgenerate
endmodule

`default_nettype wire
