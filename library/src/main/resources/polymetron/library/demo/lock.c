/*
 * Firmware of the demo canal lock: two pairs of gates, their drives, end switches and encoder, two water gauges and a panel.
 *
 * Hart 1 moves the gates, every millisecond by its own timer interrupt, and touches nothing else. Hart 0 has the console, the
 * panel and the watchdog, which it renews as long as hart 1 goes on. They talk through two structures in memory: what is
 * wanted, and what is, with a number before and behind it so that nothing half written is taken.
 *
 * Gates 0 and 1 lead to the upper water, 2 and 3 to the lower. No gate opens while one of the other pair is not shut, and none of
 * the upper pair while the chamber is lower than the upper water.
 */
#include <stddef.h>
#include <stdint.h>

#include PLATFORM_HEADER
#include "drivers/analog_monitor.h"
#include "drivers/converter_reader.h"
#include "drivers/gpio.h"
#include "drivers/i2c_controller.h"
#include "drivers/interrupt_controller.h"
#include "drivers/machine_timer.h"
#include "drivers/pwm.h"
#include "drivers/ring_writer.h"
#include "drivers/uart.h"
#include "drivers/watchdog.h"

#define GATES 4u
#define STEP_TICKS (COMPLEX_TIMER_TICK_HZ / 1000u)
#define PERIOD 5000u /* 20 kHz */
#define STANDING (PERIOD / 2u)
#define FASTEST 2000u
#define SLOWEST 400u
#define SPEED_STEP 8u /* to full speed in a quarter of a second */
#define LONGEST_MS 20000u
#define LEVEL_MM 100 /* water is level within so much */
#define LINE_LENGTH 40u
#define TYPED_SIZE 64u /* a power of two */
#define SAID_SIZE 1024u /* likewise */
#define TRANSMIT_FIFO 16u
#define SENSOR 0x48u

#define CAUSE_INTERRUPT 0x80000000u
#define CAUSE_TIMER 7u
#define CAUSE_EXTERNAL 11u

enum motion { STAYS, OPENS, SHUTS };
enum fault { NONE, LATE, BLOCKED, NOT_LEVEL };

void trap_handler(uint32_t cause, uint32_t pc, uint32_t value);
void hart_main(unsigned index);
int main(void);

/* From hart 0 to hart 1: a number that changes with each order, and for each gate what is wanted. */
static struct {
    volatile uint32_t number;
    volatile uint32_t motion[GATES];
} orders;

/* From hart 1 to hart 0: odd while it is being written. */
struct state {
    uint32_t milliseconds;
    uint32_t ends;
    int32_t upper_mm;
    int32_t chamber_mm;
    int32_t position[2];
    uint32_t motion[GATES];
    uint32_t speed[GATES];
    uint32_t fault[GATES];
};
static volatile uint32_t state_number;
static struct state published;

static volatile char typed[TYPED_SIZE];
static volatile uint32_t typed_in;
static volatile uint32_t typed_out;
static volatile char said[SAID_SIZE];
static volatile uint32_t said_in;
static volatile uint32_t said_out;
static volatile uint32_t warnings;
static char line[LINE_LENGTH];
static uint32_t line_length;

static void order_memory(void)
{
    __asm__ volatile("fence rw, rw" : : : "memory");
}

/* Word by word; there is no library here that could do it. */
static void copy_state(struct state *to, const struct state *from)
{
    volatile uint32_t *words = (volatile uint32_t *)to;
    const volatile uint32_t *old = (const volatile uint32_t *)from;
    for (size_t at = 0u; at < sizeof *to / sizeof *words; at++) {
        words[at] = old[at];
    }
}

static uint32_t hart(void)
{
    uint32_t number;
    __asm__ volatile("csrr %0, mhartid" : "=r"(number));
    return number;
}

/* --- hart 1: the gates */

static struct state now;
static uint32_t started[GATES];
static volatile uint32_t ticks;

static int is_open(uint32_t gate)
{
    return (now.ends >> (2u * gate) & 1u) != 0u;
}

