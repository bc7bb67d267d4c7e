/* Once, over and over, slower, changed while it runs, stopped, and by its interrupt. */
#include "drivers/general_timer.h"

static uint32_t until_end(void)
{
    uint32_t begin = exercise_cycles();
    while (!general_timer_take_end(TICKER_BASE)) {
    }
    return exercise_cycles() - begin;
}

static void exercise(void)
{
    general_timer_start(TICKER_BASE, 500u, 0u, false, false);
    exercise_hex(until_end());
    exercise_expect("stands at the end", general_timer_count(TICKER_BASE), 0u);
    exercise_expect("has stopped", *general_timer_register(TICKER_BASE, 0u) & 1u, 0u);
    general_timer_start(TICKER_BASE, 300u, 1u, true, false);
    for (unsigned round = 0; round < 4u; round++) {
        exercise_hex(until_end());
    }
    exercise_hex(general_timer_count(TICKER_BASE));
    *general_timer_register(TICKER_BASE, 4u) = 1000u;
    exercise_hex(general_timer_count(TICKER_BASE));
    exercise_hex(until_end());
    general_timer_stop(TICKER_BASE);
    uint32_t count = general_timer_count(TICKER_BASE);
    exercise_expect("stands still", general_timer_count(TICKER_BASE), count);
    general_timer_start(TICKER_BASE, 700u, 3u, false, true);
    uint32_t begin = exercise_cycles();
    exercise_wait(TICKER_IRQ_PLIC_SOURCE);
    exercise_hex(exercise_cycles() - begin);
    exercise_expect("end", general_timer_take_end(TICKER_BASE), 1u);
    exercise_done(TICKER_IRQ_PLIC_SOURCE);
    exercise_expect("told once", general_timer_take_end(TICKER_BASE), 0u);
}
