package polymetron.output.software;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import polymetron.address.AddressRange;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Field;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;
import polymetron.expression.Value;
import polymetron.library.Capability;
import polymetron.library.ParameterType;
import polymetron.software.Consoles;
import polymetron.software.DeviceInterrupt;
import polymetron.software.Hart;
import polymetron.software.InterruptController;
import polymetron.software.MachineTimer;
import polymetron.software.MemoryBuffer;
import polymetron.software.SoftwareView;
import polymetron.software.TargetClock;
import polymetron.text.Escape;

/**
 * The macros of the C header: clocks, harts, and for each target its range, the parameters that software needs, its
 * interrupts and registers. Every name begins with that of its target, so only targets whose names continue each other
 * can lead to one macro.
 */
final class HeaderMacros {
    private final SoftwareView view;
    private final ElaboratedPlatform platform;
    private final List<HeaderSection> sections = new ArrayList<>();
    private final Set<ElaboratedBlock> said = new HashSet<>();
    private final Set<ElaboratedBlock> moving = new HashSet<>();
    private List<Macro> open;
    private String block;

    private HeaderMacros(SoftwareView view) {
        this.view = view;
        this.platform = view.platform();
    }

    static List<HeaderSection> of(SoftwareView view) {
        HeaderMacros macros = new HeaderMacros(view);
        macros.clocks();
        macros.harts();
        view.targets().forEach(macros::target);
        return List.copyOf(macros.sections);
    }

    /** Those of some targets only. */
    static List<Macro> of(SoftwareView view, List<TargetRange> targets) {
        HeaderMacros macros = new HeaderMacros(view);
        targets.forEach(macros::target);
        return macros.sections.stream().flatMap(section -> section.macros().stream()).toList();
    }

    /** Those that do not belong to a target. */
    static List<Macro> ofPlatform(SoftwareView view) {
        HeaderMacros macros = new HeaderMacros(view);
        macros.clocks();
        macros.harts();
        return macros.sections.stream().flatMap(section -> section.macros().stream()).toList();
    }

    private void begin(String title, String owner) {
        open = new ArrayList<>();
        block = owner;
        sections.add(new HeaderSection(title, open));
    }

    private void define(String name, String value) {
        open.add(new Macro(name, "", value, block));
    }

    private void define(String name, long number) {
        define(name, CText.number(number));
    }

    private void clocks() {
        begin("Clocks, in hertz.", null);
        for (Domain domain : platform.domains()) {
            define("CLOCK_%s_HZ".formatted(CText.macro(domain.name())), domain.frequencyHz());
        }
    }

    private void harts() {
        if (view.harts().isEmpty()) {
            return;
        }
        begin("Harts that run the program, and the UART that it prints to.", null);
        define("PLATFORM_HARTS", view.harts().size());
        for (int index = 0; index < view.harts().size(); index++) {
            define("PLATFORM_HART%s_ID".formatted(index), view.harts().get(index).id());
        }
        view.console()
                .ifPresent(
                        uart ->
                                define(
                                        "PLATFORM_CONSOLE_BASE",
                                        CText.constant(uart.range().base())));
        for (Hart hart : view.harts()) {
            if (hart.index() == 0) {
                begin(
                        "%s: %s (%s)."
                                .formatted(
                                        hart.block().name(),
                                        hart.block().type().title(),
                                        hart.block().type().identity()),
                        hart.block().name());
                String name = CText.macro(hart.block().name());
                if (hart.hertz() > 0) {
                    define(name + "_CLOCK_HZ", hart.hertz());
                }
                MachineTimer.serving(platform, hart)
                        .ifPresent(timer -> define(name + "_TIME_HZ", timer.tickHz()));
                parameters(hart.block());
            }
        }
    }

    private void target(TargetRange target) {
        String name = CText.macro(target.label());
        begin(
                "%s: %s (%s)."
                        .formatted(
                                target.label(),
                                target.block().type().title(),
                                target.block().type().identity()),
                target.block().name());
        define(name + "_BASE", CText.constant(target.range().base()));
        define(name + "_SIZE", CText.constant(target.range().sizeBytes()));
        define(name + "_LAST", CText.constant(target.range().last()));
        if (!view.runsOn(target.block())) {
            parameters(target.block());
        }
        if (moving.add(target.block())) {
            moved(target.block());
        }
        buffers(target.block());
        if (target.form().isMemory()) {
            return;
        }
        Capability.Console console = Consoles.at(target).orElse(null);
        MachineTimer timer = timerAt(target);
        long clockHz = TargetClock.hertz(platform, target.block(), target.form().name());
        if (clockHz > 0 && hasOwnClock(target)) {
            define(name + "_CLOCK_HZ", clockHz);
        }
        if (console != null) {
            Consoles.rate(platform, target.block(), console)
                    .ifPresent(rate -> define(name + "_DIVISOR", rate.divisor()));
        }
        if (timer != null) {
            timer(name, timer);
        }
        controller(name, target);
        for (DeviceInterrupt interrupt : view.interruptsOf(target)) {
            interrupt(name, interrupt);
        }
        for (Register register : target.registers()) {
            register(name, register);
        }
    }

    /** What is inside a block need not run from the clock of its port. */
    private boolean hasOwnClock(TargetRange target) {
        return target.form().isForBus()
                || TargetClock.stated(platform, target.block(), target.form().name()).isPresent();
    }

    private MachineTimer timerAt(TargetRange target) {
        return MachineTimer.of(platform).stream()
                .filter(timer -> timer.registers().equals(target.ref()))
                .findFirst()
                .orElse(null);
    }

    private void timer(String name, MachineTimer timer) {
        if (timer.tickHz() > 0) {
            define(name + "_TICK_HZ", timer.tickHz());
        }
        indices(name, "_MTIMECMP_INDEX", timer.timed());
        indices(name, "_MSIP_INDEX", timer.signalled());
    }

