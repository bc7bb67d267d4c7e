package polymetron.everything;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import polymetron.everything.DocumentFacts.Hart;
import polymetron.everything.DocumentFacts.Program;
import polymetron.everything.DocumentFacts.Target;
import polymetron.everything.ExpectedHeader.Interrupt;
import tools.jackson.databind.JsonNode;

/**
 * A program that uses every device that it can see, and the text that it has to say: reset values, what registers keep, what
 * drivers do, every interrupt by its number, and what start-up code leaves. A line that begins with a question mark asks the
 * world outside for something: {@code ?set label offset bits} for something that happens in hardware, {@code ?raise} and
 * {@code ?lower} for an interrupt line.
 */
final class ProgramText {
    private final DocumentFacts facts;
    private final Program program;
    private final ExpectedHeader header;
    private final StringBuilder body = new StringBuilder();
    private final StringBuilder expected = new StringBuilder();
    private final Set<String> drivers = new LinkedHashSet<>();
    private final List<Target> memories = new ArrayList<>();

    /** Whether nothing outside can raise what a program cannot. */
    private final boolean isAlone;

    ProgramText(DocumentFacts facts, Program program, boolean isAlone) {
        this.isAlone = isAlone;
        this.facts = facts;
        this.program = program;
        this.header = new ExpectedHeader(facts, program);
    }

    /** Whether there is a UART to say anything on. */
    boolean hasConsole() {
        return header.console() != null;
    }

    String expected() {
        return expected.toString();
    }

    String write(String stem, String codeMemory, String dataMemory) {
        sections(codeMemory, dataMemory);
        for (Target target : program.targets()) {
            if (!target.isMemory()) {
                device(target);
            }
        }
        interrupts();
        code("if (never) {");
        code("    uart_set_divisor(PLATFORM_CONSOLE_BASE, 1u);");
        code("    uart_interrupt_on_receive(PLATFORM_CONSOLE_BASE, 0);");
        code("    (void)uart_receive(PLATFORM_CONSOLE_BASE);");
        code("    (void)uart_has_received(PLATFORM_CONSOLE_BASE);");
        code("}");
        say("end");
        StringBuilder text = new StringBuilder();
        text.append("#include <stddef.h>\n#include <stdbool.h>\n#include <stdint.h>\n");
        text.append("#include \"%s.h\"\n".formatted(stem));
        drivers.add("uart.h");
        drivers.forEach(driver -> text.append("#include \"drivers/%s\"\n".formatted(driver)));
        text.append(COMMON);
        memories.forEach(
                memory ->
                        text.append(
                                "__attribute__((section(\".memory.%s\"))) static volatile uint32_t in_%s = 0x600DF00Du;\n"
                                        .formatted(memory.name(), memory.name())));
        text.append("int main(void)\n{\n")
                .append(body)
                .append("    for (;;) {\n        __asm__ volatile(\"wfi\");\n    }\n}\n");
        return text.toString();
    }

    // --- saying --------------------------------------------------------------------------------

    private void code(String line, Object... values) {
        body.append("    ").append(line.formatted(values)).append('\n');
    }

    private void say(String words) {
        code("text(\"%s\\n\");", words);
        expected.append(words).append('\n');
    }

    /** A request that the world outside answers; it is said as well. */
    private void ask(String request) {
        say("?" + request);
    }

    private void show(String what, String expression, long value) {
        code("show(\"%s\", (uint32_t)(%s));", what, expression);
        expected.append("%s %08x%n".formatted(what, value & 0xFFFF_FFFFL).replace("\r", ""));
    }

    // --- start-up and memories -----------------------------------------------------------------

    private void sections(String codeMemory, String dataMemory) {
        say("begin " + program.name());
        show("data", "initialised", 0x1234_5678);
        show("bss", "cleared", 0);
        show("constructor", "constructed", 43);
        show("own section", "in_own_section", 7);
        show("noinit", "(uintptr_t)&not_initialised < (uintptr_t)__heap_start", 1);
        show("heap", "(uintptr_t)__heap_start <= (uintptr_t)__heap_end", 1);
        for (Target target : program.targets()) {
            boolean isOther =
                    target.isMemory()
                            && facts.number(target.block(), target.form().path("writable"), 1) != 0
                            && !target.name().equals(codeMemory)
                            && !target.name().equals(dataMemory)
                            && memories.stream().noneMatch(each -> each.block() == target.block());
            if (isOther) {
                memories.add(target);
                show(target.label(), "in_" + target.name(), 0x600D_F00DL);
                show(
                        target.label(),
                        "(uintptr_t)&in_%s >= %s_BASE && (uintptr_t)&in_%s <= %s_LAST"
                                .formatted(
                                        target.name(),
                                        target.macro(),
                                        target.name(),
                                        target.macro()),
                        1);
            }
        }
    }

