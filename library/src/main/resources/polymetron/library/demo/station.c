/*
 * Firmware of the demo field station: a geophone that needs no burying.
 *
 * On each timer interrupt a decaying ground motion is stepped on in integer arithmetic; its size, times the gain
 * on the switches, is a bar on the lamps. The service button, or "shake" on the console, starts a new event.
 */
#include <stddef.h>
#include <stdint.h>

#include PLATFORM_HEADER
#include "drivers/gpio.h"
#include "drivers/interrupt_controller.h"
#include "drivers/machine_timer.h"
#include "drivers/uart.h"

#define STEPS_PER_SECOND 50u
#define STEP_TICKS (TIMER_TICK_HZ / STEPS_PER_SECOND)
#define IMPULSE 6000
#define LINE_LENGTH 40u
#define TYPED_SIZE 64u /* a power of two */

#define CAUSE_INTERRUPT 0x80000000u
#define CAUSE_TIMER 7u
#define CAUSE_EXTERNAL 11u

void trap_handler(uint32_t cause, uint32_t pc, uint32_t value);
int main(void);

static volatile uint32_t steps;
static volatile int32_t velocity;
static volatile int32_t position;
static volatile int32_t envelope;
static volatile uint32_t events;
static volatile char typed[TYPED_SIZE];
static volatile uint32_t typed_in;
static volatile uint32_t typed_out;
static char line[LINE_LENGTH];
static uint32_t line_length;

static void print(const char *text)
{
    while (*text != '\0') {
        if (*text == '\n') {
            uart_send(CONSOLE_BASE, '\r');
        }
        uart_send(CONSOLE_BASE, *text);
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
        uart_send(CONSOLE_BASE, '-');
    }
    print(&digits[at]);
}

static void print_hex(uint32_t number)
{
    print("0x");
    for (int shift = 28; shift >= 0; shift -= 4) {
        uart_send(CONSOLE_BASE, "0123456789ABCDEF"[(number >> shift) & 15u]);
    }
}

/* The gain is 1 with all switches down, and one more for each step of the binary number on them. */
static uint32_t gain(void)
{
    return 1u + gpio_read(GAIN_BASE);
}

static uint32_t bar(uint32_t size)
{
    uint32_t lamps = 0u;
    uint32_t threshold = 32u;
    while (lamps != 0xFFu && size >= threshold) {
        lamps = (lamps << 1) | 1u;
        threshold *= 2u;
    }
    return lamps;
}

/* A mass on a spring with friction: the spring pulls back by 1/4, friction takes 1/32 of the speed. */
static void step(void)
{
    velocity -= position / 4;
    velocity -= velocity / 32;
    position += velocity;
    int32_t size = position < 0 ? -position : position;
    envelope -= envelope / 16;
    if (size > envelope) {
        envelope = size;
    }
    gpio_write(LAMPS_BASE, bar((uint32_t)envelope / 16u * gain()));
    steps++;
}

static void shake(void)
{
    velocity += IMPULSE;
    events++;
}

static void answer(void);

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
        uart_send(CONSOLE_BASE, character);
    }
}

static void external_interrupt(void)
{
    uint32_t source = interrupt_controller_claim(INTERRUPTS_BASE);
    if (source == CONSOLE_IRQ_PLIC_SOURCE) {
        while (uart_has_received(CONSOLE_BASE)) {
            char character = uart_receive(CONSOLE_BASE);
            if (typed_in - typed_out < TYPED_SIZE) {
                typed[typed_in % TYPED_SIZE] = character;
                typed_in++;
            }
        }
    } else if (source == SERVICE_IRQ_PLIC_SOURCE) {
        if (gpio_take_edges(SERVICE_BASE) != 0u) {
            shake();
        }
    }
    if (source != 0u) {
        interrupt_controller_complete(INTERRUPTS_BASE, source);
    }
}

void trap_handler(uint32_t cause, uint32_t pc, uint32_t value)
{
    static uint64_t next;
    if (cause == (CAUSE_INTERRUPT | CAUSE_TIMER)) {
        next = next == 0u ? machine_timer_now(TIMER_BASE) + STEP_TICKS : next + STEP_TICKS;
        machine_timer_set(TIMER_BASE, next);
        step();
    } else if (cause == (CAUSE_INTERRUPT | CAUSE_EXTERNAL)) {
        external_interrupt();
    } else {
        print("\ntrap ");
        print_number((int32_t)cause);
        print(" at ");
        print_hex(pc);
        print(", value ");
        print_hex(value);
        print("\n");
        for (;;) {
        }
    }
}

static int is(const char *word)
{
    size_t at = 0u;
    while (word[at] != '\0' && word[at] == line[at]) {
        at++;
    }
    return word[at] == line[at];
}

static void status(void)
{
    print("motion ");
    print_number(position);
    print(", size ");
    print_number(envelope);
    print(", gain ");
    print_number((int32_t)gain());
    print(", events ");
    print_number((int32_t)events);
    print(", up ");
    print_number((int32_t)(steps / STEPS_PER_SECOND));
    print(" s\n");
}

static void answer(void)
{
    if (is("help")) {
        print("status   ground motion, gain, events, time\n");
        print("shake    start an event\n");
        print("quiet    stop the ground\n");
        print("id       platform and fingerprint\n");
    } else if (is("status")) {
        status();
    } else if (is("shake")) {
        shake();
        print("shaking\n");
    } else if (is("quiet")) {
        velocity = 0;
        position = 0;
        envelope = 0;
        print("quiet\n");
    } else if (is("id")) {
        print(PLATFORM_NAME " " PLATFORM_FINGERPRINT "\n");
    } else {
        print("? say help\n");
    }
}

int main(void)
{
    uart_set_divisor(CONSOLE_BASE, CONSOLE_DIVISOR);
    print("\n" PLATFORM_NAME "\nplatform " PLATFORM_FINGERPRINT "\nsay help\n> ");

    uart_interrupt_on_receive(CONSOLE_BASE, 1);
    gpio_notice_edges(SERVICE_BASE, 0xFu, 0u);
    interrupt_controller_enable(INTERRUPTS_BASE, CONSOLE_IRQ_PLIC_SOURCE, 2u);
    interrupt_controller_enable(INTERRUPTS_BASE, SERVICE_IRQ_PLIC_SOURCE, 1u);
    interrupt_controller_threshold(INTERRUPTS_BASE, 0u);
    machine_timer_set(TIMER_BASE, machine_timer_now(TIMER_BASE) + STEP_TICKS);
    shake();

    __asm__ volatile("csrw mie, %0" : : "r"((1u << CAUSE_TIMER) | (1u << CAUSE_EXTERNAL)));
    __asm__ volatile("csrsi mstatus, 8");
    for (;;) {
        __asm__ volatile("wfi");
        while (typed_out != typed_in) {
            char character = typed[typed_out % TYPED_SIZE];
            typed_out++;
            take_character(character);
        }
    }
}
