package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.HandoffFile;
import polymetron.text.TextWriter;

/**
 * What answers in simulation where the platform has logic outside: the target end of the protocol in front of a small memory,
 * which repeats. Its interrupts stay low.
 */
final class OutsideStandIns {
    private static final String MEMORY = "polymetron_outside_memory";

    private final ElaboratedPlatform platform;
    private final List<OutsideLogic> all;

    /** Files of the library that the hardware has anyway. */
    private final Set<String> known;

    OutsideStandIns(ElaboratedPlatform platform, Set<String> known) {
        this.platform = platform;
        this.all = OutsideLogic.all(platform);
        this.known = known;
    }

    /** Nets of the test bench for the ports of the top level. */
    void nets(Map<String, String> ports, UnaryOperator<String> net, TextWriter out) {
        for (OutsideLogic each : all) {
            List<OutsideLogic.Port> its = new ArrayList<>(each.busPorts(platform));
            its.addAll(each.clocks());
            its.addAll(each.resets());
            its.addAll(each.interrupts());
            for (OutsideLogic.Port port : its) {
                String name = net.apply(port.name());
                String range = port.bits() == 1 ? "" : "[%s:0] ".formatted(port.bits() - 1);
                boolean isInterrupt = each.interrupts().contains(port);
                out.line("wire %s%s%s;", range, name, isInterrupt ? " = 1'b0" : "");
                ports.put(port.name(), name);
            }
        }
    }

    void instances(UnaryOperator<String> net, TextWriter out) {
        for (OutsideLogic each : all) {
            Interface bus = each.bus(platform);
            String prefix = each.busName() + "__";
            out.line("wire %1$srequest, %1$swrite, %1$sdone, %1$serror;".formatted(prefix));
            out.line("wire [%s:0] %saddress;", bus.addressBits() - 1, prefix);
            out.line("wire [%s:0] %svalue, %sanswer;", bus.dataBits() - 1, prefix, prefix);
            out.line("wire [%s:0] %sbytes;", bus.dataBits() / 8 - 1, prefix);
            String clocked =
                    ".clk(%s), .rst(%s),"
                            .formatted(
                                    net.apply(each.clocks().getFirst().name()),
                                    net.apply(each.resets().getFirst().name()));
            String sized =
                    "#(.ADDRESS_BITS(%s), .DATA_BITS(%s))"
                            .formatted(bus.addressBits(), bus.dataBits());
            out.open("%s %s %send (", BusEnd.target(bus), sized, prefix);
            out.line("%s", clocked);
            for (OutsideLogic.Port port : each.busPorts(platform)) {
                out.line(".s_%s(%s),", port.signal(), net.apply(port.name()));
            }
            if (bus.protocol().carriesBursts()) {
                out.line(".%s(),", BusEnd.MORE);
            }
            access(prefix, out);
            out.close(");");
            out.open("%s %s %smemory (", MEMORY, sized, prefix);
            out.line("%s", clocked);
            access(prefix, out);
            out.close(");").blank();
        }
    }

    private static void access(String prefix, TextWriter out) {
        out.line(
                Signals.ACCESS.stream()
                        .map(signal -> ".%1$s(%2$s%1$s)".formatted(signal.name(), prefix))
                        .reduce((one, other) -> one + ", " + other)
                        .orElseThrow(),
                new Object[0]);
    }

    /** Modules of the library that the hardware does not have itself. */
    private SortedSet<String> ends() {
        SortedSet<String> ends = new TreeSet<>();
        for (OutsideLogic each : all) {
            String end = BusEnd.target(each.bus(platform)) + ".v";
            ends.add(end);
            if (end.equals("polymetron_axi4_target.v")) {
                ends.add("polymetron_axi4_burst.v");
            }
        }
        ends.removeAll(known);
        return ends;
    }

    List<String> sources() {
        List<String> sources = new ArrayList<>(ends());
        if (!all.isEmpty()) {
            sources.add(MEMORY + ".v");
        }
        return sources;
    }

    List<HandoffFile> files() {
        List<HandoffFile> files = new ArrayList<>();
        for (String end : ends()) {
            files.add(
                    new HandoffFile(
                            "sim/" + end,
                            "end of a bus outside",
                            platform.library().hardware().common().get(end)));
        }
        if (!all.isEmpty()) {
            files.add(new HandoffFile("sim/" + MEMORY + ".v", "stand-in for logic outside", TEXT));
        }
        return files;
    }

    private static final String TEXT =
            """
            // A memory of 64 KiB that stands in for logic outside the platform; beyond it the same bytes come again.
            // SPDX-License-Identifier: 0BSD
            `default_nettype none

            module polymetron_outside_memory #(
                parameter ADDRESS_BITS = 16,
                parameter DATA_BITS = 32
            ) (
                input  wire                    clk,
                input  wire                    rst,
                input  wire                    request,
                input  wire                    write,
                input  wire [ADDRESS_BITS-1:0] address,
                input  wire [DATA_BITS-1:0]    value,
                input  wire [DATA_BITS/8-1:0]  bytes,
                output wire                    done,
                output wire [DATA_BITS-1:0]    answer,
                output wire                    error
            );
                localparam LANES = DATA_BITS / 8;
                localparam WORDS = 65536 / LANES;

                reg [DATA_BITS-1:0] words [0:WORDS-1];
                wire [31:0] place = (address / LANES) % WORDS;
                integer at;
                initial for (at = 0; at < WORDS; at = at + 1) words[at] = {DATA_BITS{1'b0}};

                assign done = request && !rst;
                assign answer = words[place];
                assign error = 1'b0;
                always @(posedge clk) begin
                    for (at = 0; at < LANES; at = at + 1) begin
                        if (done && write && bytes[at]) words[place][8*at +: 8] <= value[8*at +: 8];
                    end
                end
            endmodule

            `default_nettype wire
            """;
}
