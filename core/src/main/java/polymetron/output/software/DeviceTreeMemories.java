package polymetron.output.software;

import java.util.ArrayList;
import java.util.List;
import polymetron.address.AddressRange;
import polymetron.elaborate.TargetRange;
import polymetron.software.MemoryBuffer;
import polymetron.software.SoftwareView;

/**
 * Memories in the devicetree. A memory node is what an operating system may use as it likes (Devicetree Specification 0.4,
 * 3.4): memory outside the device's own blocks, or, where there is none, that of the program. Memory inside the device that
 * is left is "mmio-sram" (published binding sram/sram), and what only the bitstream or a programmer writes is "mtd-rom"
 * (mtd/mtd-physmap; both from memory). Buffers that hardware writes are reserved in either.
 */
final class DeviceTreeMemories {
    private record Kept(
            MemoryBuffer buffer, TargetRange memory, AddressRange range, String label) {}

    private final SoftwareView view;
    private final DeviceTreeLabels labels;
    private final DeviceTreeWriter out;
    private final List<TargetRange> main = new ArrayList<>();
    private final List<Kept> kept = new ArrayList<>();

    DeviceTreeMemories(SoftwareView view, DeviceTreeLabels labels, DeviceTreeWriter out) {
        this.view = view;
        this.labels = labels;
        this.out = out;
        // What is only executed is no place for an operating system to put anything.
        for (TargetRange memory : view.dataMemories()) {
            if (memory.form().isWritable() && !memory.isFilledByBitstream()) {
                main.add(memory);
            }
        }
        if (main.isEmpty()) {
            view.dataMemory().ifPresent(main::add);
        }
        for (MemoryBuffer buffer : MemoryBuffer.of(view.platform())) {
            for (TargetRange memory : view.dataMemories()) {
                AddressRange seen = buffer.seenIn(memory);
                if (seen != null) {
                    kept.add(new Kept(buffer, memory, seen, labels.bufferOf(buffer.block())));
                }
            }
        }
    }

    void write() {
        view.dataMemories().forEach(this::memory);
        List<Kept> reserved = kept.stream().filter(each -> isMain(each.memory())).toList();
        if (reserved.isEmpty()) {
            return;
        }
        out.open("reserved-memory");
        out.addressing();
        out.line("ranges;");
        for (Kept each : reserved) {
            out.open("%s: buffer@%x", each.label(), each.range().base());
            out.line("reg = <%s>;", out.cells(each.range().base(), each.range().sizeBytes()));
            out.line("no-map;");
            out.close();
        }
        out.close();
    }

    private boolean isMain(TargetRange memory) {
        return main.stream().anyMatch(each -> each.isSameMemoryAs(memory));
    }

    private void memory(TargetRange memory) {
        AddressRange range = memory.range();
        if (isMain(memory)) {
            out.open("%s: memory@%x", labels.of(memory), range.base());
            out.line("device_type = \"memory\";");
            out.line("reg = <%s>;", out.cells(range.base(), range.sizeBytes()));
            out.close();
        } else if (memory.form().isWritable()) {
            sram(memory, range);
        } else {
            out.open("%s: rom@%x", labels.of(memory), range.base());
            out.line("compatible = \"mtd-rom\";");
            out.line("bank-width = <4>;");
            out.line("reg = <%s>;", out.cells(range.base(), range.sizeBytes()));
            out.close();
        }
    }

    private void sram(TargetRange memory, AddressRange range) {
        out.open("%s: sram@%x", labels.of(memory), range.base());
        out.line("compatible = \"mmio-sram\";");
        out.line("reg = <%s>;", out.cells(range.base(), range.sizeBytes()));
        out.line("#address-cells = <1>;");
        out.line("#size-cells = <1>;");
        out.line("ranges = <0x0 %s 0x%x>;", out.address(range.base()), range.sizeBytes());
        for (Kept each : kept) {
            if (each.memory() == memory) {
                out.open("%s: sram-section@%x", each.label(), each.range().base() - range.base());
                out.line(
                        "reg = <0x%x 0x%x>;",
                        each.range().base() - range.base(), each.range().sizeBytes());
                out.close();
            }
        }
        out.close();
    }

    /** Where a device that writes a buffer finds it. */
    void bufferOf(TargetRange device) {
        for (Kept each : kept) {
            if (each.buffer().block() == device.block()) {
                out.line(
                        "%s = <&%s>;",
                        isMain(each.memory()) ? "memory-region" : "sram", each.label());
            }
        }
    }
}
