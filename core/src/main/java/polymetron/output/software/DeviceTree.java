package polymetron.output.software;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.TargetRange;
import polymetron.library.SoftwareBinding;
import polymetron.output.Exporter;
import polymetron.output.HandoffFile;
import polymetron.output.HandoffNames;
import polymetron.software.Consoles;
import polymetron.software.DeviceInterrupt;
import polymetron.software.Hart;
import polymetron.software.HartLine;
import polymetron.software.InterruptController;
import polymetron.software.MachineTimer;
import polymetron.software.SoftwareView;
import polymetron.text.Escape;

/**
 * The devicetree source (Devicetree Specification 0.4, and the published bindings of RISC-V harts, PLIC and timers). Names
 * of nodes are the generic ones of the specification's 2.2.2.
 */
final class DeviceTree implements Exporter {
    private static final long MTIMER_OFFSET = 0x4000;
    private static final long MTIME_OFFSET = 0xBFF8;
    private static final String NO_INTERRUPT = "<0xffffffff>";

    @Override
    public HandoffFile export(SoftwareView view, HandoffNames names) {
        return new HandoffFile(
                names.of(view, ".dts"),
                "devicetree source",
                new Tree(view, names.fingerprint()).write());
    }

    private static final class Tree {
        private final SoftwareView view;
        private final String fingerprint;
        private final DeviceTreeLabels labels;
        private final DeviceTreeWriter out;
        private final DeviceTreeMemories memories;

        private Tree(SoftwareView view, String fingerprint) {
            this.view = view;
            this.fingerprint = fingerprint;
            this.labels = new DeviceTreeLabels(view);
            this.out =
                    new DeviceTreeWriter(
                            view.targets().stream()
                                    .anyMatch(
                                            target ->
                                                    Long.compareUnsigned(
                                                                    target.range().last(),
                                                                    0xFFFF_FFFFL)
                                                            > 0));
            this.memories = new DeviceTreeMemories(view, labels, out);
        }

        private String write() {
            out.line("/dts-v1/;");
            out.line(
                    "/* Platform fingerprint %s. Made by Polymetron; changes here are lost. */",
                    fingerprint);
            out.line("");
            out.open("/");
            out.addressing();
            out.line("compatible = \"polymetron,platform\";");
            out.line("model = \"%s\";", Escape.c(view.platform().platform().name()));
            out.line("polymetron,fingerprint = \"%s\";", fingerprint);
            chosen();
            harts();
            for (Domain domain : view.platform().domains()) {
                out.open(
                        "%s: clock-%s",
                        labels.clockOf(domain.name()), domain.name().replace('_', '-'));
                out.line("compatible = \"fixed-clock\";");
                out.line("#clock-cells = <0>;");
                out.line("clock-frequency = <%s>;", domain.frequencyHz());
                out.close();
            }
            memories.write();
            devices();
            out.close();
            return out.text();
        }

        private void chosen() {
            view.console()
                    .ifPresent(
                            uart -> {
                                out.open("chosen");
                                out.line(
                                        "stdout-path = \"/soc/serial@%x:%sn8\";",
                                        uart.range().base(),
                                        uart.block()
                                                .shape()
                                                .number(Consoles.at(uart).orElseThrow().baud(), 0));
                                out.close();
                            });
        }

        private void harts() {
            if (view.harts().isEmpty()) {
                return;
            }
            out.open("cpus");
            out.line("#address-cells = <1>;");
            out.line("#size-cells = <0>;");
            OptionalLong common = commonTimebase();
            common.ifPresent(hertz -> out.line("timebase-frequency = <%s>;", hertz));
            for (Hart hart : view.harts()) {
                hart(hart, common.isEmpty());
            }
            out.close();
        }

        /** The rate at which time passes for all harts alike; empty when there is none, or not one. */
        private OptionalLong commonTimebase() {
            List<Long> rates = view.harts().stream().map(this::timebase).distinct().toList();
            return rates.size() == 1 && rates.getFirst() > 0
                    ? OptionalLong.of(rates.getFirst())
                    : OptionalLong.empty();
        }

        private long timebase(Hart hart) {
            return MachineTimer.serving(view.platform(), hart).map(MachineTimer::tickHz).orElse(0L);
        }