static int is_shut(uint32_t gate)
{
    return (now.ends >> (2u * gate + 1u) & 1u) != 0u;
}

/* Zero to five metres are zero to 3.3 V. */
static int32_t millimetres(unsigned channel)
{
    return (int32_t)(analog_monitor_steps(GAUGES_BASE, channel) * 5000u / 4095u);
}

static enum fault forbidden(uint32_t gate)
{
    uint32_t others = gate < 2u ? 2u : 0u;
    if (!is_shut(others) || !is_shut(others + 1u)) {
        return BLOCKED;
    }
    int32_t difference = now.upper_mm - now.chamber_mm;
    return gate < 2u && (difference > LEVEL_MM || difference < -LEVEL_MM) ? NOT_LEVEL : NONE;
}

static void stand(uint32_t gate, enum fault fault)
{
    now.motion[gate] = STAYS;
    now.fault[gate] = fault;
    now.speed[gate] = 0u;
}

static void take_orders(void)
{
    static uint32_t taken;
    uint32_t number = orders.number;
    if (number == taken) {
        return;
    }
    taken = number;
    order_memory();
    for (uint32_t gate = 0u; gate < GATES; gate++) {
        uint32_t motion = orders.motion[gate];
        if (motion == now.motion[gate] && now.fault[gate] == NONE) {
            continue;
        }
        enum fault fault = motion == OPENS ? forbidden(gate) : NONE;
        stand(gate, fault);
        if (fault == NONE && motion != STAYS) {
            now.motion[gate] = motion;
            started[gate] = now.milliseconds;
        }
    }
}

static void move(uint32_t gate)
{
    if (now.motion[gate] != STAYS) {
        if (now.motion[gate] == OPENS ? is_open(gate) : is_shut(gate)) {
            stand(gate, NONE);
        } else if (now.milliseconds - started[gate] > LONGEST_MS) {
            stand(gate, LATE);
        } else if (now.speed[gate] < FASTEST) {
            now.speed[gate] += now.speed[gate] == 0u ? SLOWEST : SPEED_STEP;
        }
    }
    uint32_t width = now.motion[gate] == OPENS ? STANDING + now.speed[gate] : STANDING - now.speed[gate];
    pwm_set(GATE_DRIVES_BASE, gate, width);
}

static void control(void)
{
    now.milliseconds++;
    now.ends = gpio_read(END_SWITCHES_BASE);
    now.upper_mm = millimetres(0u);
    now.chamber_mm = millimetres(1u);
    now.position[0] = converter_reader_latest(POSITION_ENCODER_BASE, 0u);
    now.position[1] = converter_reader_latest(POSITION_ENCODER_BASE, 1u);
    take_orders();
    for (uint32_t gate = 0u; gate < GATES; gate++) {
        move(gate);
    }
    state_number++;
    order_memory();
    copy_state(&published, &now);
    order_memory();
    state_number++;
}

void hart_main(unsigned index)
{
    pwm_start(GATE_DRIVES_BASE, PERIOD, 0u);
    for (uint32_t gate = 0u; gate < GATES; gate++) {
        pwm_set(GATE_DRIVES_BASE, gate, STANDING);
    }
    machine_timer_set_for(COMPLEX_TIMER_BASE, index, machine_timer_now(COMPLEX_TIMER_BASE) + STEP_TICKS);
    __asm__ volatile("csrw mie, %0" : : "r"(1u << CAUSE_TIMER));
    __asm__ volatile("csrsi mstatus, 8");
    for (uint32_t done = 0u;; done++) {
        while (done == ticks) {
            __asm__ volatile("wfi");
        }
        control();
    }
}

/* --- hart 0: console, panel, watchdog */

/* Characters wait until the transmitter asks for them: sixteen at a time, so that a hart can sleep meanwhile. */
static void put(char character)
{
    while (said_in - said_out == SAID_SIZE) {
        __asm__ volatile("wfi");
    }
    said[said_in % SAID_SIZE] = character;
    said_in++;
    *uart_register(CONSOLE_BASE, 4u) = CONSOLE_IER_ERBFI_MASK | CONSOLE_IER_ETBEI_MASK;
}