    // --- devices -------------------------------------------------------------------------------

    private void device(Target target) {
        String driver = target.form().path("software").path("driver").asString(null);
        if (driver == null) {
            driver = target.type().path("software").path("driver").asString(null);
        }
        if (driver != null) {
            drivers.add(driver);
        }
        say("# " + target.label());
        if (header.console(target) != null) {
            uart(target);
        } else if (header.role(target, "machine-timer") != null) {
            machineTimer(target);
        } else if (header.role(target, "interrupt-controller") != null) {
            controller(target);
        } else {
            DeviceExercises exercises =
                    new DeviceExercises(facts, target, this::code, this::show, this::ask);
            if (!exercises.isModelled()) {
                registers(target);
            }
            exercises.run();
        }
    }

    /** Reset values and what registers keep of all ones, by the access of each field. */
    private void registers(Target target) {
        for (JsonNode register : facts.registers(target)) {
            long count = facts.number(target.block(), register.path("count"), 1);
            String name = register.path("name").asString();
            int first = register.path("first").asInt(0);
            for (long index : count > 1 ? new long[] {0, count - 1} : new long[] {0}) {
                String at = count > 1 ? "(%su)".formatted(first + index) : "";
                String address =
                        "%s_BASE + %s_%s_OFFSET%s"
                                .formatted(target.macro(), target.macro(), name, at);
                code("check(\"%s\", %s);", name, address);
                long reset = Kept.reads(facts, target, register, facts.reset(target, register));
                long after = Kept.after(facts, target, register);
                expected.append("%s %08x %08x\n".formatted(name, reset, after));
            }
        }
    }

    private void uart(Target target) {
        String at = target.macro();
        long hertz = facts.hertz(target.block(), header.console(target).path("hertz"));
        long baud = facts.number(target.block(), header.console(target).path("baud"), 0);
        long divisor = Math.clamp(Math.round(hertz / (16.0 * baud)), 1, 65_535);
        // PC16550D data sheet: the divisor latch is there while DLAB is set.
        code("latch = divisor_latch(%s_BASE);", at);
        show("divisor", "latch", divisor);
        code("word(%s_BASE + %s_SCR_OFFSET) = 0x1A5u;", at, at);
        show("scratch", "word(%s_BASE + %s_SCR_OFFSET)".formatted(at, at), 0xA5);
        show("line control", "word(%s_BASE + %s_LCR_OFFSET)".formatted(at, at), 3);
        if (header.console().label().equals(target.label())) {
            return;
        }
        code("uart_set_divisor(%s_BASE, 2u);", at);
        show("other divisor", "divisor_latch(%s_BASE)".formatted(at), 2);
        // Loop: what is sent is received (data sheet, 8.6).
        code("word(%s_BASE + %s_MCR_OFFSET) = %s_MCR_LOOP_MASK;", at, at, at);
        code("uart_interrupt_on_receive(%s_BASE, 0);", at);
        code("uart_send(%s_BASE, 'Q');", at);
        code("while (!uart_has_received(%s_BASE)) {\n    }", at);
        show("loop", "(uint8_t)uart_receive(%s_BASE)".formatted(at), 'Q');
        code("word(%s_BASE + %s_MCR_OFFSET) = 0u;", at, at);
    }