    private void indices(String name, String what, List<Hart> served) {
        for (int index = 0; index < served.size(); index++) {
            if (served.get(index) != null && view.harts().contains(served.get(index))) {
                define("%s_HART%s%s".formatted(name, served.get(index).id(), what), index);
            }
        }
    }

    private void controller(String name, TargetRange target) {
        for (InterruptController controller : InterruptController.of(platform)) {
            if (!controller.registers().equals(target.ref())) {
                continue;
            }
            for (int context = 0; context < controller.contexts().size(); context++) {
                Hart hart = controller.contexts().get(context).hart();
                if (hart != null && view.harts().contains(hart)) {
                    define("%s_HART%s_CONTEXT".formatted(name, hart.id()), context);
                }
            }
        }
    }

    /** Values of the parameters that software needs, once for each block. */
    private void parameters(ElaboratedBlock owner) {
        if (!said.add(owner)) {
            return;
        }
        String name = CText.macro(owner.name());
        Map<String, Value> values = owner.shape().parameters();
        for (ParameterType parameter : owner.type().parameters()) {
            if (parameter.macro() != null) {
                parameter(name + "_" + parameter.macro(), parameter, values.get(parameter.name()));
            }
        }
    }

    private void parameter(String macro, ParameterType parameter, Value value) {
        switch (parameter.form()) {
            case CHOICE ->
                    define(
                            macro + "_" + value.toString().toUpperCase(Locale.ROOT),
                            CText.number(1));
            case TEXT -> define(macro, "\"%s\"".formatted(Escape.c(value.toString())));
            // What stands between the braces of an initialiser; numbers that are missing are 0.
            case NUMBERS -> define(macro, value.toString().isEmpty() ? "0" : value.toString());
            // Integers, as in the devicetree: programs for such a processor have no fractions.
            case REAL ->
                    define(
                            macro + ("V".equals(parameter.unit()) ? "_MICROVOLTS" : "_MILLIONTHS"),
                            DeviceTreeParameters.millionths(value.toString()));
            case BOOLEAN -> define(macro, value.isTrue() ? 1 : 0);
            case ADDRESS, SIZE -> define(macro, CText.constant(value.asNumber().longValue()));
            case INTEGER -> {
                long number = value.asNumber().longValue();
                define(macro, number < 0 ? "(%s)".formatted(number) : CText.number(number));
            }
        }
    }

    /** Where a block that moves data finds memory that the program sees elsewhere, or not at all: what it is to be told. */
    private void moved(ElaboratedBlock owner) {
        for (AddressSpace space : platform.spaces()) {
            InitiatorPort initiator = space.initiator();
            if (initiator.block() != owner
                    || !Boolean.TRUE.equals(initiator.form().type().memoryOnly())) {
                continue;
            }
            for (TargetRange memory : space.ranges()) {
                boolean isSame =
                        view.targets().stream()
                                .anyMatch(
                                        each ->
                                                each.block() == memory.block()
                                                        && each.range().equals(memory.range()));
                if (memory.form().isMemory() && !isSame) {
                    define(
                            "%s_%s_%s_ADDRESS"
                                    .formatted(
                                            CText.macro(owner.name()),
                                            CText.macro(initiator.ref().name()),
                                            CText.macro(memory.label())),
                            CText.constant(memory.range().base()));
                }
            }
        }
    }

    /** Where the program finds what the block writes by itself. */
    private void buffers(ElaboratedBlock owner) {
        for (MemoryBuffer buffer : MemoryBuffer.of(platform)) {
            if (buffer.block() != owner) {
                continue;
            }
            for (TargetRange memory : view.dataMemories()) {
                AddressRange seen = buffer.seenIn(memory);
                if (seen != null) {
                    define(
                            CText.macro(owner.name()) + "_BUFFER_ADDRESS",
                            CText.constant(seen.base()));
                }
            }
        }
    }

    private void interrupt(String name, DeviceInterrupt interrupt) {
        String macro = name + "_" + CText.macro(interrupt.source());
        switch (interrupt) {
            case DeviceInterrupt.Source source -> {
                define(macro + "_PLIC_SOURCE", source.number());
                view.targets().stream()
                        .filter(each -> each.ref().equals(source.controller().registers()))
                        .findFirst()
                        .ifPresent(
                                plic ->
                                        define(
                                                macro + "_PLIC_BASE",
                                                CText.constant(plic.range().base())));
            }
            case DeviceInterrupt.Cause cause -> {
                // An interrupt of another program's hart is left out.
                if (view.runsOn(cause.hart().block())) {
                    define(macro + "_CAUSE", cause.cause());
                }
            }
        }
        if (interrupt.priority() != null) {
            define(macro + "_PRIORITY", interrupt.priority());
        }
    }

    private void register(String name, Register register) {
        String macro = name + "_" + CText.macro(register.name());
        if (register.isRow()) {
            open.add(
                    new Macro(
                            macro + "_OFFSET",
                            "(n)",
                            "(PLATFORM_U(0x%X) + PLATFORM_U(%s) * ((n) - PLATFORM_U(%s)))"
                                    .formatted(
                                            register.offset(), register.stride(), register.first()),
                            block));
            define(macro + "_COUNT", register.count());
        } else {
            define(macro + "_OFFSET", "PLATFORM_U(0x%X)".formatted(register.offset()));
        }
        for (Field field : register.fields()) {
            // A mask that is the whole register says nothing.
            if (field.bits() < register.width()) {
                String bits = macro + "_" + CText.macro(field.name());
                define(bits + "_MASK", CText.constant(field.mask()));
                define(bits + "_SHIFT", field.lowBit());
            }
        }
    }
}
