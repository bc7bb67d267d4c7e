package polymetron.software;

import java.util.ArrayList;
import java.util.List;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.TargetRange;

/**
 * An interrupt of a device with the number that software knows it by.
 *
 * @param source name of the source
 * @param priority planned priority; null for none
 */
public sealed interface DeviceInterrupt {
    String source();

    Integer priority();

    /**
     * A source of a platform-level interrupt controller.
     *
     * @param number its number there, from 1
     */
    record Source(String source, Integer priority, InterruptController controller, int number)
            implements DeviceInterrupt {}

    /**
     * A line of a hart.
     *
     * @param cause what software reads from {@code mcause}, without the interrupt bit
     */
    record Cause(String source, Integer priority, Hart hart, int cause)
            implements DeviceInterrupt {}

    /** The connected interrupts of a device, in the order of its definition. */
    static List<DeviceInterrupt> of(ElaboratedPlatform platform, TargetRange device) {
        List<DeviceInterrupt> found = new ArrayList<>();
        for (InterruptLink link : platform.interrupts()) {
            if (link.block() == device.block() && link.isConnected()) {
                of(platform, link).ifPresent(found::add);
            }
        }
        Consoles.at(device)
                .filter(console -> console.source() != null)
                .ifPresent(
                        console ->
                                InterruptController.of(platform).stream()
                                        .filter(each -> each.block() == device.block())
                                        .findFirst()
                                        .ifPresent(
                                                controller ->
                                                        found.add(
                                                                new Source(
                                                                        "irq",
                                                                        null,
                                                                        controller,
                                                                        (int)
                                                                                device.block()
                                                                                        .shape()
                                                                                        .number(
                                                                                                console
                                                                                                        .source(),
                                                                                                0)))));
        return found;
    }

    private static java.util.Optional<DeviceInterrupt> of(
            ElaboratedPlatform platform, InterruptLink link) {
        int input = link.wire().input();
        String source = link.source().name();
        Integer priority = link.wire().priority();
        var controller =
                InterruptController.withInputs(platform, link.sinkBlock(), link.sink().name());
        if (controller.isPresent()) {
            return java.util.Optional.of(new Source(source, priority, controller.get(), input));
        }
        return Harts.lineOf(link.sinkBlock(), link.sink().name())
                .map(
                        line ->
                                new Cause(
                                        source,
                                        priority,
                                        Harts.of(platform).of(link.sinkBlock()).getFirst(),
                                        line.cause(input)));
    }
}