    private void machineTimer(Target target) {
        String at = target.macro();
        code("then = machine_timer_now(%s_BASE);", at);
        code("while (machine_timer_now(%s_BASE) == then) {\n    }", at);
        show("time passes", "machine_timer_now(%s_BASE) > then".formatted(at), 1);
        Hart hart = program.harts().getFirst();
        int index = header.timed(target, hart);
        if (index >= 0) {
            String own = "%s_HART%s_MTIMECMP_INDEX".formatted(at, hart.id());
            code("trapped = 0u;");
            code(
                    "machine_timer_set_for(%s_BASE, %s, machine_timer_now(%s_BASE) + 2u);",
                    at, own, at);
            code("wait_for(1u << 7);");
            show("timer interrupt", "trapped", 0x8000_0007L);
            code("machine_timer_set_for(%s_BASE, %s, UINT64_MAX);", at, own);
            if (hasTime(hart)) {
                show(
                        "rdtime",
                        "read_time() - machine_timer_now(%s_BASE) + 100u < 200u".formatted(at),
                        1);
            }
        }
        if (header.signalled(target, hart) >= 0) {
            String own = "%s_HART%s_MSIP_INDEX".formatted(at, hart.id());
            code("trapped = 0u;");
            code("machine_timer_software_interrupt_for(%s_BASE, %s, 1);", at, own);
            code("wait_for(1u << 3);");
            show("software interrupt", "trapped", 0x8000_0003L);
            code("machine_timer_software_interrupt_for(%s_BASE, %s, 0);", at, own);
        }
        code("if (never) {");
        code("    machine_timer_set(%s_BASE, 0u);", at);
        code("    machine_timer_software_interrupt(%s_BASE, 0);", at);
        code("}");
    }

    /** Zicntr, where the definition says that the parameters bring it. */
    private boolean hasTime(Hart hart) {
        for (JsonNode extension : hart.role().path("extensions")) {
            if (extension.path("name").asString().equals("zicntr")) {
                return facts.isThere(hart.block(), extension.path("when"));
            }
        }
        return false;
    }

    /** Registers of the PLIC specification 1.0.0: masks of the parameters, and nothing pending. */
    private void controller(Target target) {
        String at = target.macro();
        JsonNode role = header.role(target, "interrupt-controller");
        long sources = facts.number(target.block(), role.path("sources"), 1);
        long priority = (1L << facts.number(target.block(), role.path("priorityBits"), 1)) - 1;
        for (long source : new long[] {1, sources}) {
            code("interrupt_controller_priority(%s_BASE, %su, 0xFFFFFFFFu);", at, source);
            show(
                    "priority",
                    "word(%s_BASE + %s_PRIORITY_OFFSET(%su))".formatted(at, at, source),
                    priority);
            code("interrupt_controller_priority(%s_BASE, %su, 0u);", at, source);
        }
        code("interrupt_controller_threshold(%s_BASE, 0xFFFFFFFFu);", at);
        show("threshold", "word(%s_BASE + %s_THRESHOLD_OFFSET)".formatted(at, at), priority);
        code("interrupt_controller_threshold(%s_BASE, 0u);", at);
        code("interrupt_controller_enable(%s_BASE, %su, 0u);", at, sources);
        show(
                "enabled",
                "word(%s_BASE + 0x2000u + 4u * %su) >> %su"
                        .formatted(at, sources / 32, sources % 32),
                1);
        code("interrupt_controller_disable(%s_BASE, %su);", at, sources);
        show("nothing to claim", "interrupt_controller_claim(%s_BASE)".formatted(at), 0);
        code("interrupt_controller_complete(%s_BASE, %su);", at, sources);
    }

    // --- interrupts ----------------------------------------------------------------------------

    private void interrupts() {
        Hart hart = program.harts().getFirst();
        for (Target device : program.targets()) {
            if (device.isMemory()) {
                continue;
            }
            for (Interrupt interrupt : header.interrupts(device)) {
                boolean isOwn =
                        header.role(device, "machine-timer") != null
                                || header.role(device, "interrupt-controller") != null;
                if (isOwn || isAlone && DeviceExercises.isFromOutside(device, interrupt.source())) {
                    continue;
                }
                String macro =
                        device.macro()
                                + "_"
                                + interrupt.source().toUpperCase(java.util.Locale.ROOT);
                if (interrupt.sort().equals("CAUSE")) {
                    if (interrupt.sink().equals(hart.name())) {
                        local(device, interrupt, macro);
                    }
                } else {
                    claimed(hart, device, interrupt, macro);
                }
            }
        }
    }

    private void local(Target device, Interrupt interrupt, String macro) {
        String name = device.label() + "." + interrupt.source();
        code("plic = 0u;");
        raise(device, name);
        code("wait_for(1u << %s_CAUSE);", macro);
        show("interrupt " + name, "trapped", 0x8000_0000L | interrupt.number());
        lower(device, name);
    }

