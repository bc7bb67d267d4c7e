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
    *general_timer_register(base, 16u) = 1u;
    *general_timer_register(base, 12u) = prescale;
    *general_timer_register(base, 4u) = counts;
    *general_timer_register(base, 0u) = 1u | (repeat ? 2u : 0u) | (interrupt ? 4u : 0u);
}

/*
 * Whether it has ended since the last call. Clears the end only when it was there, so that none is lost between the read
 * and the write.
 */
static inline bool general_timer_take_end(uintptr_t base)
{
    if ((*general_timer_register(base, 16u) & 1u) == 0u) {
        return false;
    }
    *general_timer_register(base, 16u) = 1u;
    return true;
}

static inline void general_timer_stop(uintptr_t base)
{
    *general_timer_register(base, 0u) = 0u;
}

/* Counts that are left. */
static inline uint32_t general_timer_count(uintptr_t base)
{
    return *general_timer_register(base, 8u);
}

#endif
