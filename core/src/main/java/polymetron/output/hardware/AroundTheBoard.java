package polymetron.output.hardware;

import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.SizedPort;
import polymetron.library.Capability;
import polymetron.library.Direction;
import polymetron.library.Surrounding;
import polymetron.text.TextWriter;

/**
 * What a board says to be around it, in its simulation: a module for each kind, which acts so many times as fast as the
 * simulation's time goes as {@code +AROUND} says, and not without. It moves the parts that the platform uses, as on the bench.
 */
final class AroundTheBoard {
    private static final int GATES = 4;
    private static final int MILLIONTHS = 32;

    private final ElaboratedPlatform platform;
    private final PartStandIns standIns;
    private final UnaryOperator<String> net;
    private final Function<ElaboratedBlock, String> behaviour;

    /**
     * @param net net of a port of the board by the name of the port
     * @param behaviour path of what a block does
     */
    AroundTheBoard(
            ElaboratedPlatform platform,
            PartStandIns standIns,
            UnaryOperator<String> net,
            Function<ElaboratedBlock, String> behaviour) {
        this.platform = platform;
        this.standIns = standIns;
        this.net = net;
        this.behaviour = behaviour;
    }

    /** Kinds that act on the platform. */
    static SortedSet<String> kinds(ElaboratedPlatform platform) {
        SortedSet<String> kinds = new TreeSet<>();
        acting(platform).map(Surrounding::kind).forEach(kinds::add);
        return kinds;
    }

    /** Those of which the platform drives or measures something, as on the bench. */
    private static Stream<Surrounding> acting(ElaboratedPlatform platform) {
        return platform.board().surroundings().stream()
                .filter(
                        each ->
                                switch (each.kind()) {
                                    case Surrounding.LOCK_CHAMBER ->
                                            link(platform, each.parts().get("drives")).isPresent();
                                    case Surrounding.BATTERY ->
                                            analog(platform, each.parts().get("voltage"))
                                                    .isPresent();
                                    default -> false;
                                });
    }

    private static Optional<OutwardLink> link(ElaboratedPlatform platform, String part) {
        return platform.outward().stream()
                .filter(link -> link.part() != null && link.part().name().equals(part))
                .findFirst();
    }

    private static Optional<OutwardLink> analog(ElaboratedPlatform platform, String part) {
        return link(platform, part)
                .filter(
                        link ->
                                !link.block()
                                        .type()
                                        .provides(Capability.AnalogInputs.class)
                                        .isEmpty());
    }

    void write(TextWriter out) {
        if (acting(platform).findAny().isEmpty()) {
            return;
        }
        out.line("// --- around the board; +AROUND=n lets it act, n times as fast").blank();
        out.line("integer around_rate;");
        out.open("initial begin");
        out.line("around_rate = 0;");
        out.line(
                "if (!$value$plusargs(\"AROUND=%d\", around_rate)) around_rate = 0;",
                new Object[0]);
        out.close("end");
        acting(platform)
                .forEach(
                        each -> {
                            if (each.kind().equals(Surrounding.BATTERY)) {
                                battery(each, out);
                            } else {
                                chamber(each, out);
                            }
                        });
        out.blank();
    }

    private void battery(Surrounding described, TextWriter out) {
        String levels =
                behaviour.apply(
                                analog(platform, described.parts().get("voltage"))
                                        .orElseThrow()
                                        .block())
                        + ".converter.levels[11:0]";
        out.line("wire [11:0] battery_next__;");
        out.line("wire battery_falls__;");
        out.open("polymetron_part_battery battery__around (");
        out.line(
                ".rate(around_rate), .level(%s), .next(battery_next__), .falls(battery_falls__)",
                levels);
        out.close(");");
        out.line(
                "always @(battery_falls__) if (battery_next__ != 12'd0) %s = battery_next__;",
                levels);
    }

    private void chamber(Surrounding described, TextWriter out) {
        OutwardLink drives = link(platform, described.parts().get("drives")).orElseThrow();
        String driven = line(drives, Direction.OUT).map(port -> wide(drives, port)).orElse("4'd0");
        boolean isPulsed = drives.block().type().identity().name().equals("pwm");
        out.line("wire [7:0] lock_ends__;");
        out.line("wire [23:0] lock_gauges__;");
        out.line("wire [%s:0] lock_opening__;", GATES * MILLIONTHS - 1);
        out.open("polymetron_part_lock_chamber #(.PULSES(%s)) lock__around (", isPulsed ? 1 : 0);
        out.line(".rate(around_rate), .drives(%s),", driven);
        out.line(
                ".ends(lock_ends__), .gauges(lock_gauges__), .opening(lock_opening__)",
                new Object[0]);
        out.close(");");
        link(platform, described.parts().get("ends"))
                .ifPresent(
                        link ->
                                line(link, Direction.IN)
                                        .ifPresent(
                                                port ->
                                                        out.line(
                                                                "always @(lock_ends__ or"
                                                                        + " around_rate) if"
                                                                        + " (around_rate != 0) %s ="
                                                                        + " lock_ends__[%s:0];",
                                                                name(link, port),
                                                                Math.min(8, port.width()) - 1)));
        analog(platform, described.parts().get("gauges"))
                .ifPresent(
                        link ->
                                out.line(
                                        "always @(lock_gauges__ or around_rate) if (around_rate !="
                                                + " 0) %s.converter.levels[23:0] = lock_gauges__;",
                                        behaviour.apply(link.block())));
        link(platform, described.parts().get("encoder"))
                .filter(link -> standIns.module(link).isPresent())
                .ifPresent(link -> encoder(link, out));
    }

    /** What the encoder of the upper gates gives: the opening as part of its full scale, rounded half up. */
    private void encoder(OutwardLink link, TextWriter out) {
        String part = net.apply(link.part().name() + "__part");
        ConverterShape shape = ConverterShape.of(link.part());
        out.open("always @(lock_opening__ or around_rate) if (around_rate != 0) begin");
        out.line("%s.follows = 1'b1;", part);
        for (int channel = 0; channel < shape.channels(); channel++) {
            long most = (1L << shape.bits() - 1) - 1;
            out.line(
                    "%s.followed[%s -: %s] = %s;",
                    part,
                    shape.channels() * shape.bits() - 1 - channel * shape.bits(),
                    shape.bits(),
                    channel < 2
                            ? "(64'd%s * lock_opening__[%s +: 32] + 64'd500000) / 64'd1000000"
                                    .formatted(most, channel * MILLIONTHS)
                            : "0");
        }
        out.close("end");
    }

    private static Optional<SizedPort> line(OutwardLink link, Direction direction) {
        return link.form().ports().stream()
                .filter(port -> port.direction() == direction)
                .findFirst();
    }

    private String name(OutwardLink link, SizedPort port) {
        return net.apply(link.block().name() + "_" + port.name());
    }

    /** Lines of a port as four. */
    private String wide(OutwardLink link, SizedPort port) {
        String name = name(link, port);
        return port.width() == GATES
                ? name
                : port.width() > GATES
                        ? "%s[%s:0]".formatted(name, GATES - 1)
                        : "{%s'd0, %s}".formatted(GATES - port.width(), name);
    }
}
