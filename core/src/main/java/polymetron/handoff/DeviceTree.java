package polymetron.handoff;

import java.util.ArrayList;
import java.util.List;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.TargetRange;
import polymetron.library.Kind;
import polymetron.serial.Uart;

/** The devicetree source (Devicetree Specification 0.4, and the RISC-V bindings of harts, PLIC and ACLINT). */
final class DeviceTree implements Exporter {
    /** Interrupt causes of the Privileged ISA, table "mcause": software 3, timer 7, external 11. */
    private static final int SOFTWARE = 3;

    private static final int TIMER = 7;
    private static final int EXTERNAL = 11;
    private static final long MTIMER_OFFSET = 0x4000;
    private static final long MTIME_OFFSET = 0xBFF8;

    @Override
    public HandoffFile export(SoftwareView view, String baseName, String fingerprint) {
        return new HandoffFile(
                baseName + ".dts", "devicetree source", new Text(view, fingerprint).write());
    }

    private static final class Text {
        private final SoftwareView view;
        private final String fingerprint;
        private final boolean wide;
        private final DeviceTreeLabels labels;
        private final StringBuilder out = new StringBuilder();
        private int depth;

        private Text(SoftwareView view, String fingerprint) {
            this.view = view;
            this.fingerprint = fingerprint;
            this.labels = new DeviceTreeLabels(view);
            this.wide =
                    view.targets().stream()
                            .anyMatch(
                                    target ->
                                            Long.compareUnsigned(
                                                            target.range().last(), 0xFFFF_FFFFL)
                                                    > 0);
        }

        private String write() {
            line("/dts-v1/;");
            line(
                    "/* Platform fingerprint %s. Made by Polymetron; changes here are lost. */",
                    fingerprint);
            line("");
            open("/");
            line("#address-cells = <%s>;", wide ? 2 : 1);
            line("#size-cells = <%s>;", wide ? 2 : 1);
            line("compatible = \"polymetron,platform\";");
            line("model = \"%s\";", CText.safe(view.platform().platform().name()));
            line("polymetron,fingerprint = \"%s\";", fingerprint);
            chosen();
            processors();
            for (Domain domain : view.platform().domains()) {
                open(
                        "%s: clock-%s"
                                .formatted(
                                        labels.clockOf(domain.name()),
                                        domain.name().replace('_', '-')));
                line("compatible = \"fixed-clock\";");
                line("#clock-cells = <0>;");
                line("clock-frequency = <%s>;", domain.frequencyHz());
                close();
            }
            // What is only executed is no place for an operating system to put anything.
            view.dataMemories().forEach(this::memory);
            devices();
            close();
            return out.toString();
        }

        /**
         * A memory node is what an operating system may use as it likes (Devicetree Specification 0.4, 3.4), so
         * memory that only the bitstream or a programmer writes is a device of its own: "mtd-rom", of the published
         * binding mtd/mtd-physmap (from memory).
         */
        private void memory(TargetRange memory) {
            if (memory.form().isWritable()) {
                open("%s: memory@%x".formatted(labels.of(memory), memory.range().base()));
                line("device_type = \"memory\";");
            } else {
                open("%s: rom@%x".formatted(labels.of(memory), memory.range().base()));
                line("compatible = \"mtd-rom\";");
                line("bank-width = <4>;");
            }
            line("reg = <%s>;", cells(memory.range().base(), memory.form().sizeBytes()));
            close();
        }

        private void chosen() {
            List<TargetRange> uarts = view.devices().stream().filter(Uart::isUart).toList();
            uarts.stream()
                    .filter(uart -> Uart.drivesConsole(view.platform(), uart.block()))
                    .findFirst()
                    .or(() -> uarts.stream().findFirst())
                    .ifPresent(
                            console -> {
                                open("chosen");
                                line(
                                        "stdout-path = \"/soc/serial@%x:%sn8\";",
                                        console.range().base(),
                                        console.block().shape().number(Uart.BAUD));
                                close();
                            });
        }

