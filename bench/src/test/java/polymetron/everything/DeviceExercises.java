package polymetron.everything;

import java.util.Set;
import java.util.function.Consumer;
import polymetron.everything.DocumentFacts.Target;
import tools.jackson.databind.JsonNode;

/**
 * What a program does with each of our own blocks: every function of its driver, and what the registers hold afterwards. The
 * values are those that the driver's documentation and the definition's field widths lead to.
 */
final class DeviceExercises {
    /** Adds a line of the program. */
    interface Code {
        void line(String format, Object... values);
    }

    /** Adds a line that the program says. */
    interface Show {
        void show(String what, String expression, long value);
    }

    private static final Set<String> MODELLED =
            Set.of(
                    "gpio",
                    "general-timer",
                    "platform-identity",
                    "spi-controller",
                    "i2c-controller",
                    "watchdog",
                    "flash-controller",
                    "dma",
                    "ring-writer",
                    "pps-timestamp",
                    "threshold-trigger",
                    "analog-monitor",
                    "converter-reader",
                    "signal-probe");

    /** Interrupts that nothing a program does can raise by itself: they need a stream, a voltage, or a second. */
    private static final Set<String> FROM_OUTSIDE =
            Set.of(
                    "ring-writer.mark",
                    "pps-timestamp.second",
                    "threshold-trigger.irq",
                    "analog-monitor.irq",
                    "signal-probe.recorded");

    static boolean isFromOutside(Target device, String source) {
        String type = device.type().path("identity").asString().split(":")[2];
        return FROM_OUTSIDE.contains(type + "." + source);
    }

    private final DocumentFacts facts;
    private final Target target;
    private final Code code;
    private final Show show;
    private final Consumer<String> ask;
    private final String at;
    private final String type;

    DeviceExercises(
            DocumentFacts facts, Target target, Code code, Show show, Consumer<String> ask) {
        this.facts = facts;
        this.target = target;
        this.code = code;
        this.show = show;
        this.ask = ask;
        this.at = target.macro();
        this.type = target.type().path("identity").asString().split(":")[2];
    }

    /** Whether the block does more on the bench than keep its registers. */
    boolean isModelled() {
        return MODELLED.contains(type);
    }

    void run() {
        switch (type) {
            case "gpio" -> gpio();
            case "general-timer" -> generalTimer();
            case "platform-identity" ->
                    show.show("identity", call("platform_identity_is", "PLATFORM_FINGERPRINT"), 1);
            case "spi-controller" -> spi();
            case "i2c-controller" -> i2c();
            case "pwm" -> pwm();
            case "watchdog" -> watchdog();
            case "dma" -> dma();
            case "ring-writer" -> ringWriter();
            case "pps-timestamp" -> ppsTimestamp();
            case "threshold-trigger" -> thresholdTrigger();
            case "analog-monitor" -> analogMonitor();
            case "event-counter" -> eventCounter();
            case "decimating-filter" -> decimatingFilter();
            case "fir-filter" -> firFilter();
            case "converter-reader" -> converterReader();
            case "flash-controller" -> flashController();
            case "signal-probe" -> signalProbe();
            default -> throw new IllegalStateException("nothing uses " + type);
        }
    }

    // --- pieces --------------------------------------------------------------------------------

    private String call(String function, Object... arguments) {
        StringBuilder text = new StringBuilder(function + "(" + at + "_BASE");
        for (Object argument : arguments) {
            text.append(", ").append(argument);
        }
        return text.append(")").toString();
    }

    private void does(String function, Object... arguments) {
        code.line("%s;", call(function, arguments));
    }

    private JsonNode register(String name) {
        return DocumentFacts.byName(target.type().path("registers")).get(name);
    }

    private String word(String register) {
        return "word(%s_BASE + %s_%s_OFFSET)".formatted(at, at, register);
    }

    /** What a register holds once a value was written to it. */
    private void holds(String register, long written) {
        show.show(register, word(register), Kept.after(facts, target, register(register), written));
    }

    private long parameter(String name) {
        return facts.constants.number(target.name(), name);
    }

    private String choice(String name) {
        return facts.constants.text(target.name(), name);
    }

    /** Something happens in hardware: bits of a register are set. */
    private void happens(String register, long bits) {
        long offset = facts.number(target.block(), register(register).path("offset"), 0);
        ask.accept("set %s %x %x".formatted(target.label(), offset, bits));
    }

