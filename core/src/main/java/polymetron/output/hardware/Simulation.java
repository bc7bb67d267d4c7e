package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.SizedPort;
import polymetron.elaborate.TargetRange;
import polymetron.library.Board;
import polymetron.library.Capability;
import polymetron.library.Direction;
import polymetron.output.HandoffFile;
import polymetron.software.SoftwareView;
import polymetron.text.TextWriter;

/**
 * A test bench that stands in for the board, and what builds and runs it: clocks, reset, a console that listens to the
 * transmit pin with a baud rate of its own, and a loader that puts an Intel HEX file into the memories.
 */
final class Simulation {
    /** Picoseconds in a second; the unit of time of the test bench. */
    private static final double PICOS = 1e12;

    private final ElaboratedPlatform platform;
    private final String top;
    private final TextWriter out = TextWriter.indentedBy("    ");

    private final InstanceNames names;
    private final PartStandIns standIns;
    private final OutsideStandIns outside;

    private Simulation(
            ElaboratedPlatform platform, String top, InstanceNames names, Set<String> library) {
        this.names = names;
        this.platform = platform;
        this.standIns = new PartStandIns(platform);
        this.outside = new OutsideStandIns(platform, library);
        this.top = top;
    }

    /**
     * @param library files of the library that the hardware has
     */
    static List<HandoffFile> files(
            ElaboratedPlatform platform, String top, InstanceNames names, Set<String> library) {
        Simulation simulation = new Simulation(platform, top, names, library);
        PartStandIns standIns = simulation.standIns;
        List<HandoffFile> files = new ArrayList<>();
        files.add(
                new HandoffFile("sim/testbench.v", "test bench of the board", simulation.write()));
        files.addAll(standIns.files());
        files.addAll(simulation.outside.files());
        files.add(
                new HandoffFile(
                        "sim/Makefile",
                        "builds and runs the simulation",
                        makefile(platform)
                                .replace(
                                        "BOARD_FILES",
                                        String.join(
                                                " ",
                                                Stream.of(
                                                                standIns.sources(),
                                                                simulation.outside.sources(),
                                                                List.of("testbench.v"))
                                                        .flatMap(List::stream)
                                                        .toList()))));
        return files;
    }

    /** With an image for each program. */
    private static String makefile(ElaboratedPlatform platform) {
        List<SoftwareView> programs = SoftwareView.all(platform);
        StringBuilder usage = new StringBuilder();
        StringBuilder arguments = new StringBuilder();
        StringBuilder checks = new StringBuilder();
        for (int program = 0; program < Math.max(1, programs.size()); program++) {
            String name = program == 0 ? "IMAGE" : argument(programs, program);
            usage.append(program == 0 ? "" : " [%s=file.hex]".formatted(name));
            arguments.append(" $(if $(%1$s),+%1$s=$(call find,$(%1$s)))".formatted(name));
            checks.append(
                    "\t$(if $(%1$s),$(if $(call find,$(%1$s)),,$(error there is no image $(%1$s))))\n"
                            .formatted(name));
        }
        return SimulatedVhdl.in(platform, MAKEFILE)
                .replace(" OTHER_IMAGES", usage)
                .replace(" IMAGE_ARGUMENTS", arguments)
                .replace("IMAGE_CHECKS\n", checks);
    }

    private String write() {
        out.line("// The board around %s: clocks, reset, console and memory contents.", top);
        out.line(
                "// +IMAGE=file.hex puts a program into the memories, +UNTIL=text ends well when"
                        + " the");
        out.line(
                "// console has said the text, +CYCLES=n ends badly after so many cycles,"
                        + " +INPUT=file types.");
        out.line("// SPDX-License-Identifier: 0BSD");
        out.line("`timescale 1ps/1ps").line("`default_nettype none").blank();
        out.open("module testbench;");
        Map<String, String> ports = new LinkedHashMap<>();
        clocks(ports);
        lines(ports);
        outside.nets(ports, Simulation::net, out);
        out.blank().open("%s board (", top);
        int left = ports.size();
        for (Map.Entry<String, String> port : ports.entrySet()) {
            left--;
            out.line(".%s(%s)%s", port.getKey(), port.getValue(), left > 0 ? "," : "");
        }
        out.close(");").blank();
        outside.instances(Simulation::net, out);
        parts();
        new AroundTheBoard(platform, standIns, Simulation::net, this::behaviour).write(out);
        loader();
        console();
        out.close("endmodule").blank().line("`default_nettype wire");
        return out.text();
    }