        private void processors() {
            List<ElaboratedBlock> processors =
                    view.platform().blocks().stream()
                            .filter(block -> block.kind() == Kind.PROCESSOR)
                            .toList();
            if (processors.isEmpty()) {
                return;
            }
            open("cpus");
            line("#address-cells = <1>;");
            line("#size-cells = <0>;");
            long ticks = timebaseHz();
            if (ticks > 0) {
                line("timebase-frequency = <%s>;", ticks);
            }
            for (ElaboratedBlock processor : processors) {
                processor(processor);
            }
            close();
        }

        private void processor(ElaboratedBlock processor) {
            long hart = processor.shape().number("HART_ID");
            InstructionSet executes = InstructionSet.of(processor);
            open("%s: cpu@%x".formatted(processor.name(), hart));
            line("device_type = \"cpu\";");
            line("reg = <0x%x>;", hart);
            line("compatible = \"riscv\";");
            line("riscv,isa = \"%s\";", executes.name());
            line("riscv,isa-base = \"rv32i\";");
            line(
                    "riscv,isa-extensions = \"i\", %s;",
                    executes.extensions().stream()
                            .map(name -> "\"" + name + "\"")
                            .collect(java.util.stream.Collectors.joining(", ")));
            long hertz = view.platform().frequencyHz(processor);
            if (hertz > 0) {
                line("clock-frequency = <%s>;", hertz);
            }
            open("%s: interrupt-controller".formatted(labels.interruptsOf(processor.name())));
            line("compatible = \"riscv,cpu-intc\";");
            line("interrupt-controller;");
            line("#interrupt-cells = <1>;");
            line("#address-cells = <0>;");
            close();
            close();
        }

        private long timebaseHz() {
            return view.devices().stream()
                    .filter(device -> isStandard(device, "riscv-aclint"))
                    .map(TargetRange::block)
                    .mapToLong(
                            block ->
                                    view.platform().frequencyHz(block)
                                            / block.shape().number("DIVIDER"))
                    .findFirst()
                    .orElse(0);
        }

        private static boolean isStandard(TargetRange device, String standard) {
            return standard.equals(device.software().standard());
        }

        private void devices() {
            if (view.devices().isEmpty()) {
                return;
            }
            open("soc");
            line("#address-cells = <%s>;", wide ? 2 : 1);
            line("#size-cells = <%s>;", wide ? 2 : 1);
            line("compatible = \"simple-bus\";");
            line("ranges;");
            for (TargetRange device : view.devices()) {
                if (isStandard(device, "riscv-aclint")) {
                    timer(device);
                } else if (isStandard(device, "riscv-plic")) {
                    controller(device);
                } else {
                    device(device);
                }
            }
            close();
        }

        /** One block of ours is two devices of the ACLINT specification, each with its own node. */
        private void timer(TargetRange device) {
            long base = device.range().base();
            open("%s: mswi@%x".formatted(labels.softwareOf(device), base));
            line("compatible = \"riscv,aclint-mswi\";");
            line("reg = <%s>;", cells(base, MTIMER_OFFSET));
            toHart(device.block(), "software", SOFTWARE);
            close();
            // First MTIME, then the MTIMECMP registers: the specification lets them lie apart. The
            // unit address is
            // that of the first (Devicetree Specification 0.4, 2.2.1).
            open("%s: mtimer@%x".formatted(labels.of(device), base + MTIME_OFFSET));
            compatible(device);
            line(
                    "reg = <%s>, <%s>;",
                    cells(base + MTIME_OFFSET, 8),
                    cells(base + MTIMER_OFFSET, MTIME_OFFSET - MTIMER_OFFSET));
            toHart(device.block(), "timer", TIMER);
            close();
        }

        private void controller(TargetRange device) {
            open("%s: interrupt-controller@%x".formatted(labels.of(device), device.range().base()));
            compatible(device);
            line("reg = <%s>;", cells(device.range().base(), device.form().sizeBytes()));
            line("interrupt-controller;");
            line("#interrupt-cells = <1>;");
            line("#address-cells = <0>;");
            line("riscv,ndev = <%s>;", device.block().shape().number("SOURCES"));
            contexts(device.block());
            close();
        }