    /** A function that takes events gives exactly those that came, once. */
    private void taken(String function, String register, long bits) {
        happens(register, bits);
        code.line("while ((%s & %su) == 0u) {\n    }", word(register), bits);
        show.show("taken", call(function, bits + "u"), bits);
        show.show("taken again", call(function, bits + "u"), 0);
    }

    /** The same for a function of one event. */
    private void takenOnce(String function, String register, long bits) {
        happens(register, bits);
        code.line("while ((%s & %su) == 0u) {\n    }", word(register), bits);
        show.show("taken", call(function), 1);
        show.show("taken again", call(function), 0);
    }

    // --- blocks that do something on the bench -------------------------------------------------

    private void gpio() {
        long lines = parameter("WIDTH") >= 32 ? 0xFFFF_FFFFL : (1L << parameter("WIDTH")) - 1;
        String direction = choice("DIRECTION");
        long outside = GPIO_OUTSIDE & lines;
        boolean in = !direction.equals("out");
        if (in) {
            show.show("input", call("gpio_read"), outside);
        }
        if (!direction.equals("in")) {
            show.show("output", word("OUTPUT"), parameter("OUTPUT_RESET") & lines);
            does("gpio_write", "0xA5A5A5A5u");
            show.show("output", word("OUTPUT"), 0xA5A5_A5A5L & lines);
        }
        if (direction.equals("both")) {
            does("gpio_drive", "0x0F0F0F0Fu");
            show.show("drive", word("DRIVE"), 0x0F0F_0F0FL & lines);
            show.show(
                    "input",
                    call("gpio_read"),
                    outside & ~0x0F0F_0F0FL | 0xA5A5_A5A5L & 0x0F0F_0F0FL & lines);
        }
        if (in && parameter("EDGE_INTERRUPT") != 0) {
            does("gpio_notice_edges", "0xFFFFFFFFu", "0u");
            show.show("rise", word("RISE"), lines);
            show.show("fall", word("FALL"), 0);
            show.show("no edges", call("gpio_take_edges"), 0);
        }
        code.line("if (never) {");
        code.line("    (void)gpio_read(%s_BASE);", at);
        code.line("    gpio_write(%s_BASE, 0u);", at);
        code.line("    gpio_drive(%s_BASE, 0u);", at);
        code.line("    gpio_notice_edges(%s_BASE, 0u, 0u);", at);
        code.line("    (void)gpio_take_edges(%s_BASE);", at);
        code.line("}");
    }

    /** Levels that the board puts on every input. */
    static final long GPIO_OUTSIDE = 0x3C96_5AE1L;

    private void generalTimer() {
        long widest = (1L << parameter("WIDTH")) - 1;
        show.show("prescale", word("PRESCALE"), parameter("PRESCALE"));
        code.line("%s = 0xFFFFFFFFu;", word("LOAD"));
        show.show("load", word("LOAD"), widest);
        does("general_timer_start", "20u", "1u", "false", "false");
        code.line("while (!%s) {\n    }", call("general_timer_take_end"));
        show.show("stopped", word("CONTROL"), 0);
        show.show("count", call("general_timer_count"), 0);
        show.show("no end", call("general_timer_take_end"), 0);
        does("general_timer_stop");
    }

    /** A word while nothing is selected: it has come, and all are sent. */
    private void spi() {
        does("spi_begin", "2u", "10u");
        holds("CONTROL", 3);
        holds("DIVIDER", 10);
        does("spi_select", "0u");
        show.show("exchange", call("spi_exchange", "0x5Au"), 0);
        show.show("taken", call("spi_take", "7u"), 3);
        show.show("taken again", call("spi_take", "7u"), 0);
        does("spi_select", "1u");
        holds("SELECT", 1);
        does("spi_interrupt", "spi_arrived | spi_lost");
        holds("ENABLED", 5);
        does("spi_interrupt", "0u");
    }

    private void watchdog() {
        does("watchdog_start", "0x40000000u", "false");
        holds("TIME", 0x4000_0000);
        holds("CONTROL", 1);
        does("watchdog_renew");
        show.show("most is left", call("watchdog_left") + " > 0x3FFF0000u", 1);
        show.show("cause", call("watchdog_take_cause"), 0);
        code.line("word(%s_BASE + %s_CONTROL_OFFSET) = 0u;", at, at);
        holds("CONTROL", 0);
    }

