package polymetron.library;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import polymetron.expression.Expression;

/**
 * What a block is to the rest of a platform: a hart, a machine timer, an interrupt controller, a console, a buffer in
 * memory. A definition binds each role to its own parameters and interfaces, so that nothing else needs to know their
 * names. Expressions are of the block's parameters.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, include = JsonTypeInfo.As.WRAPPER_OBJECT)
@JsonSubTypes({
    @JsonSubTypes.Type(value = Capability.Hart.class, name = "hart"),
    @JsonSubTypes.Type(value = Capability.MachineTimer.class, name = "machine-timer"),
    @JsonSubTypes.Type(value = Capability.Controller.class, name = "interrupt-controller"),
    @JsonSubTypes.Type(value = Capability.Console.class, name = "console"),
    @JsonSubTypes.Type(value = Capability.Lines.class, name = "lines"),
    @JsonSubTypes.Type(value = Capability.Buffer.class, name = "buffer"),
    @JsonSubTypes.Type(value = Capability.Pll.class, name = "pll"),
    @JsonSubTypes.Type(value = Capability.TwoWire.class, name = "two-wire"),
    @JsonSubTypes.Type(value = Capability.AnalogInputs.class, name = "analog-inputs"),
    @JsonSubTypes.Type(value = Capability.OutsideLogic.class, name = "outside-logic")
})
public sealed interface Capability {

    /**
     * RISC-V harts in machine mode (RISC-V Privileged ISA).
     *
     * @param count harts of the block, with numbers that follow each other; null for 1
     * @param id what software reads from {@code mhartid} of the first
     * @param reset address of the first instruction after reset
     * @param trap where {@code mtvec} points after reset
     * @param fetch initiator that fetches; that of the data when a hart has one side for both
     * @param data initiator that loads and stores
     * @param hertz clock in hertz; null for the block's first clock input
     * @param lines interrupt sinks of the block; null where its own devices drive the lines
     * @param extensions extensions of RV32I that are there
     * @param cycles what its instructions take; null where that cannot be said, as in a pipeline
     */
    record Hart(
            Expression count,
            Expression id,
            Expression reset,
            Expression trap,
            String fetch,
            String data,
            Expression hertz,
            HartLines lines,
            List<Extension> extensions,
            List<Cache> caches,
            HartCycles cycles)
            implements Capability {
        public Hart {
            extensions = Lists.orEmpty(extensions);
            caches = Lists.orEmpty(caches);
        }
    }

    /**
     * Interrupt sinks of a hart.
     *
     * @param local lines of the hart's own, causes 16 and up; null for none
     */
    record HartLines(String external, String timer, String software, String local) {}

    /**
     * Clock cycles of a hart that does one instruction after the other, beside those of its accesses: each instruction is
     * fetched, executed, and loads or stores then.
     *
     * @param execute an instruction that is there
     * @param multiply what a multiplication takes on top; null for nothing
     * @param divide what a division takes on top; null for nothing
     * @param interrupt to take an interrupt
     * @param wake to go on after waiting for one
     */
    record HartCycles(
            Expression execute,
            Expression multiply,
            Expression divide,
            Expression interrupt,
            Expression wake) {}

    /**
     * An extension of the instruction set by its lower-case name.
     *
     * @param when whether it is there; null for always
     */
    record Extension(String name, Expression when) {}

    /**
     * A first-level cache of each hart.
     *
     * @param holds {@code instructions} or {@code data}
     * @param bytes its size; 0 for none
     * @param line bytes of a line
     * @param ways lines that an address can be in; null for 1
     */
    record Cache(String holds, Expression bytes, Expression line, Expression ways) {}

    /**
     * Time and software interrupts of the RISC-V ACLINT 1.0: an MSWI device at the beginning of the registers, an MTIMER
     * device with MTIMECMP from 0x4000 and MTIME at 0xBFF8.
     *
     * @param registers target that the registers are behind
     * @param divider clock cycles a tick; null for 1
     * @param hertz clock in hertz; null for the block's first clock input
     * @param harts how many it serves
     * @param lines interrupt sources for each of them; empty where it serves the harts of its own block in their order
     */
    record MachineTimer(
            String registers,
            Expression divider,
            Expression hertz,
            Expression harts,
            List<TimerLines> lines)
            implements Capability {
        public MachineTimer {
            lines = Lists.orEmpty(lines);
        }
    }

    /** Interrupt sources of a machine timer for one hart. */
    record TimerLines(String timer, String software) {}

    /**
     * A platform-level interrupt controller (RISC-V PLIC 1.0.0).
     *
     * @param registers target that the registers are behind
     * @param inputs interrupt sink with its sources from outside
     * @param sources number of the last source
     * @param priorityBits bits of a priority
     * @param contexts interrupt source of each context; empty where context n is the external line of the block's hart n
     */
    record Controller(
            String registers,
            String inputs,
            Expression sources,
            Expression priorityBits,
            List<String> contexts)
            implements Capability {
        public Controller {
            contexts = Lists.orEmpty(contexts);
        }
    }

    /**
     * A UART with the registers of the PC16550D, one 32-bit word apart.
     *
     * @param registers target that the registers are behind
     * @param baud rate in baud after reset
     * @param hertz clock in hertz; null for the block's first clock input
     * @param irq interrupt source of the block; null where it is wired inside
     * @param source the source's number at the block's own controller; null where it is wired outside
     */
    record Console(
            String registers, Expression baud, Expression hertz, String irq, Expression source)
            implements Capability {}

    /**
     * Lines that software reads, drives or both: general-purpose I/O. The fields, each as {@code REGISTER.FIELD}, have a bit a
     * line; one that is null, or not there with the block's parameters, is not needed for the direction.
     *
     * @param count how many
     * @param direction {@code in}, {@code out} or {@code both}
     * @param input levels of the lines
     * @param output levels to drive
     * @param drive which lines are driven; all of them where there is only {@code output}
     * @param rise lines of which a rising edge sets the bit of {@code edge}
     * @param fall the same for falling edges
     * @param edge lines that had an edge
     */
    record Lines(
            String registers,
            Expression count,
            Expression direction,
            String input,
            String output,
            String drive,
            String rise,
            String fall,
            String edge)
            implements Capability {}

    /**
     * A buffer in memory that hardware writes by itself.
     *
     * @param writer initiator in whose address space it is
     * @param base its first address
     * @param bytes its size
     * @param when whether its place is settled by the parameters; null for always
     */
    record Buffer(String writer, Expression base, Expression bytes, Expression when)
            implements Capability {}

    /**
     * One of the device's PLLs. Roles are parameters, because settings are put into them: the oscillator inside runs at the
     * input's frequency times {@code multiply} divided by {@code divide} and {@code steps}.
     *
     * @param divide divider of the input
     * @param multiply multiplier, in parts of a whole one
     * @param steps parts of a whole multiplier
     * @param outputs how many outputs there are
     * @param dividers divider of each output, in the order of the clock outputs
     */
    record Pll(String divide, String multiply, String steps, String outputs, List<String> dividers)
            implements Capability {
        public Pll {
            dividers = Lists.orEmpty(dividers);
        }
    }

    /**
     * A controller of an I2C bus. Roles are parameters, in cycles of the block's clock.
     *
     * @param low time for which the clock line is low
     * @param high time for which it is high
     */
    record TwoWire(String low, String high) implements Capability {}

    /**
     * Voltages that are measured with the device's own converter, in steps of a 4096th of the full scale.
     *
     * @param channels number of channels
     * @param fullScale voltage of the full scale, in volts
     */
    record AnalogInputs(Expression channels, Expression fullScale) implements Capability {
        /** Bits of a measurement. */
        public static final int BITS = 12;
    }

    /**
     * Logic outside the platform: what is on the bus goes out as ports of the top level, with the clock, the reset and the
     * interrupts of the block.
     *
     * @param port the bus interface
     */
    record OutsideLogic(String port) implements Capability {}

    /** The word for a capability in a definition. */
    static String word(Capability capability) {
        for (JsonSubTypes.Type type : Capability.class.getAnnotation(JsonSubTypes.class).value()) {
            if (type.value() == capability.getClass()) {
                return type.name();
            }
        }
        throw new IllegalArgumentException(capability.getClass().getName());
    }
}
