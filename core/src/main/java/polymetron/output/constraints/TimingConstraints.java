package polymetron.output.constraints;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import polymetron.clock.PllBlock;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.SizedPort;
import polymetron.library.ClockOutput;
import polymetron.library.Direction;
import polymetron.output.Exporter;
import polymetron.output.HandoffFile;
import polymetron.output.HandoffNames;
import polymetron.output.hardware.Hardware;
import polymetron.software.SoftwareView;
import polymetron.text.TextWriter;

/**
 * Timing constraints for the build of the hardware, as the Tcl commands that timing analysers share: clocks, generated
 * clocks, groups that are asynchronous to each other, delays outside. Periods are in nanoseconds.
 */
final class TimingConstraints implements Exporter {
    private static final double NANOS = 1e9;

    @Override
    public HandoffFile export(SoftwareView view, HandoffNames names) {
        return new HandoffFile(
                names.of("_timing.tcl"),
                "timing constraints",
                new Writer(view.platform(), names.fingerprint()).text());
    }

    private static final class Writer {
        private final ElaboratedPlatform platform;
        private final TextWriter out = TextWriter.indentedBy("    ");

        /** Clocks by the oscillator that they come from. */
        private final Map<String, List<String>> groups = new TreeMap<>();

        private Writer(ElaboratedPlatform platform, String fingerprint) {
            this.platform = platform;
            out.line("# Platform fingerprint %s.", fingerprint);
            out.line("# Periods and delays in nanoseconds.");
        }

        private String text() {
            Map<String, String> roots = new LinkedHashMap<>();
            for (Domain domain : platform.domains()) {
                if (domain.clock() != null && !roots.containsKey(domain.clock().name())) {
                    String name = domain.clock().name();
                    roots.put(name, name);
                    clock(name, domain.frequencyHz(), "[get_ports {%s}]".formatted(name));
                    groups.computeIfAbsent(name, root -> new ArrayList<>()).add(name);
                }
            }
            for (ElaboratedBlock block : platform.blocks()) {
                PllBlock pll = PllBlock.of(platform, block).orElse(null);
                List<ClockOutput> outputs = block.shape().clockOutputs();
                for (int at = 0; at < outputs.size(); at++) {
                    made(block, pll, outputs.get(at), at);
                }
            }
            asynchronous();
            delays();
            return out.text();
        }

        private void made(ElaboratedBlock block, PllBlock pll, ClockOutput output, int at) {
            String name = block.name() + "_" + output.name();
            String path = Hardware.path(block);
            String pin = "[get_pins {%s/%s}]".formatted(path, output.name());
            if (output.from() == null) {
                clock(name, block.shape().outputHz(output, 0), pin);
                groups.computeIfAbsent(name, root -> new ArrayList<>()).add(name);
            } else if (pll != null && pll.inputHz() > 0) {
                out.line(
                        "create_generated_clock -name %s -source [get_pins {%s/%s}] -multiply_by %s"
                                + " -divide_by %s %s",
                        name,
                        path,
                        output.from(),
                        pll.multiplier(),
                        pll.divider() * pll.steps() * pll.dividers().get(at),
                        pin);
                groups.computeIfAbsent(root(block, output), root -> new ArrayList<>()).add(name);
            }
        }

        /** The oscillator that a made clock comes from. */
        private String root(ElaboratedBlock block, ClockOutput output) {
            Domain domain = platform.domainIndex().get(String.valueOf(block.domain(output.from())));
            for (int steps = 0; domain != null && steps < platform.blocks().size(); steps++) {
                if (domain.clock() != null) {
                    return domain.clock().name();
                }
                String[] ref = String.valueOf(domain.domain().clock()).split("\\.");
                ElaboratedBlock maker = platform.block(ref[0]).orElse(null);
                ClockOutput made =
                        maker == null
                                ? null
                                : maker.shape().clockOutputs().stream()
                                        .filter(each -> each.name().equals(ref[1]))
                                        .findFirst()
                                        .orElse(null);
                if (made == null || made.from() == null) {
                    return ref.length > 1 ? ref[0] + "_" + ref[1] : block.name();
                }
                domain = platform.domainIndex().get(String.valueOf(maker.domain(made.from())));
            }
            return block.name();
        }

        private void clock(String name, long hertz, String at) {
            if (hertz > 0) {
                out.line("create_clock -name %s -period %s %s", name, nanos(NANOS / hertz), at);
            }
        }

        private void asynchronous() {
            if (groups.size() > 1) {
                StringBuilder line = new StringBuilder("set_clock_groups -asynchronous");
                groups.values()
                        .forEach(
                                each ->
                                        line.append(
                                                " -group {%s}".formatted(String.join(" ", each))));
                out.line("%s", line);
            }
        }

        /** The clock of a block, by its name in this file; null when it has none. */
        private String clockOf(ElaboratedBlock block) {
            Domain domain = platform.domainIndex().get(String.valueOf(block.domain(null)));
            if (domain == null || domain.frequencyHz() == 0) {
                return null;
            }
            return domain.clock() == null
                    ? domain.domain().clock().replace('.', '_')
                    : domain.clock().name();
        }

        private void delays() {
            out.line("# External delays are 0 ns until they are measured.");
            for (OutwardLink link : platform.outward()) {
                String clock = clockOf(link.block());
                if (link.binding() == null || clock == null) {
                    continue;
                }
                for (SizedPort port : link.form().ports()) {
                    String ports =
                            "[get_ports {%s_%s%s}]"
                                    .formatted(
                                            link.block().name(),
                                            port.name(),
                                            port.width() > 1 ? "[*]" : "");
                    if (port.direction() != Direction.OUT) {
                        out.line("set_input_delay -clock %s 0.000 %s", clock, ports);
                    }
                    if (port.direction() != Direction.IN) {
                        out.line("set_output_delay -clock %s 0.000 %s", clock, ports);
                    }
                }
            }
        }

        private static String nanos(double value) {
            return String.format(Locale.ROOT, "%.6f", value);
        }
    }
}
