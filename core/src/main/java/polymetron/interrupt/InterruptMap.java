package polymetron.interrupt;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import polymetron.address.Address;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.SizedInterrupt;
import polymetron.software.Harts;
import polymetron.software.InterruptController;
import polymetron.software.SoftwareView;

/**
 * Who interrupts whom, with which number. A number has two sides: the hardware input, counted from 0, and what
 * software reads. A controller's sources are counted from its first, which is 1 after the RISC-V PLIC specification (1.0.0,
 * chapter 1: source 0 means no interrupt); at a hart it is the cause of the trap (RISC-V Privileged ISA, table of {@code
 * mcause}: software 3, timer 7, external 11).
 *
 * @param ports every port that takes interrupts, controllers first
 * @param open sources that go nowhere
 */
public record InterruptMap(List<Port> ports, List<InterruptLink> open) {
    private static final long PLIC_ENABLE = 0x2000;
    private static final long PLIC_ENABLES = 0x80;
    private static final long PLIC_THRESHOLD = 0x20_0000;
    private static final long PLIC_CONTEXT = 0x1000;
    private static final String EXTERNAL = "external";

    /**
     * A port with interrupt inputs.
     *
     * @param inputs sources by input; several where they share one
     * @param contexts lines of a controller to harts or to another controller, in the order of its contexts
     */
    public record Port(
            ElaboratedBlock block,
            SizedInterrupt port,
            Address controllerBase,
            TreeMap<Integer, List<InterruptLink>> inputs,
            List<InterruptLink> contexts) {
        public InterfaceRef ref() {
            return new InterfaceRef(block.name(), port.name());
        }

        /** Whether it is a controller with numbered sources, not one line of a hart. */
        public boolean isNumbered() {
            return port.type().line().equals("device");
        }

        /** Number of the line at the hardware port, from 0. */
        public int hardwareLine(int input) {
            return input - port.first();
        }

        /** What software reads: the source's number at a controller, the cause of the trap at a hart. */
        public int softwareNumber(int input) {
            return Harts.lineOf(block, port.name()).map(line -> line.cause(input)).orElse(input);
        }

        /** Address of a source's priority register; null when the controller is no PLIC, or it is unreachable. */
        public Address priorityAddress(int input) {
            return at(4L * input);
        }

        /** Address of the word with a source's enable bit for a context; its bit is the number modulo 32. */
        public Address enableAddress(int input, int context) {
            return at(PLIC_ENABLE + PLIC_ENABLES * context + input / 32 * 4L);
        }

        /** Address of the threshold of a context. */
        public Address thresholdAddress(int context) {
            return at(PLIC_THRESHOLD + PLIC_CONTEXT * context);
        }

        private Address at(long offset) {
            return controllerBase == null ? null : new Address(controllerBase.bits() + offset);
        }

        /** Inputs that nothing drives. */
        public int unused() {
            return port.count() - (int) inputs.keySet().stream().filter(port::hasInput).count();
        }
    }

    public static InterruptMap of(ElaboratedPlatform platform) {
        Map<InterfaceRef, Port> ports = new LinkedHashMap<>();
        SoftwareView software = SoftwareView.of(platform);
        platform.blocks().stream()
                .sorted(Comparator.comparing(ElaboratedBlock::name))
                .forEach(
                        block -> {
                            for (SizedInterrupt port : block.shape().interrupts()) {
                                if (!port.isSource()) {
                                    Port made =
                                            new Port(
                                                    block,
                                                    port,
                                                    base(platform, software, block, port.name()),
                                                    new TreeMap<>(),
                                                    contexts(platform, block));
                                    ports.put(made.ref(), made);
                                }
                            }
                        });
        List<InterruptLink> open = new ArrayList<>();
        for (InterruptLink link : platform.interrupts()) {
            Port port =
                    link.wire() == null
                            ? null
                            : ports.get(new InterfaceRef(link.wire().block(), link.wire().sink()));
            if (port == null) {
                open.add(link);
            } else {
                port.inputs()
                        .computeIfAbsent(link.wire().input(), input -> new ArrayList<>())
                        .add(link);
            }
        }
        List<Port> sorted = new ArrayList<>(ports.values());
        sorted.sort(Comparator.comparing(port -> !port.isNumbered()));
        return new InterruptMap(List.copyOf(sorted), List.copyOf(open));
    }

    static List<InterruptLink> contexts(ElaboratedPlatform platform, ElaboratedBlock block) {
        return platform.interrupts().stream()
                .filter(link -> link.block() == block)
                .filter(link -> link.source().type().line().equals(EXTERNAL))
                .toList();
    }

    /** Where software finds a controller after the PLIC specification; null for anything else. */
    private static Address base(
            ElaboratedPlatform platform,
            SoftwareView software,
            ElaboratedBlock block,
            String sink) {
        return InterruptController.withInputs(platform, block, sink)
                .flatMap(
                        controller ->
                                software.targets().stream()
                                        .filter(
                                                target ->
                                                        target.ref().equals(controller.registers()))
                                        .findFirst())
                .map(target -> new Address(target.range().base()))
                .orElse(null);
    }
}