        private void hart(Hart hart, boolean ownTimebase) {
            out.open("%s: cpu@%x", labels.of(hart), hart.id());
            out.line("device_type = \"cpu\";");
            out.line("reg = <0x%x>;", hart.id());
            out.line("compatible = %s;", quoted(hart.block().type().software().compatible()));
            var executes = polymetron.software.InstructionSet.of(view.platform(), hart);
            out.line("riscv,isa = \"%s\";", executes.name());
            out.line("riscv,isa-base = \"rv32i\";");
            List<String> extensions = new ArrayList<>(List.of("i"));
            extensions.addAll(executes.extensions());
            out.line("riscv,isa-extensions = %s;", quoted(extensions));
            if (hart.hertz() > 0) {
                out.line("clock-frequency = <%s>;", hart.hertz());
            }
            if (ownTimebase && timebase(hart) > 0) {
                out.line("timebase-frequency = <%s>;", timebase(hart));
            }
            DeviceTreeCaches.write(out, hart);
            out.open("%s: interrupt-controller", labels.interruptsOf(hart));
            out.line("compatible = \"riscv,cpu-intc\";");
            out.line("interrupt-controller;");
            out.line("#interrupt-cells = <1>;");
            out.line("#address-cells = <0>;");
            out.close();
            out.close();
        }

        private void devices() {
            if (view.devices().isEmpty()) {
                return;
            }
            out.open("soc");
            out.addressing();
            out.line("compatible = \"simple-bus\";");
            out.line("ranges;");
            for (TargetRange device : view.devices()) {
                Optional<MachineTimer> timer =
                        MachineTimer.of(view.platform()).stream()
                                .filter(each -> each.registers().equals(device.ref()))
                                .findFirst();
                Optional<InterruptController> controller =
                        InterruptController.of(view.platform()).stream()
                                .filter(each -> each.registers().equals(device.ref()))
                                .findFirst();
                if (timer.isPresent()) {
                    timer(device, timer.get());
                } else if (controller.isPresent()) {
                    controller(device, controller.get());
                } else {
                    device(device);
                }
            }
            out.close();
        }

        /**
         * The published binding has one node for software interrupts and time together, with a pair of interrupts for each
         * hart. Where the two halves do not serve the same harts, each is a device of the ACLINT specification.
         */
        private void timer(TargetRange device, MachineTimer timer) {
            long base = device.range().base();
            if (timer.timed().equals(timer.signalled())) {
                out.open("%s: timer@%x", labels.of(device), base);
                compatible(device);
                out.line("reg = <%s>;", out.cells(base, device.range().sizeBytes()));
                List<String> entries = new ArrayList<>();
                for (Hart hart : timer.timed()) {
                    entries.add(line(hart, HartLine.SOFTWARE));
                    entries.add(line(hart, HartLine.TIMER));
                }
                extended(entries);
                out.close();
                return;
            }
            out.open("%s: mswi@%x", labels.softwareOf(device), base);
            out.line("compatible = \"riscv,aclint-mswi\";");
            out.line("reg = <%s>;", out.cells(base, MTIMER_OFFSET));
            extended(
                    timer.signalled().stream().map(hart -> line(hart, HartLine.SOFTWARE)).toList());
            out.close();
            // First MTIME, then the MTIMECMP registers: the specification lets them lie apart. The
            // unit address is that of the first (Devicetree Specification 0.4, 2.2.1).
            out.open("%s: mtimer@%x", labels.of(device), base + MTIME_OFFSET);
            out.line("compatible = \"riscv,aclint-mtimer\";");
            out.line(
                    "reg = <%s>, <%s>;",
                    out.cells(base + MTIME_OFFSET, 8),
                    out.cells(base + MTIMER_OFFSET, MTIME_OFFSET - MTIMER_OFFSET));
            extended(timer.timed().stream().map(hart -> line(hart, HartLine.TIMER)).toList());
            out.close();
        }

        /** A line of a hart; of one that is not in this tree what the bindings have for a line that is not there. */
        private String line(Hart hart, HartLine line) {
            return hart == null || !view.harts().contains(hart)
                    ? NO_INTERRUPT
                    : "<&%s %s>".formatted(labels.interruptsOf(hart), line.cause());
        }

        private void extended(List<String> entries) {
            List<String> used = new ArrayList<>(entries);
            while (!used.isEmpty() && used.getLast().equals(NO_INTERRUPT)) {
                used.removeLast();
            }
            if (!used.isEmpty()) {
                out.line("interrupts-extended = %s;", String.join(", ", used));
            }
        }