    private void claimed(Hart hart, Target device, Interrupt interrupt, String macro) {
        Target controller =
                program.targets().stream()
                        .filter(target -> target.name().equals(interrupt.sink()))
                        .filter(target -> header.role(target, "interrupt-controller") != null)
                        .findFirst()
                        .orElse(null);
        if (controller == null || header.context(controller, hart) < 0) {
            return;
        }
        String name = device.label() + "." + interrupt.source();
        String context = "%s_HART%s_CONTEXT".formatted(controller.macro(), hart.id());
        code("plic = %s_PLIC_BASE;", macro);
        code("context = %s;", context);
        code("interrupt_controller_threshold_for(plic, context, 0u);");
        code("interrupt_controller_priority(plic, %s_PLIC_SOURCE, 1u);", macro);
        code("interrupt_controller_enable_for(plic, context, %s_PLIC_SOURCE);", macro);
        raise(device, name);
        code("wait_for(1u << 11);");
        show("interrupt " + name, "trapped", 0x8000_000BL);
        show("claimed", "claimed", interrupt.number());
        lower(device, name);
        code("interrupt_controller_complete_for(plic, context, claimed);");
        code("interrupt_controller_disable_for(plic, context, claimed);");
    }

    /** What makes the device interrupt: its own doing where it can, the world outside where not. */
    private void raise(Target device, String name) {
        String at = device.macro();
        code("trapped = 0u;");
        if (header.console(device) != null) {
            // The holding register is empty: that alone interrupts (PC16550D, table "interrupt
            // control functions").
            code("drained(%s_BASE);", at);
            code("word(%s_BASE + %s_IER_OFFSET) = %s_IER_ETBEI_MASK;", at, at, at);
            return;
        }
        switch (device.type().path("identity").asString().split(":")[2]) {
            case "gpio" -> code("gpio_notice_edges(%s_BASE, 0xFFFFFFFFu, 0xFFFFFFFFu);", at);
            case "general-timer" -> {
                code("general_timer_start(%s_BASE, 3u, 0u, false, true);", at);
                return;
            }
            case "i2c-controller" -> {
                code("i2c_interrupt(%s_BASE, true);", at);
                code("(void)i2c_step(%s_BASE, 1u | 16u);", at);
                return;
            }
            case "watchdog" -> {
                code("watchdog_start(%s_BASE, 100000u, false);", at);
                return;
            }
            case "flash-controller" -> {
                code("flash_controller_take(%s_BASE);", at);
                code("flash_controller_interrupt(%s_BASE, true);", at);
                code("word(%s_BASE + 8u) = 0u;", at);
                return;
            }
            case "dma" -> {
                code("(void)dma_%s(%s_BASE, 0u, 0u, true);", direction(name), at);
                return;
            }
            case "spi-controller" -> {
                code("spi_interrupt(%s_BASE, spi_empty);", at);
                code("word(%s_BASE + %s_SEND_OFFSET) = 0u;", at, at);
                return;
            }
            default -> {}
        }
        ask("raise " + name);
    }

    /** Of a DMA, by the interrupt that tells its end. */
    private static String direction(String interrupt) {
        return interrupt.endsWith(".sent") ? "send" : "receive";
    }

    private void lower(Target device, String name) {
        String at = device.macro();
        if (header.console(device) != null) {
            code("word(%s_BASE + %s_IER_OFFSET) = 0u;", at, at);
            return;
        }
        switch (device.type().path("identity").asString().split(":")[2]) {
            case "gpio" -> code("(void)gpio_take_edges(%s_BASE);", at);
            case "general-timer" -> {
                show("ended", "general_timer_take_end(%s_BASE)".formatted(at), 1);
                code("general_timer_stop(%s_BASE);", at);
            }
            case "i2c-controller" -> {
                show("ended", "i2c_take_done(%s_BASE)".formatted(at), 1);
                code("i2c_interrupt(%s_BASE, false);", at);
            }
            case "watchdog" -> code("word(%s_BASE + %s_CONTROL_OFFSET) = 0u;", at, at);
            case "flash-controller" -> {
                show("done", "flash_controller_take_done(%s_BASE)".formatted(at), 1);
                code("flash_controller_give_back(%s_BASE);", at);
            }
            case "dma" ->
                    show(
                            "taken",
                            "dma_take_%s(%s_BASE)"
                                    .formatted(name.endsWith(".sent") ? "sent" : "received", at),
                            1);
            case "spi-controller" -> {
                show("ended", "spi_take(%s_BASE, 7u)".formatted(at), 3);
                code("spi_interrupt(%s_BASE, 0u);", at);
            }
            default -> ask("lower " + name);
        }
    }