        private void device(TargetRange device) {
            ElaboratedBlock block = device.block();
            String node = Uart.isUart(device) ? "serial" : block.type().identity().name();
            open("%s: %s@%x".formatted(labels.of(device), node, device.range().base()));
            compatible(device);
            line("reg = <%s>;", cells(device.range().base(), device.form().sizeBytes()));
            String domain =
                    block.type().clocks().isEmpty()
                            ? null
                            : block.block().domains().get(block.type().clocks().getFirst().name());
            if (domain != null && view.platform().domainIndex().containsKey(domain)) {
                line("clocks = <&%s>;", labels.clockOf(domain));
            }
            if (Uart.isUart(device)) {
                line("clock-frequency = <%s>;", Uart.clockHz(view.platform(), device));
                line("current-speed = <%s>;", block.shape().number(Uart.BAUD));
                line("reg-shift = <2>;");
                line("reg-io-width = <4>;");
            }
            if (block.type().identity().name().equals("gpio")) {
                line("gpio-controller;");
                line("#gpio-cells = <2>;");
                line("ngpios = <%s>;", block.shape().number("WIDTH"));
            }
            List<InterruptLink> links =
                    view.interruptsOf(block).stream()
                            .filter(link -> link.sink().type().line().equals("device"))
                            .toList();
            if (!links.isEmpty()) {
                List<String> entries = new ArrayList<>();
                links.forEach(
                        link ->
                                entries.add(
                                        "<&%s %s>"
                                                .formatted(
                                                        // A hart has a controller of its own.
                                                        link.sinkBlock().kind() == Kind.PROCESSOR
                                                                ? labels.interruptsOf(
                                                                        link.wire().block())
                                                                : link.wire().block(),
                                                        link.wire().input())));
                line("interrupts-extended = %s;", String.join(", ", entries));
            }
            close();
        }

        private void toHart(ElaboratedBlock block, String source, int cause) {
            for (InterruptLink link : view.interruptsOf(block)) {
                if (link.source().name().equals(source)) {
                    line(
                            "interrupts-extended = <&%s %s>;",
                            labels.interruptsOf(link.wire().block()), cause);
                }
            }
        }

        /** One entry for each context; a context without a hart has the number that the PLIC's binding gives it. */
        private void contexts(ElaboratedBlock block) {
            List<String> entries = new ArrayList<>();
            for (InterruptLink link : view.platform().interrupts()) {
                if (link.block() != block || !link.source().type().line().equals("external")) {
                    continue;
                }
                if (!link.isConnected()) {
                    entries.add("<0xffffffff>");
                } else if (link.sink().type().line().equals("device")) {
                    entries.add("<&%s %s>".formatted(link.wire().block(), link.wire().input()));
                } else {
                    entries.add(
                            "<&%s %s>"
                                    .formatted(labels.interruptsOf(link.wire().block()), EXTERNAL));
                }
            }
            while (!entries.isEmpty() && entries.getLast().equals("<0xffffffff>")) {
                entries.removeLast();
            }
            if (!entries.isEmpty()) {
                line("interrupts-extended = %s;", String.join(", ", entries));
            }
        }

        private void compatible(TargetRange device) {
            List<String> quoted =
                    device.software().compatible().stream()
                            .map(name -> "\"" + name + "\"")
                            .toList();
            line("compatible = %s;", String.join(", ", quoted));
        }

        private String cells(long address, long size) {
            return wide
                    ? "0x%x 0x%x 0x%x 0x%x"
                            .formatted(
                                    address >>> 32,
                                    address & 0xFFFF_FFFFL,
                                    size >>> 32,
                                    size & 0xFFFF_FFFFL)
                    : "0x%x 0x%x".formatted(address, size);
        }

        private void open(String name) {
            line("%s {", name);
            depth++;
        }

        private void close() {
            depth--;
            line("};");
        }

        private void line(String format, Object... values) {
            String text = values.length == 0 ? format : format.formatted(values);
            out.append("\t".repeat(text.isEmpty() ? 0 : depth)).append(text).append('\n');
        }
    }
}
