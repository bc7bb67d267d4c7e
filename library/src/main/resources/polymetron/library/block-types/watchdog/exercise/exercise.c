/*
 * Starts three times: after power-up it renews in time, sees the warning and then stops calling; after that reset it gives a
 * wrong key; after the next one it is done.
 */
#include "drivers/watchdog.h"

static __attribute__((section(".noinit"))) uint32_t starts;

static void renewed(void)
{
    watchdog_start(WATCHDOG_BASE, 40000u, false);
    exercise_between("left at the start", watchdog_left(WATCHDOG_BASE), 39800u, 40000u);
    while (watchdog_left(WATCHDOG_BASE) > 30000u) {
    }
    exercise_expect("no warning yet", exercise_is_pending(WATCHDOG_WARNING_PLIC_SOURCE), 0u);
    watchdog_renew(WATCHDOG_BASE);
    exercise_between("left again", watchdog_left(WATCHDOG_BASE), 39800u, 40000u);
    exercise_wait(WATCHDOG_WARNING_PLIC_SOURCE);
    exercise_between("half is gone", watchdog_left(WATCHDOG_BASE), 19500u, 19999u);
    watchdog_renew(WATCHDOG_BASE);
    exercise_done(WATCHDOG_WARNING_PLIC_SOURCE);
    exercise_expect("calm", exercise_is_pending(WATCHDOG_WARNING_PLIC_SOURCE), 0u);
}

static void stopped(void)
{
    *watchdog_register(WATCHDOG_BASE, 0u) = 0u;
    uint32_t left = watchdog_left(WATCHDOG_BASE);
    exercise_expect("stands still", watchdog_left(WATCHDOG_BASE), left);
    *watchdog_register(WATCHDOG_BASE, 0u) = 3u;
    *watchdog_register(WATCHDOG_BASE, 0u) = 0u;
    exercise_expect("is locked", *watchdog_register(WATCHDOG_BASE, 0u), 3u);
}

/* Every bit of the time is counted from: it is taken over while nothing runs. */
static void times(void)
{
    for (uint32_t pattern = 1u; pattern != 0u; pattern <<= 1) {
        for (unsigned inverse = 0; inverse < 2u; inverse++) {
            uint32_t time = inverse != 0u ? ~pattern : pattern;
            *watchdog_register(WATCHDOG_BASE, 4u) = time;
            watchdog_renew(WATCHDOG_BASE);
            exercise_expect("time", watchdog_left(WATCHDOG_BASE), time);
            /* In cycles of both kinds: what changes to and fro is not taken for what stands still. */
            exercise_expect("stands", watchdog_left(WATCHDOG_BASE), time);
            __asm__ volatile("nop");
            exercise_expect("stands still", watchdog_left(WATCHDOG_BASE), time);
        }
    }
    exercise_expect("no cause", watchdog_take_cause(WATCHDOG_BASE), 0u);
    exercise_expect("no warning", exercise_is_pending(WATCHDOG_WARNING_PLIC_SOURCE), 0u);
}

static void exercise(void)
{
    uint32_t cycles = exercise_cycles();
    uint32_t left = watchdog_left(WATCHDOG_BASE);
    watchdog_renew(WATCHDOG_BASE);
    if (!watchdog_take_cause(WATCHDOG_BASE)) {
        starts = 1u;
        exercise_say("power-up\n");
        times();
        renewed();
        stopped();
        exercise_say("no more calls\n");
        exercise_drain();
        for (;;) {
        }
    }
    exercise_expect("told once", watchdog_take_cause(WATCHDOG_BASE), 0u);
    exercise_between("counters begin again", exercise_cycles(), 0u, 10000u);
    starts++;
    /* The processor stands still for sixteen cycles and some more until it is released; reading takes its time, too. */
    exercise_between("length of the reset", 40000u - left - cycles, 20u, 50u);
    exercise_say("reset by the watchdog\n");
    exercise_expect("goes on locked", *watchdog_register(WATCHDOG_BASE, 0u), 3u);
    exercise_expect("registers of others are reset", *uart_register(CONSOLE_BASE, 12u) & 0x80u, 0u);
    if (starts == 2u) {
        exercise_say("a wrong key\n");
        exercise_drain();
        *watchdog_register(WATCHDOG_BASE, 12u) = 0x12345678u;
        for (;;) {
        }
    }
    watchdog_renew(WATCHDOG_BASE);
    *watchdog_register(WATCHDOG_BASE, 4u) = 4000000u;
    watchdog_renew(WATCHDOG_BASE);
    exercise_expect("starts", starts, 3u);
}