    private void clocks(Map<String, String> ports) {
        String first = null;
        for (Domain domain : platform.domains()) {
            Board.Clock clock = domain.clock();
            if (clock != null && !ports.containsKey(clock.name())) {
                String net = net(clock.name());
                ports.put(clock.name(), net);
                out.line("reg %s = 1'b0;", net);
                out.line(
                        "always #%s %s = ~%s;",
                        Math.round(PICOS / clock.frequencyHz() / 2), net, net);
                first = first == null ? net : first;
            }
        }
        for (Domain domain : platform.domains()) {
            Board.Reset reset = domain.reset();
            if (reset != null && !ports.containsKey(reset.name())) {
                String net = net(reset.name());
                ports.put(reset.name(), net);
                String on = reset.activeLow() ? "1'b0" : "1'b1";
                String off = reset.activeLow() ? "1'b1" : "1'b0";
                out.line("reg %s = %s;", net, off);
                // An edge, because what is asserted without a clock waits for one.
                out.open("initial begin");
                out.line("#1 %s = %s;", net, on);
                out.line("repeat (10) @(posedge %s);", first);
                out.line("#1 %s = %s;", net, off);
                out.close("end");
            }
        }
        out.blank();
        if (first == null) {
            // Clocks come from a block: cycles are those of 100 MHz.
            first = "counted__";
            out.line("reg counted__ = 1'b0;");
            out.line("always #5000 counted__ = ~counted__;");
        }
        out.line("integer cycles = 0;");
        out.line("integer most = 10000000;");
        out.open("always @(posedge %s) begin", first);
        out.line("cycles = cycles + 1;");
        out.open("if (cycles == most) begin");
        out.line("$display(\"\");");
        out.line("$display(\"stopped after %0d cycles\", most);", new Object[0]);
        out.line("finish(1);");
        out.close("end");
        out.close("end");
        out.blank();
        out.line(
                "// Ends with 0 when all is well and 1 when not, as far as the simulator can say"
                        + " so.");
        out.open("task finish(input integer code);");
        out.line("`ifdef VERILATOR");
        out.line("if (code != 0) $fatal(0, \"the text did not appear\"); else $finish;");
        out.line("`else");
        out.line("$finish_and_return(code);");
        out.line("`endif");
        out.close("endtask");
        out.blank();
    }

    private void lines(Map<String, String> ports) {
        for (OutwardLink link : platform.outward()) {
            for (SizedPort port : link.form().ports()) {
                String outside = link.block().name() + "_" + port.name();
                String name = net(outside);
                String range = port.width() == 1 ? "" : "[%s:0] ".formatted(port.width() - 1);
                if (port.direction() == Direction.BOTH) {
                    // Two wires are pulled up; lines with nothing on them down.
                    boolean isTwoWire =
                            !link.block().type().provides(Capability.TwoWire.class).isEmpty();
                    out.line("%s %s%s;", isTwoWire ? "tri1" : "tri0", range, name);
                } else if (port.direction() == Direction.IN && standIns.module(link).isPresent()) {
                    out.line("wire %s%s;", range, name);
                } else if (port.direction() == Direction.IN) {
                    boolean idles =
                            !link.block().type().provides(Capability.Console.class).isEmpty();
                    out.line(
                            "reg %s%s = %s'd%s;",
                            range, name, port.width(), idles ? (1L << port.width()) - 1 : 0);
                } else {
                    out.line("wire %s%s;", range, name);
                }
                ports.put(outside, name);
            }
        }
    }

    /** Stand-ins for what is on the board: lamps say how they change, switches and buttons are moved. */
    private void parts() {
        out.line("// --- parts of the board; +PARTS shows how they change").blank();
        out.line("reg shows_parts;");
        out.line("initial shows_parts = $test$plusargs(\"PARTS\");", new Object[0]);
        List<String> moves = new ArrayList<>();
        for (OutwardLink link : platform.outward()) {
            if (!link.block().type().provides(Capability.Console.class).isEmpty()) {
                continue;
            }
            if (standIns.module(link).isPresent()) {
                standIn(link, standIns.module(link).get());
                continue;
            }
            String part = link.part() == null ? link.block().name() : link.part().name();
            for (SizedPort port : link.form().ports()) {
                String name = net(link.block().name() + "_" + port.name());
                if (isAnalog(link)) {
                    moves.add(
                            "if (part == \"%s\") begin %s.converter.levels = levels; known = 1'b1; end"
                                    .formatted(part, behaviour(link.block())));
                } else if (port.direction() == Direction.IN) {
                    moves.add(
                            "if (part == \"%s\") begin %s = levels[%s:0]; known = 1'b1; end"
                                    .formatted(part, name, Math.min(95, port.width() - 1)));
                } else {
                    out.line(
                            "always @(%s) if (shows_parts) $display(\"%%0d us: %s %%h\", $time /"
                                    + " 1000000, %s);",
                            name, part, name);
                }
            }
        }
        out.open("task move(input [8*64-1:0] part, input [95:0] levels);");
        out.line("reg known;");
        out.open("begin");
        out.line("known = 1'b0;");
        for (String move : moves) {
            out.line("%s", move);
        }
        out.line("if (!known) $display(\"no part %0s that can be moved\", part);", new Object[0]);
        out.close("end");
        out.close("endtask");
        out.blank();
    }