static void transmit(void)
{
    if (!uart_can_send(CONSOLE_BASE)) {
        return;
    }
    for (uint32_t sent = 0u; sent < TRANSMIT_FIFO && said_out != said_in; sent++) {
        *uart_register(CONSOLE_BASE, 0u) = (uint8_t)said[said_out % SAID_SIZE];
        said_out++;
    }
    if (said_out == said_in) {
        *uart_register(CONSOLE_BASE, 4u) = CONSOLE_IER_ERBFI_MASK;
    }
}

static void print(const char *text)
{
    while (*text != '\0') {
        if (*text == '\n') {
            put('\r');
        }
        put(*text);
        text++;
    }
}

static void print_number(int32_t number)
{
    char digits[11];
    size_t at = sizeof digits;
    uint32_t rest = number < 0 ? 0u - (uint32_t)number : (uint32_t)number;
    digits[--at] = '\0';
    do {
        digits[--at] = (char)('0' + rest % 10u);
        rest /= 10u;
    } while (rest != 0u && at > 0u);
    if (number < 0) {
        put('-');
    }
    print(&digits[at]);
}

/* 1234 as "1.234". */
static void print_metres(int32_t millimetres_of_water)
{
    print_number(millimetres_of_water / 1000);
    put('.');
    for (int32_t part = 100; part > 0; part /= 10) {
        put((char)('0' + millimetres_of_water % 1000 / part % 10));
    }
    print(" m");
}

static void read_state(struct state *copy)
{
    uint32_t before;
    do {
        before = state_number;
        order_memory();
        copy_state(copy, &published);
        order_memory();
    } while ((before & 1u) != 0u || before != state_number);
}

static void order(uint32_t gate, enum motion motion)
{
    orders.motion[gate] = motion;
    order_memory();
    orders.number++;
}

static void print_gate(const struct state *state, uint32_t gate)
{
    static const char *const faults[] = {"", ", did not arrive", ", the other pair is not shut", ", the water is not level"};
    print("gate ");
    print_number((int32_t)gate);
    if (state->motion[gate] == OPENS) {
        print(" opens");
    } else if (state->motion[gate] == SHUTS) {
        print(" shuts");
    } else if ((state->ends >> (2u * gate) & 1u) != 0u) {
        print(" is open");
    } else if ((state->ends >> (2u * gate + 1u) & 1u) != 0u) {
        print(" is shut");
    } else {
        print(" stands");
    }
    print(faults[state->fault[gate]]);
    print("\n");
}

static void temperature(void)
{
    static const uint8_t pointer = 0u;
    uint8_t bytes[2];
    if (!i2c_write(THERMOMETER_BASE, SENSOR, &pointer, 1u) || !i2c_read(THERMOMETER_BASE, SENSOR, bytes, 2u)) {
        print("no sensor\n");
        return;
    }
    int32_t tenths = (int16_t)((uint16_t)bytes[0] << 8 | bytes[1]) * 10 / 256;
    print_number(tenths / 10);
    put('.');
    put((char)('0' + (tenths < 0 ? -tenths : tenths) % 10));
    print(tenths < 10 ? " C, ice\n" : " C\n");
}

static int begins(const char *word)
{
    size_t at = 0u;
    while (word[at] != '\0' && word[at] == line[at]) {
        at++;
    }
    return word[at] == '\0';
}

/* The gate that a command ends with; GATES for none. */
static uint32_t named(size_t at)
{
    char digit = line[at];
    return digit >= '0' && digit < (char)('0' + GATES) && line[at + 1u] == '\0' ? (uint32_t)(digit - '0') : GATES;
}

static void command(uint32_t gate, enum motion motion)
{
    if (gate == GATES) {
        print("which gate, 0 to 3?\n");
        return;
    }
    struct state state;
    read_state(&state);
    uint32_t before = state.milliseconds;
    order(gate, motion);
    do {
        __asm__ volatile("wfi");
        read_state(&state);
    } while (state.milliseconds - before < 3u);
    print_gate(&state, gate);
}

