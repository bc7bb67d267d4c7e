// The fingerprint of the platform, for software to compare with that of its header.
// SPDX-License-Identifier: 0BSD
`default_nettype none

module polymetron_platform_identity #(
    parameter [31:0] HIGH = 32'd0,
    parameter [31:0] LOW = 32'd0
) (
    output wire [31:0] FINGERPRINT_HIGH_BITS,
    output wire [31:0] FINGERPRINT_LOW_BITS
);
    assign FINGERPRINT_HIGH_BITS = HIGH;
    assign FINGERPRINT_LOW_BITS = LOW;
endmodule

`default_nettype wire