    /** Voltages are no levels of a wire: the converter itself is told them. */
    private static boolean isAnalog(OutwardLink link) {
        return !link.block().type().provides(Capability.AnalogInputs.class).isEmpty();
    }

    /** The path of what a block does. */
    private String behaviour(ElaboratedBlock block) {
        String group = block.block().group();
        return "board.%s%s.behaviour"
                .formatted(
                        group == null ? "" : Hardware.groupInstance(group) + ".",
                        names.of(block.name()));
    }

    private void standIn(OutwardLink link, String standIn) {
        out.open(
                "%s %s%s (",
                standIn, standIns.parameters(link), net(link.part().name() + "__part"));
        int left = link.form().ports().size();
        for (SizedPort port : link.form().ports()) {
            left--;
            int lines = link.signal(port).map(Board.Signal::width).orElse(port.width());
            out.line(
                    ".%s(%s%s)%s",
                    link.signal(port).map(Board.Signal::name).orElse(port.name()),
                    net(link.block().name() + "_" + port.name()),
                    lines < port.width() ? "[%s:0]".formatted(lines - 1) : "",
                    left > 0 ? "," : "");
        }
        out.close(");");
    }

    /** The memories that a program sees, each at the addresses at which it is seen. */
    private List<TargetRange> memories(SoftwareView view) {
        return view.memories().stream()
                .filter(
                        memory ->
                                !memory.block().type().memories().isEmpty()
                                        || memory.form().type().isInside()
                                        || chip(memory.block()).isPresent())
                .distinct()
                .toList();
    }

    private void loader() {
        List<SoftwareView> programs = SoftwareView.all(platform);
        out.line("// --- programs, from Intel HEX files").blank();
        out.open("task store(input integer which, input [31:0] address, input [7:0] value);");
        out.line("reg [31:0] word;");
        out.line("reg known;");
        out.open("begin");
        out.line("known = 1'b0;");
        for (int program = 0; program < programs.size(); program++) {
            out.open("if (which == %s) begin", program);
            memories(programs.get(program)).forEach(this::store);
            out.close("end");
        }
        out.line(
                "if (!known) $display(\"the image has a byte for %08x, where no memory is\","
                        + " address);",
                new Object[0]);
        out.close("end");
        out.close("endtask");
        out.lines(LOADER);
        out.open("initial begin");
        out.line("if ($value$plusargs(\"CYCLES=%d\", most)) ;", new Object[0]);
        for (int program = 0; program < programs.size(); program++) {
            out.line(
                    "if ($value$plusargs(\"%s=%%s\", image)) load(%s);",
                    argument(programs, program), program);
        }
        out.close("end");
    }

    /** What names the image of a program: of the first one just that. */
    private static String argument(List<SoftwareView> programs, int program) {
        return program == 0 ? "IMAGE" : "IMAGE_" + programs.get(program).name();
    }

    /** The stand-in for a chip whose bytes are those of a block's memory range. */
    private Optional<String> chip(ElaboratedBlock block) {
        return platform.outward().stream()
                .filter(link -> link.block() == block)
                .filter(link -> standIns.module(link).isPresent())
                .filter(link -> PartStandIns.KEEPING.contains(link.part().kind()))
                .map(link -> net(link.part().name() + "__part"))
                .findFirst();
    }

    private void store(TargetRange memory) {
        String chip = chip(memory.block()).orElse(null);
        if (chip != null) {
            out.open(
                    "if (address >= 32'h%08x && address <= 32'h%08x) begin",
                    memory.range().base(), memory.range().last());
            out.line("%s.put(address - 32'h%08x, value);", chip, memory.range().base());
            out.line("known = 1'b1;");
            out.close("end");
            return;
        }
        if (memory.form().type().isInside()) {
            out.open(
                    "if (address >= 32'h%08x && address <= 32'h%08x) begin",
                    memory.range().base(), memory.range().last());
            out.line(
                    "%s.put(address - 32'h%08x, value);",
                    behaviour(memory.block()), memory.range().base());
            out.line("known = 1'b1;");
            out.close("end");
            return;
        }
        String array =
                behaviour(memory.block())
                        + "."
                        + memory.block().type().memories().getFirst().name();
        out.open(
                "if (address >= 32'h%08x && address <= 32'h%08x) begin",
                memory.range().base(), memory.range().last());
        out.line("word = (address - 32'h%08x) >> 2;", memory.range().base());
        out.open("case (address[1:0])");
        for (int lane = 0; lane < 4; lane++) {
            out.line("2'd%s: %s[word][%s:%s] = value;", lane, array, 8 * lane + 7, 8 * lane);
        }
        out.close("endcase");
        out.line("known = 1'b1;");
        out.close("end");
    }