    /** No device has the address 0x22. */
    private void i2c() {
        does("i2c_begin", "12u", "10u");
        holds("LOW", 12);
        holds("HIGH", 10);
        code.line("static const uint8_t bytes%s[2] = {0x12u, 0x34u};", at);
        show.show("write", call("i2c_write", "0x22u", "bytes" + at, "2u"), 0);
        holds("DATA", 0x44);
        code.line("uint8_t read%s[2];", at);
        show.show("read", call("i2c_read", "0x22u", "read" + at, "2u"), 0);
        holds("DATA", 0x45);
        does("i2c_interrupt", "true");
        holds("ENABLED", 1);
        does("i2c_interrupt", "false");
        show.show("taken", call("i2c_take_done"), 1);
        show.show("taken again", call("i2c_take_done"), 0);
    }

    // --- blocks whose registers the bench keeps ------------------------------------------------

    private void pwm() {
        long last = parameter("CHANNELS") - 1;
        does("pwm_start", "100u", "3u");
        holds("PERIOD", 99);
        holds("PRESCALE", 3);
        does("pwm_set", last + "u", "0xFFFFFFFFu");
        String row = parameter("CHANNELS") > 1 ? "(%su)".formatted(last) : "";
        show.show(
                "duty",
                "word(%s_BASE + %s_DUTY_OFFSET%s)".formatted(at, at, row),
                (1L << parameter("WIDTH")) - 1);
        does("pwm_stop");
        holds("CONTROL", 0);
    }

    /** Transfers of no bytes: they are done at once, and need no memory. */
    private void dma() {
        String channels = choice("CHANNELS");
        if (!channels.equals("receive")) {
            show.show("send", call("dma_send", "0x1000u", "0u", "false"), 1);
            holds("SEND_ADDRESS", 0x1000);
            code.line("while (!%s) {\n    }", call("dma_is_sent"));
            show.show("length", word("SEND_LENGTH"), 0);
            show.show("failed", call("dma_send_has_failed"), 0);
            show.show("taken", call("dma_take_sent"), 1);
            show.show("taken again", call("dma_take_sent"), 0);
        }
        if (!channels.equals("send")) {
            show.show("receive", call("dma_receive", "0x2000u", "0u", "false"), 1);
            holds("RECEIVE_ADDRESS", 0x2000);
            code.line("while (!%s) {\n    }", call("dma_is_received"));
            show.show("failed", call("dma_receive_has_failed"), 0);
            show.show("taken", call("dma_take_received"), 1);
            show.show("taken again", call("dma_take_received"), 0);
            show.show("bytes", call("dma_received_bytes"), 0);
        }
        code.line("if (never) {");
        for (String function :
                new String[] {
                    "dma_send",
                    "dma_receive",
                    "dma_is_sent",
                    "dma_is_received",
                    "dma_take_sent",
                    "dma_take_received",
                    "dma_received_bytes",
                    "dma_send_has_failed",
                    "dma_receive_has_failed"
                }) {
            String arguments = function.matches("dma_(send|receive)") ? ", 0u, 0u, false" : "";
            code.line("    (void)%s(%s_BASE%s);", function, at, arguments);
        }
        code.line("}");
    }

    private void ringWriter() {
        show.show("start", call("ring_writer_start", "0x8000u", "4096u", "512u"), 1);
        holds("BASE", 0x8000);
        holds("SIZE", 4096);
        holds("MARK", 512);
        holds("CONTROL", 5);
        does("ring_writer_stop");
        holds("CONTROL", 0);
        show.show("nothing came", call("ring_writer_take", "15u"), 0);
        show.show("written", call("ring_writer_written"), 0);
        show.show("rounds", call("ring_writer_rounds"), 0);
    }

    /** How many seconds pass meanwhile follows from their length. */
    private void ppsTimestamp() {
        does("pps_timestamp_set", "777u");
        code.line("uint32_t cycles%s = 0xFFFFFFFFu;", at);
        show.show("seconds", call("pps_timestamp_now", "&cycles" + at) + " >= 777u", 1);
        show.show("cycles", "cycles%s < %su".formatted(at, parameter("NOMINAL")), 1);
        show.show("length", call("pps_timestamp_length"), parameter("NOMINAL"));
        does("pps_timestamp_interrupt", "true");
        holds("CONTROL", 3);
        does("pps_timestamp_interrupt", "false");
        show.show("no strays", call("pps_timestamp_take", "6u"), 0);
    }

