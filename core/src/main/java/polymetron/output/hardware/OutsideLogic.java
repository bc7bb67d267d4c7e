package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.List;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.SizedInterrupt;
import polymetron.library.Capability;
import polymetron.library.ClockInput;
import polymetron.library.ResetInput;
import polymetron.verilog.Module;

/**
 * A block that stands for logic outside the platform: no instance, but ports of the top level. They are called as nets of
 * a block are.
 *
 * @param block the block
 * @param form its bus interface
 */
record OutsideLogic(ElaboratedBlock block, SizedInterface form) {
    /**
     * A port of the top level.
     *
     * @param signal name of the bus signal, clock, reset or interrupt
     */
    record Port(String name, String signal, Module.Way way, int bits) {}

    static boolean is(ElaboratedBlock block) {
        return !block.type().provides(Capability.OutsideLogic.class).isEmpty();
    }

    static List<OutsideLogic> all(ElaboratedPlatform platform) {
        List<OutsideLogic> all = new ArrayList<>();
        for (ElaboratedBlock block : platform.blocks()) {
            for (Capability.OutsideLogic role :
                    block.type().provides(Capability.OutsideLogic.class)) {
                block.shape()
                        .busInterface(role.port())
                        .ifPresent(form -> all.add(new OutsideLogic(block, form)));
            }
        }
        return all;
    }

    /** How it looks to the bus, in front of which its adapters are. */
    Interface bus(ElaboratedPlatform platform) {
        return Interface.of(platform, block, form);
    }

    String busName() {
        return block.name() + "_" + form.name();
    }

    List<Port> busPorts(ElaboratedPlatform platform) {
        Interface bus = bus(platform);
        return bus.signals().stream()
                .map(
                        signal ->
                                new Port(
                                        busName() + "_" + signal.name(),
                                        signal.name(),
                                        signal.fromInitiator()
                                                ? Module.Way.OUTPUT
                                                : Module.Way.INPUT,
                                        signal.bits(bus.addressBits(), bus.dataBits())))
                .toList();
    }

    List<Port> clocks() {
        return block.type().clocks().stream().map(ClockInput::name).map(this::out).toList();
    }

    List<Port> resets() {
        return block.type().resets().stream().map(ResetInput::name).map(this::out).toList();
    }

    private Port out(String name) {
        return new Port(block.name() + "_" + name, name, Module.Way.OUTPUT, 1);
    }

    List<Port> interrupts() {
        return block.shape().interrupts().stream()
                .map(SizedInterrupt::name)
                .map(name -> new Port(block.name() + "_" + name, name, Module.Way.INPUT, 1))
                .toList();
    }
}