    private void console() {
        ElaboratedBlock printer =
                SoftwareView.all(platform).stream()
                        .flatMap(view -> view.console().stream())
                        .findFirst()
                        .map(TargetRange::block)
                        .orElse(null);
        OutwardLink console =
                platform.outward().stream()
                        .filter(link -> link.block() == printer)
                        .findFirst()
                        .orElse(null);
        if (console == null) {
            return;
        }
        Capability.Console role =
                console.block().type().provides(Capability.Console.class).getFirst();
        long baud = console.block().shape().number(role.baud(), 115_200);
        String transmit = null;
        String receive = null;
        for (SizedPort port : console.form().ports()) {
            String name = net(console.block().name() + "_" + port.name());
            if (port.direction() == Direction.OUT) {
                transmit = name;
            } else {
                receive = name;
            }
        }
        out.lines(
                CONSOLE.replace("BIT_TIME", Long.toString(Math.round(PICOS / baud)))
                        .replace("BAUD", Long.toString(baud))
                        .replace("TRANSMIT", transmit)
                        .replace("RECEIVE", receive));
    }

    /** The net of a port of the board: one that the test bench has for itself has two underscores behind it. */
    private static String net(String port) {
        boolean isTaken =
                OWN.contains(port)
                        || Pattern.compile("\\b" + Pattern.quote(port) + "\\b")
                                .matcher(LOADER + CONSOLE)
                                .find();
        return isTaken ? port + "__" : port;
    }

    /** Names of the test bench beside those of its longer texts. */
    private static final Set<String> OWN =
            Set.of(
                    "board",
                    "cycles",
                    "most",
                    "finish",
                    "store",
                    "move",
                    "shows_parts",
                    "around_rate",
                    "testbench",
                    "known",
                    "levels",
                    "part",
                    "code",
                    "word");

    private static final String LOADER =
            """

            reg [8*1024-1:0] image;
            integer file;
            integer sign;
            integer at;
            integer length;
            integer kind;
            reg [31:0] upper;
            reg [31:0] address;

            function integer digit(input integer letter);
                digit = letter >= 97 ? letter - 87 : letter >= 65 ? letter - 55 : letter - 48;
            endfunction

            // The next two digits of the file.
            task read_byte(output integer value);
                integer high;
                integer low;
                begin
                    high = $fgetc(file);
                    low = $fgetc(file);
                    value = digit(high) * 16 + digit(low);
                end
            endtask

            integer one;
            integer two;
            task load(input integer which);
                begin
                    upper = 32'd0;
                    file = $fopen(image, "r");
                    if (file == 0) begin
                        $display("there is no image %0s", image);
                        finish(1);
                    end
                    sign = $fgetc(file);
                    while (sign != -1) begin
                        if (sign == 58) begin
                            read_byte(length);
                            read_byte(one);
                            read_byte(two);
                            address = upper + one * 256 + two;
                            read_byte(kind);
                            for (at = 0; at < length; at = at + 1) begin
                                read_byte(one);
                                if (kind == 0) store(which, address + at, one[7:0]);
                                else if (kind == 4) upper = at == 0 ? one << 24 : upper + (one << 16);
                            end
                        end
                        sign = $fgetc(file);
                    end
                    $fclose(file);
                end
            endtask

            """;