static void answer(void)
{
    struct state state;
    read_state(&state);
    if (begins("help")) {
        print("open N    open a gate, 0 and 1 above, 2 and 3 below\n");
        print("shut N    shut it\n");
        print("stop      all gates stand\n");
        print("status    gates, water, positions\n");
        print("temp      temperature\n");
        print("id        platform and fingerprint\n");
    } else if (begins("open ")) {
        command(named(5u), OPENS);
    } else if (begins("shut ")) {
        command(named(5u), SHUTS);
    } else if (begins("stop")) {
        for (uint32_t gate = 0u; gate < GATES; gate++) {
            order(gate, STAYS);
        }
        print("all stand\n");
    } else if (begins("status")) {
        for (uint32_t gate = 0u; gate < GATES; gate++) {
            print_gate(&state, gate);
        }
        print("upper water ");
        print_metres(state.upper_mm);
        print(", chamber ");
        print_metres(state.chamber_mm);
        print("\npositions ");
        print_number(state.position[0]);
        print(" ");
        print_number(state.position[1]);
        print(", ");
        print_number((int32_t)ring_writer_written(POSITION_RECORDER_BASE));
        print(" bytes recorded, up ");
        print_number((int32_t)(state.milliseconds / 1000u));
        print(" s\n");
    } else if (begins("temp")) {
        temperature();
    } else if (begins("id")) {
        print(PLATFORM_NAME " " PLATFORM_FINGERPRINT "\n");
    } else {
        print("? say help\n");
    }
}

static void take_character(char character)
{
    if (character == '\r' || character == '\n') {
        print("\n");
        line[line_length] = '\0';
        if (line_length > 0u) {
            answer();
        }
        line_length = 0u;
        print("> ");
    } else if ((character == '\b' || character == 0x7F) && line_length > 0u) {
        line_length--;
        print("\b \b");
    } else if (character >= ' ' && character < 0x7F && line_length < LINE_LENGTH - 1u) {
        line[line_length++] = character;
        put(character);
    }
}

/* A switch that goes up opens its gate, one that goes down shuts it; lamps show the ends, and blink where a gate moves. */
static void panel(const struct state *state)
{
    static uint32_t before;
    static uint32_t known;
    uint32_t switches = gpio_read(PANEL_SWITCHES_BASE) & 0xFu;
    uint32_t changed = known != 0u ? switches ^ before : 0u;
    before = switches;
    known = 1u;
    uint32_t lamps = state->ends;
    for (uint32_t gate = 0u; gate < GATES; gate++) {
        if ((changed >> gate & 1u) != 0u) {
            order(gate, (switches >> gate & 1u) != 0u ? OPENS : SHUTS);
        }
        if (state->motion[gate] != STAYS && (state->milliseconds / 256u & 1u) != 0u) {
            lamps |= (state->motion[gate] == OPENS ? 1u : 2u) << (2u * gate);
        }
    }
    gpio_write(PANEL_LAMPS_BASE, lamps);
}

static void report(const struct state *state)
{
    static uint32_t motion[GATES];
    static uint32_t fault[GATES];
    for (uint32_t gate = 0u; gate < GATES; gate++) {
        int arrived = motion[gate] != STAYS && state->motion[gate] == STAYS;
        if (arrived || (state->fault[gate] != fault[gate] && state->fault[gate] != NONE)) {
            print("\n");
            print_gate(state, gate);
        }
        motion[gate] = state->motion[gate];
        fault[gate] = state->fault[gate];
    }
}

