/* What every exercise has: words on the console, what is expected, interrupts, cycles. */
#include "drivers/interrupt_controller.h"
#include "drivers/uart.h"

static unsigned exercise_failures;

static void exercise_say(const char *text)
{
    while (*text) {
        uart_send(PLATFORM_CONSOLE_BASE, *text++);
    }
}

static void exercise_hex(uint32_t number)
{
    for (int shift = 28; shift >= 0; shift -= 4) {
        uart_send(PLATFORM_CONSOLE_BASE, "0123456789abcdef"[number >> shift & 15u]);
    }
    exercise_say("\n");
}

/* Until the last character is out. */
static inline void exercise_drain(void)
{
    while ((*uart_register(PLATFORM_CONSOLE_BASE, 20u) & 0x40u) == 0u) {
    }
}

static inline void exercise_between(const char *what, uint32_t is, uint32_t least, uint32_t most)
{
    if (is < least || is > most) {
        exercise_failures++;
        exercise_say("wrong: ");
        exercise_say(what);
        exercise_say(" ");
        exercise_hex(is);
        exercise_hex(least);
    }
}

static inline void exercise_expect(const char *what, uint32_t is, uint32_t should)
{
    exercise_between(what, is, should, should);
}

static inline uint32_t exercise_cycles(void)
{
    uint32_t cycles;
    __asm__ volatile("csrr %0, mcycle" : "=r"(cycles));
    return cycles;
}

static inline uint32_t exercise_is_pending(uint32_t source)
{
    return *interrupt_controller_word(INTERRUPTS_BASE, 0x1000u + source / 32u * 4u) >> source % 32u & 1u;
}

/* Waits until a source has interrupted, and claims it. */
static inline void exercise_wait(uint32_t source)
{
    interrupt_controller_threshold(INTERRUPTS_BASE, 0u);
    interrupt_controller_enable(INTERRUPTS_BASE, source, 1u);
    __asm__ volatile("csrs mie, %0" : : "r"(0x800u));
    uint32_t pending = 0;
    while (pending == 0u) {
        __asm__ volatile("wfi");
        __asm__ volatile("csrr %0, mip" : "=r"(pending));
        pending &= 0x800u;
    }
    exercise_expect("claim", interrupt_controller_claim(INTERRUPTS_BASE), source);
}

/* Ends it, once what raised it is gone. */
static inline void exercise_done(uint32_t source)
{
    interrupt_controller_complete(INTERRUPTS_BASE, source);
    interrupt_controller_disable(INTERRUPTS_BASE, source);
}

static void exercise(void);

int main(void)
{
    exercise();
    exercise_say(exercise_failures == 0u ? "all well, end.\n" : "failed, end.\n");
    for (;;) {
    }
}