    private void thresholdTrigger() {
        does("threshold_trigger_start", "80u", "20u", "true");
        holds("THRESHOLD", 80);
        holds("RELEASE", 20);
        holds("CONTROL", 3);
        show.show("on", call("threshold_trigger_is_on"), 0);
        show.show("channel", call("threshold_trigger_channel"), 0);
        show.show("ratio", call("threshold_trigger_ratio"), 0);
        show.show("no event", call("threshold_trigger_take", "3u"), 0);
    }

    private void analogMonitor() {
        show.show("steps", call("analog_monitor_steps", "0u"), 0);
        show.show("millivolts", call("analog_monitor_millivolts", "0u", "3300u"), 0);
        show.show("flags", call("analog_monitor_flags"), 0);
        does("analog_monitor_set_threshold", "1u", "1000u");
        holds("THRESHOLD1", 1000);
        does("analog_monitor_set_hysteresis", "10u");
        holds("HYSTERESIS", 10);
        does("analog_monitor_interrupt", "true");
        holds("CONTROL", 3);
        show.show("no change", call("analog_monitor_take_changed", "15u"), 0);
    }

    private void eventCounter() {
        show.show("words", call("event_counter_words"), 0);
        show.show("packets", call("event_counter_packets"), 0);
        show.show("rate", call("event_counter_rate"), 0);
        does("event_counter_clear");
    }

    private void decimatingFilter() {
        does("decimating_filter_enable", "true");
        holds("CONTROL", 1);
        does("decimating_filter_set_rate", "16u");
        holds("RATE", 16);
    }

    private void firFilter() {
        code.line("static const int32_t coefficients%s[2] = {-3, 5};", at);
        does("fir_filter_load", "coefficients" + at, "2u");
        show.show(
                "coefficient",
                "word(%s_BASE + %s_COEFFICIENT_OFFSET(0u))".formatted(at, at),
                -3 & (1L << parameter("COEFFICIENT")) - 1);
        does("fir_filter_bypass", "true");
        holds("CONTROL", 3);
        show.show("not clipped", call("fir_filter_take_clipped"), 0);
    }

    private void converterReader() {
        does("converter_reader_start", "30000u");
        does("converter_reader_stop");
        holds("PERIOD", 30_000);
        holds("CONTROL", 0);
        show.show("not lost", call("converter_reader_take_lost"), 0);
        code.line("(void)%s;", call("converter_reader_latest", "0u"));
    }

    private void flashController() {
        does("flash_controller_take");
        holds("CONTROL", 1);
        does("flash_controller_select", "true");
        holds("CONTROL", 3);
        show.show("exchange", call("flash_controller_exchange", "0x9Fu"), 0);
        code.line("while (!%s) {\n    }", call("flash_controller_take_done"));
        show.show("taken again", call("flash_controller_take_done"), 0);
        does("flash_controller_give_back");
        holds("CONTROL", 0);
        code.line("(void)%s;", call("flash_controller_identity"));
        code.line("if (never) {");
        for (String function :
                new String[] {
                    "erase(%s_BASE, 0u)",
                    "write(%s_BASE, 0u, (const uint8_t *)0, 0u)",
                    "command(%s_BASE, 0u)",
                    "address(%s_BASE, 0u, 0u, 0u)",
                    "is_busy(%s_BASE)",
                    "interrupt(%s_BASE, false)"
                }) {
            code.line("    (void)flash_controller_" + function + ";", at);
        }
        code.line("}");
    }

    private void signalProbe() {
        does("signal_probe_arm", "0xFFFFFFFFu", "0x12345678u");
        holds("MASK", 0xFFFF_FFFFL);
        holds("VALUE", 0x1234_5678L);
        show.show("full", call("signal_probe_is_full"), 0);
        show.show("triggered", call("signal_probe_is_triggered"), 0);
        code.line("uint32_t words%s[2];", at);
        does("signal_probe_read", "words" + at, "2u");
        show.show("words", "words%s[0] | words%s[1]".formatted(at, at), 0);
        does("signal_probe_force");
        holds("CONTROL", 3);
        code.line("%s = 0u;", word("CONTROL"));
    }
}