    private static final String COMMON =
            """
            #ifdef __cplusplus
            extern "C" {
            #endif
            int main(void);
            void trap_handler(uint32_t cause, uint32_t pc, uint32_t value);
            extern char __heap_start[];
            extern char __heap_end[];
            #ifdef __cplusplus
            }
            #endif

            static volatile uint32_t initialised = 0x12345678u;
            static volatile uint32_t cleared;
            static volatile uint32_t constructed;
            __attribute__((section(".own"))) static volatile uint32_t in_own_section = 7u;
            __attribute__((section(".noinit"))) static volatile uint32_t not_initialised;
            static volatile uint32_t trapped;
            __attribute__((unused)) static volatile uint32_t claimed;
            __attribute__((unused)) static volatile uintptr_t plic;
            __attribute__((unused)) static volatile uint32_t context;
            __attribute__((unused)) static volatile uint64_t then;
            __attribute__((unused)) static volatile uint32_t latch;
            __attribute__((unused)) static volatile bool never;

            #ifdef __cplusplus
            struct Counter {
                Counter() { constructed = constructed + 43u; }
                ~Counter() { constructed = 0u; }
            };
            static Counter counter;
            #else
            __attribute__((constructor)) static void construct(void)
            {
                constructed = constructed + 43u;
            }
            #endif

            static void text(const char *characters)
            {
                for (; *characters != '\\0'; characters++) {
                    uart_send(PLATFORM_CONSOLE_BASE, *characters);
                }
            }

            static void hex(uint32_t number)
            {
                for (int shift = 28; shift >= 0; shift -= 4) {
                    uart_send(PLATFORM_CONSOLE_BASE, "0123456789abcdef"[(number >> shift) & 15u]);
                }
            }

            static void show(const char *what, uint32_t number)
            {
                text(what);
                text(" ");
                hex(number);
                text("\\n");
            }

            #define word(address) (*(volatile uint32_t *)(uintptr_t)(address))

            __attribute__((unused)) static void check(const char *what, uintptr_t address)
            {
                uint32_t before = word(address);
                word(address) = 0xFFFFFFFFu;
                text(what);
                text(" ");
                hex(before);
                text(" ");
                hex(word(address));
                text("\\n");
            }

            __attribute__((unused)) static void drained(uintptr_t uart)
            {
                while ((word(uart + 20u) & 0x40u) == 0u) {
                }
            }

            __attribute__((unused)) static uint32_t divisor_latch(uintptr_t uart)
            {
                drained(uart);
                word(uart + 12u) = 0x83u;
                uint32_t divisor = (word(uart) & 0xFFu) | (word(uart + 4u) & 0xFFu) << 8;
                word(uart + 12u) = 0x03u;
                return divisor;
            }

            __attribute__((unused)) static uint32_t read_time(void)
            {
                uint32_t now;
                __asm__ volatile("csrr %0, 0xC01" : "=r"(now));
                return now;
            }

            /* Lets one interrupt come. */
            __attribute__((unused)) static void wait_for(uint32_t line)
            {
                __asm__ volatile("csrs mie, %0" ::"r"(line));
                __asm__ volatile("csrsi mstatus, 8");
                while (trapped == 0u) {
                }
                __asm__ volatile("csrci mstatus, 8");
            }

            void trap_handler(uint32_t cause, uint32_t pc, uint32_t value)
            {
                if ((cause >> 31) == 0u) {
                    show("TRAP", cause);
                    show("at", pc);
                    show("value", value);
                    for (;;) {
                        __asm__ volatile("");
                    }
                }
                trapped = cause;
                __asm__ volatile("csrc mie, %0" ::"r"(1u << (cause & 31u)));
                if (cause == 0x8000000Bu && plic != 0u) {
                    claimed = word(plic + 0x200004u + 0x1000u * context);
                }
            }

            """;
}