    private static final String CONSOLE =
            """

            // --- the console, BAUD Bd: what is said, and when it is the text that is waited for

            reg [8*256-1:0] until_text;
            reg [8*256-1:0] said;
            reg [8*256-1:0] mask;
            reg [7:0] letter;
            integer bits;
            initial begin
                said = 0;
                mask = 0;
                if (!$value$plusargs("UNTIL=%s", until_text)) until_text = 0;
                for (bits = 0; bits < 256; bits = bits + 1) begin
                    if (until_text[8*bits +: 8] != 8'd0) mask[8*bits +: 8] = 8'hFF;
                end
                forever begin
                    @(negedge TRANSMIT);
                    #(BIT_TIME / 2);
                    if (!TRANSMIT) begin
                        for (bits = 0; bits < 8; bits = bits + 1) begin
                            #(BIT_TIME);
                            letter[bits] = TRANSMIT;
                        end
                        #(BIT_TIME);
                        $write("%c", letter);
                        said = {said[8*255-1:0], letter};
                        if (mask != 0 && (said & mask) == until_text) begin
                            $display("");
                            finish(0);
                        end
                    end
                end
            end

            // What is typed: lines of a time in microseconds and what comes then. "@part levels" sets the levels of a part
            // of the board, in hexadecimal.
            reg [8*64-1:0] part_name;
            reg [95:0] part_levels;
            reg [8*1024-1:0] input_name;
            integer typed;
            integer moment;
            integer key;
            integer count;
            initial begin
                RECEIVE = 1'b1;
                if ($value$plusargs("INPUT=%s", input_name)) begin
                    typed = $fopen(input_name, "r");
                    if (typed == 0) begin
                        $display("there is no input %0s", input_name);
                        finish(1);
                    end
                    while ($fscanf(typed, "%d", moment) == 1) begin
                        key = $fgetc(typed);
                        while ($time < moment * 64'd1000000) #(BIT_TIME);
                        key = $fgetc(typed);
                        if (key == 64) begin
                            part_name = 0;
                            part_levels = 0;
                            key = $fgetc(typed);
                            while (key > 32) begin
                                part_name = {part_name[8*63-1:0], key[7:0]};
                                key = $fgetc(typed);
                            end
                            if (key == 32) begin
                                if ($fscanf(typed, "%h", part_levels) != 1) part_levels = 0;
                                key = $fgetc(typed);
                            end
                            move(part_name, part_levels);
                        end
                        else begin
                            while (key != -1 && key != 10) begin
                                send(key[7:0]);
                                key = $fgetc(typed);
                            end
                            send(8'd13);
                        end
                    end
                    $fclose(typed);
                end
            end

            task send(input [7:0] value);
                begin
                    RECEIVE = 1'b0;
                    #(BIT_TIME);
                    for (count = 0; count < 8; count = count + 1) begin
                        RECEIVE = value[count];
                        #(BIT_TIME);
                    end
                    RECEIVE = 1'b1;
                    #(BIT_TIME);
                end
            endtask
            """;

    private static final String MAKEFILE =
            """
            # make run SIM=iverilog (or verilator) IMAGE=file.hex OTHER_IMAGES UNTIL='text' [INPUT=file] [CYCLES=n] [PARTS=1] [AROUND=n] [SEED=n]
            # Boots the image and prints the console; ends with 0 once the text was said. Files are looked for here and
            # in the folder above. With AROUND, what is around the board acts, so many times as fast as time goes. With SEED, verilator begins with random values in all that has none after power-up.
            SIM ?= iverilog
            IMAGE ?=
            UNTIL ?=
            INPUT ?=
            CYCLES ?= 10000000

            BOARD := BOARD_FILES
            FILES := $(addprefix ../hdl/,$(shell cat ../hdl/files.f))
            find = $(firstword $(wildcard $(1) ../$(1)))
            ARGUMENTS = +CYCLES=$(CYCLES) IMAGE_ARGUMENTS \\
                $(if $(INPUT),+INPUT=$(call find,$(INPUT))) $(if $(value UNTIL),'+UNTIL=$(subst ','\\'',$(value UNTIL))') $(if $(PARTS),+PARTS) $(if $(AROUND),+AROUND=$(AROUND)) \\
                $(if $(SEED),+verilator+rand+reset+2 +verilator+seed+$(SEED))

            .PHONY: run clean
            run: build/$(SIM)
            IMAGE_CHECKS
            	$(if $(INPUT),$(if $(call find,$(INPUT)),,$(error there is no input $(INPUT))))
            	./build/$(SIM) $(ARGUMENTS)

            build/iverilog: $(FILES) $(BOARD)
            	mkdir -p build
            	iverilog -g$(if $(filter %.sv,$(FILES)),2012,2005) -I../hdl -DSIMULATION -Wall -Wno-timescale -o $@ -s testbench $(FILES) $(BOARD)

            build/verilator: $(FILES) $(BOARD)
            	mkdir -p build
            	verilator --binary --timing -I../hdl -DSIMULATION -Wno-fatal -Wno-lint -Wno-style -Wno-TIMESCALEMOD --top-module testbench \\
            	    --Mdir build/parts -o ../verilator $(FILES) $(BOARD) > build/verilator.log 2>&1 \\
            	    || { cat build/verilator.log; exit 1; }

            clean:
            	rm -rf build
            """;
}
