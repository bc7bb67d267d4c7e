/* The time goes on, can be set, reaches the comparison, and interrupts; so does software. */
#include "drivers/machine_timer.h"

static uint32_t pending(uint32_t mask)
{
    uint32_t lines;
    __asm__ volatile("csrr %0, mip" : "=r"(lines));
    return lines & mask;
}

static void set(uint32_t offset, uint64_t time)
{
    *machine_timer_word(TIMER_BASE, offset + 4u) = (uint32_t)(time >> 32);
    *machine_timer_word(TIMER_BASE, offset) = (uint32_t)time;
}

/* Every bit of the time and of the comparison decides, whatever is below it. */
static void every_bit(void)
{
    for (unsigned bit = 8; bit < 64; bit++) {
        uint64_t time = 1ull << bit;
        set(0x4000u, time);
        set(0xBFF8u, time - 200u);
        exercise_expect("below", pending(0x80u), 0u);
        set(0xBFF8u, time);
        exercise_expect("reached", pending(0x80u), 0x80u);
        set(0x4000u, time | time >> 1);
        exercise_expect("put off by half", pending(0x80u), 0u);
        set(0xBFF8u, time | time >> 1 | time >> 2);
        exercise_expect("beyond", pending(0x80u), 0x80u);
        set(0xBFF8u, time - 1u - (time >> 3));
        exercise_expect("ones below", pending(0x80u), 0u);
    }
    set(0x4000u, ~0ull);
}

static void exercise(void)
{
    uint64_t first = machine_timer_now(TIMER_BASE);
    uint32_t begin = exercise_cycles();
    while (exercise_cycles() - begin < 2000u) {
    }
    exercise_hex((uint32_t)(machine_timer_now(TIMER_BASE) - first));
    machine_timer_set(TIMER_BASE, ~0ull);
    exercise_expect("not due", pending(0x80u), 0u);
    machine_timer_set(TIMER_BASE, machine_timer_now(TIMER_BASE) + 30u);
    exercise_expect("not yet", pending(0x80u), 0u);
    __asm__ volatile("csrs mie, %0" : : "r"(0x80u));
    begin = exercise_cycles();
    while (pending(0x80u) == 0u) {
        __asm__ volatile("wfi");
    }
    exercise_hex(exercise_cycles() - begin);
    machine_timer_set(TIMER_BASE, ~0ull);
    exercise_expect("put off", pending(0x80u), 0u);
    machine_timer_software_interrupt(TIMER_BASE, 1);
    exercise_expect("by software", pending(8u), 8u);
    machine_timer_software_interrupt(TIMER_BASE, 0);
    exercise_expect("no more", pending(8u), 0u);
    every_bit();
    *machine_timer_word(TIMER_BASE, 0xBFF8u) = 0xFFFFFFF0u;
    *machine_timer_word(TIMER_BASE, 0xBFFCu) = 5u;
    while ((machine_timer_now(TIMER_BASE) >> 32) == 5u) {
    }
    exercise_expect("carries", (uint32_t)(machine_timer_now(TIMER_BASE) >> 32), 6u);
    exercise_hex((uint32_t)machine_timer_now(TIMER_BASE));
}
