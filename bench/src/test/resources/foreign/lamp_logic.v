// Logic without a clock and without registers: a lamp is lit while its switch and the one beside it differ.
module lamp_logic (
    input wire [3:0] switches,
    output wire [3:0] lamps
);
    assign lamps = switches ^ {switches[0], switches[3:1]};
endmodule