        private void controller(TargetRange device, InterruptController controller) {
            out.open("%s: interrupt-controller@%x", labels.of(device), device.range().base());
            compatible(device);
            out.line("reg = <%s>;", out.cells(device.range().base(), device.range().sizeBytes()));
            out.line("interrupt-controller;");
            out.line("#interrupt-cells = <1>;");
            out.line("#address-cells = <0>;");
            out.line("riscv,ndev = <%s>;", controller.sources());
            List<String> entries = new ArrayList<>();
            for (InterruptController.Context context : controller.contexts()) {
                if (context.onward() != null) {
                    // A controller in front of another one, or a line of a hart's own.
                    entries.add(
                            view.interruptsOf(device).stream()
                                    .filter(
                                            each ->
                                                    each.source()
                                                            .equals(
                                                                    context.onward()
                                                                            .source()
                                                                            .name()))
                                    .findFirst()
                                    .map(this::reference)
                                    .orElse(NO_INTERRUPT));
                } else {
                    entries.add(line(context.hart(), HartLine.EXTERNAL));
                }
            }
            extended(entries);
            out.close();
        }

        /** The entry of an interrupt in {@code interrupts-extended}. */
        private String reference(DeviceInterrupt interrupt) {
            return switch (interrupt) {
                case DeviceInterrupt.Source source ->
                        view.devices().stream()
                                .filter(each -> each.ref().equals(source.controller().registers()))
                                .findFirst()
                                .map(plic -> "<&%s %s>".formatted(labels.of(plic), source.number()))
                                .orElse(NO_INTERRUPT);
                case DeviceInterrupt.Cause cause ->
                        view.harts().contains(cause.hart())
                                ? "<&%s %s>"
                                        .formatted(labels.interruptsOf(cause.hart()), cause.cause())
                                : NO_INTERRUPT;
            };
        }

        private void device(TargetRange device) {
            ElaboratedBlock block = device.block();
            SoftwareBinding software = device.software();
            String node =
                    software.node() == null ? block.type().identity().name() : software.node();
            out.open("%s: %s@%x", labels.of(device), node, device.range().base());
            compatible(device);
            out.line("reg = <%s>;", out.cells(device.range().base(), device.range().sizeBytes()));
            clock(device);
            Consoles.at(device)
                    .ifPresent(
                            console -> {
                                out.line(
                                        "clock-frequency = <%s>;",
                                        Consoles.clockHz(view.platform(), block, console));
                                out.line(
                                        "current-speed = <%s>;",
                                        block.shape().number(console.baud(), 0));
                                out.line("reg-shift = <2>;");
                                out.line("reg-io-width = <4>;");
                            });
            for (SoftwareBinding.Property property : software.properties()) {
                if (block.shape().isPresent(property.when())) {
                    out.line(
                            property.value() == null
                                    ? property.name() + ";"
                                    : "%s = <%s>;"
                                            .formatted(
                                                    property.name(),
                                                    block.shape().number(property.value(), 0)));
                }
            }
            if (software.standard() == null) {
                DeviceTreeParameters.write(out, block);
            }
            memories.bufferOf(device);
            if (movesData(block) && view.harts().stream().anyMatch(DeviceTreeCaches::cachesData)) {
                out.line("dma-noncoherent;");
            }
            List<String> entries =
                    view.interruptsOf(device).stream()
                            .map(this::reference)
                            .filter(entry -> !entry.equals(NO_INTERRUPT))
                            .toList();
            extended(entries);
            out.close();
        }

        /** Whether a block reads or writes memory by itself, behind the back of a cache. */
        private boolean movesData(ElaboratedBlock block) {
            return view.platform().spaces().stream()
                    .anyMatch(
                            space ->
                                    space.initiator().block() == block
                                            && !view.runsOn(block)
                                            && space.ranges().stream()
                                                    .anyMatch(range -> range.form().isMemory()));
        }

        private void clock(TargetRange device) {
            ElaboratedBlock block = device.block();
            // What is inside a block has a clock of its own.
            boolean stated =
                    Consoles.at(device).filter(console -> console.hertz() != null).isPresent();
            if (block.type().clocks().isEmpty() || stated) {
                return;
            }
            String domain = block.block().domains().get(block.type().clocks().getFirst().name());
            if (domain != null && view.platform().domainIndex().containsKey(domain)) {
                out.line("clocks = <&%s>;", labels.clockOf(domain));
            }
        }

        private void compatible(TargetRange device) {
            out.line("compatible = %s;", quoted(device.software().compatible()));
        }

        private static String quoted(List<String> names) {
            return names.stream().map(name -> "\"" + name + "\"").collect(Collectors.joining(", "));
        }
    }
}
