/* Counts down, once or again and again. */
#ifndef DRIVER_GENERAL_TIMER_H
#define DRIVER_GENERAL_TIMER_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *general_timer_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* An end comes after (counts + 1) times (prescale + 1) cycles. */
static inline void general_timer_start(uintptr_t base, uint32_t counts, uint32_t prescale, bool repeat, bool interrupt)
{
    *general_timer_register(base, 0u) = 0u;
    *general_timer_register(base, 12u) = prescale;
    *general_timer_register(base, 4u) = counts;
    *general_timer_register(base, 0u) = 1u | (repeat ? 2u : 0u) | (interrupt ? 4u : 0u);
}

/* Whether it has ended since the last call. */
static inline bool general_timer_take_end(uintptr_t base)
{
    bool ended = (*general_timer_register(base, 16u) & 1u) != 0u;
    *general_timer_register(base, 16u) = 1u;
    return ended;
}

#endif
