package polymetron.bench.machine;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.InterruptControllerModel;
import polymetron.bench.block.MachineTimerModel;
import polymetron.bench.block.UartModel;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.library.Capability;
import polymetron.software.Consoles;
import polymetron.software.Hart;
import polymetron.software.HartLine;
import polymetron.software.Harts;
import polymetron.software.InterruptController;
import polymetron.software.MachineTimer;

/** Connects block models to controllers and to the hart that runs, as the platform does. */
final class InterruptWiring {
    private final ElaboratedPlatform platform;
    private final Hart hart;
    private final Map<InterfaceRef, BlockModel> models;

    /** By sink and input; the sink of a line of the hart is empty. */
    private final Map<List<Object>, Wire> wires = new LinkedHashMap<>();

    private InterruptWiring(
            ElaboratedPlatform platform, Hart hart, Map<InterfaceRef, BlockModel> models) {
        this.platform = platform;
        this.hart = hart;
        this.models = models;
    }

    /**
     * The wires of a hart, in an order in which one pass settles them: into controllers, between controllers once for each
     * of them, to the hart.
     */
    static List<Wire> of(
            ElaboratedPlatform platform, Hart hart, Map<InterfaceRef, BlockModel> models) {
        InterruptWiring wiring = new InterruptWiring(platform, hart, models);
        wiring.timers();
        wiring.devices();
        List<Wire> toControllers =
                wiring.wires.values().stream().filter(wire -> wire.sink() != null).toList();
        wiring.controllers();
        List<Wire> ordered = new ArrayList<>(toControllers);
        List<Wire> between =
                wiring.wires.values().stream().filter(wire -> wire.sink() != null).toList();
        for (int pass = 1; pass < InterruptController.of(platform).size(); pass++) {
            ordered.addAll(between);
        }
        wiring.wires.values().stream().filter(wire -> wire.sink() == null).forEach(ordered::add);
        return List.copyOf(ordered);
    }

    private void add(InterruptControllerModel sink, int input, BooleanSupplier source) {
        wires.computeIfAbsent(
                        List.of(sink == null ? "hart" : sink, input),
                        key -> new Wire(sink, input, new ArrayList<>()))
                .sources()
                .add(source);
    }

    private void timers() {
        for (MachineTimer timer : MachineTimer.of(platform)) {
            if (!(models.get(timer.registers()) instanceof MachineTimerModel model)) {
                continue;
            }
            int timed = timer.timed().indexOf(hart);
            if (timed >= 0) {
                add(null, HartLine.TIMER.cause(), () -> model.isDue(timed));
            }
            int signalled = timer.signalled().indexOf(hart);
            if (signalled >= 0) {
                add(null, HartLine.SOFTWARE.cause(), () -> model.isSignalled(signalled));
            }
        }
    }

    private void devices() {
        for (InterruptLink link : platform.interrupts()) {
            boolean isOwn =
                    !link.block().type().provides(Capability.MachineTimer.class).isEmpty()
                            || !link.block().type().provides(Capability.Controller.class).isEmpty();
            BlockModel model = modelOf(link);
            if (isOwn || model == null || !link.isConnected()) {
                continue;
            }
            if (link.sink().hasInput(link.wire().input())) {
                connect(link, () -> model.interrupt(link.source().name()));
            }
        }
        models.forEach(
                (ref, model) -> {
                    if (model instanceof UartModel uart) {
                        platform.block(ref.block())
                                .flatMap(block -> Consoles.at(block, ref.name()))
                                .filter(console -> console.source() != null)
                                .ifPresent(console -> inside(ref, console, uart));
                    }
                });
    }

    /** A UART that is wired to the controller of its own block. */
    private void inside(InterfaceRef ref, Capability.Console console, UartModel uart) {
        for (InterruptController controller : InterruptController.of(platform)) {
            if (controller.block().name().equals(ref.block())) {
                controller(controller)
                        .ifPresent(
                                sink ->
                                        add(
                                                sink,
                                                (int)
                                                        controller
                                                                .block()
                                                                .shape()
                                                                .number(console.source(), 0),
                                                uart::interrupts));
            }
        }
    }

    private BlockModel modelOf(InterruptLink link) {
        for (var form : link.block().shape().busInterfaces()) {
            BlockModel model = models.get(new InterfaceRef(link.block().name(), form.name()));
            if (model != null) {
                return model;
            }
        }
        return null;
    }

    private void controllers() {
        for (InterruptController controller : InterruptController.of(platform)) {
            InterruptControllerModel model = controller(controller).orElse(null);
            for (int at = 0; model != null && at < controller.contexts().size(); at++) {
                int context = at;
                InterruptController.Context leads = controller.contexts().get(at);
                if (leads.hart() == hart) {
                    add(null, HartLine.EXTERNAL.cause(), () -> model.interrupts(context));
                } else if (leads.onward() != null) {
                    connect(leads.onward(), () -> model.interrupts(context));
                }
            }
        }
    }

    private void connect(InterruptLink link, BooleanSupplier source) {
        int input = link.wire().input();
        InterruptController.withInputs(platform, link.sinkBlock(), link.sink().name())
                .ifPresentOrElse(
                        controller ->
                                controller(controller).ifPresent(sink -> add(sink, input, source)),
                        () -> {
                            if (link.sinkBlock() == hart.block()) {
                                Harts.lineOf(link.sinkBlock(), link.sink().name())
                                        .ifPresent(line -> add(null, line.cause(input), source));
                            }
                        });
    }

    private Optional<InterruptControllerModel> controller(InterruptController controller) {
        return models.get(controller.registers()) instanceof InterruptControllerModel model
                ? Optional.of(model)
                : Optional.empty();
    }
}