static void external_interrupt(void)
{
    uint32_t source = interrupt_controller_claim(COMPLEX_CONTROLLER_BASE);
    if (source == CONSOLE_IRQ_PLIC_SOURCE) {
        while (uart_has_received(CONSOLE_BASE)) {
            char character = uart_receive(CONSOLE_BASE);
            if (typed_in - typed_out < TYPED_SIZE) {
                typed[typed_in % TYPED_SIZE] = character;
                typed_in++;
            }
        }
        transmit();
    } else if (source == WATCHDOG_WARNING_PLIC_SOURCE) {
        /* It stays up until the watchdog is renewed. */
        warnings++;
        interrupt_controller_disable(COMPLEX_CONTROLLER_BASE, WATCHDOG_WARNING_PLIC_SOURCE);
    }
    if (source != 0u) {
        interrupt_controller_complete(COMPLEX_CONTROLLER_BASE, source);
    }
}

void trap_handler(uint32_t cause, uint32_t pc, uint32_t value)
{
    static uint64_t next[PLATFORM_HARTS];
    uint32_t index = hart();
    if (cause == (CAUSE_INTERRUPT | CAUSE_TIMER)) {
        uint64_t from = next[index] == 0u ? machine_timer_now(COMPLEX_TIMER_BASE) : next[index];
        next[index] = from + STEP_TICKS;
        machine_timer_set_for(COMPLEX_TIMER_BASE, index, next[index]);
        if (index == 1u) {
            ticks++;
        }
    } else if (cause == (CAUSE_INTERRUPT | CAUSE_EXTERNAL)) {
        external_interrupt();
    } else {
        print("\ntrap ");
        print_number((int32_t)cause);
        print(" of hart ");
        print_number((int32_t)index);
        print(" at ");
        print_number((int32_t)pc);
        print(", value ");
        print_number((int32_t)value);
        print("\n");
        for (;;) {
            transmit();
        }
    }
}

int main(void)
{
    uart_set_divisor(CONSOLE_BASE, CONSOLE_DIVISOR);
    print("\n" PLATFORM_NAME "\nplatform " PLATFORM_FINGERPRINT "\n");
    i2c_begin(THERMOMETER_BASE, THERMOMETER_LOW_CYCLES, THERMOMETER_HIGH_CYCLES);
    *analog_monitor_register(GAUGES_BASE, 0u) = GAUGES_CONTROL_ENABLE_MASK;
    if (!ring_writer_start(POSITION_RECORDER_BASE, POSITION_RECORDER_BUFFER_ADDRESS, POSITION_RECORDER_BUFFER_SIZE,
            POSITION_RECORDER_BUFFER_SIZE / 2u)) {
        print("positions are not recorded\n");
    }
    converter_reader_start(POSITION_ENCODER_BASE, POSITION_ENCODER_PERIOD_CYCLES);
    interrupt_controller_enable(COMPLEX_CONTROLLER_BASE, CONSOLE_IRQ_PLIC_SOURCE, 1u);
    interrupt_controller_enable(COMPLEX_CONTROLLER_BASE, WATCHDOG_WARNING_PLIC_SOURCE, 2u);
    interrupt_controller_threshold(COMPLEX_CONTROLLER_BASE, 0u);
    machine_timer_set_for(COMPLEX_TIMER_BASE, 0u, machine_timer_now(COMPLEX_TIMER_BASE) + STEP_TICKS);
    watchdog_start(WATCHDOG_BASE, WATCHDOG_TIME_CYCLES, false);
    __asm__ volatile("csrw mie, %0" : : "r"((1u << CAUSE_TIMER) | (1u << CAUSE_EXTERNAL)));
    __asm__ volatile("csrsi mstatus, 8");
    print("say help\n> ");
    uint32_t last = 0u;
    uint32_t warned = 0u;
    for (;;) {
        __asm__ volatile("wfi");
        while (typed_out != typed_in) {
            char character = typed[typed_out % TYPED_SIZE];
            typed_out++;
            take_character(character);
        }
        struct state state;
        read_state(&state);
        if (state.milliseconds != last) {
            last = state.milliseconds;
            watchdog_renew(WATCHDOG_BASE);
            panel(&state);
            report(&state);
        }
        if (warnings != warned) {
            warned = warnings;
            print("\nthe gates are not controlled\n");
        }
    }
}
