/* Notices when samples leave their usual size. */
#ifndef DRIVER_THRESHOLD_TRIGGER_H
#define DRIVER_THRESHOLD_TRIGGER_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *threshold_trigger_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* Ratios are in sixteenths. */
static inline void threshold_trigger_start(uintptr_t base, uint32_t threshold, uint32_t release, bool interrupt)
{
    *threshold_trigger_register(base, 4u) = threshold;
    *threshold_trigger_register(base, 8u) = release;
    *threshold_trigger_register(base, 16u) = 3u;
    *threshold_trigger_register(base, 0u) = 1u | (interrupt ? 2u : 0u);
}

static inline bool threshold_trigger_is_on(uintptr_t base)
{
    return (*threshold_trigger_register(base, 12u) & 1u) != 0u;
}

/* Events of threshold_trigger_take. */
enum { threshold_trigger_on = 1, threshold_trigger_off = 2 };

/*
 * Which of some events have come since they were last taken.
 * Clears exactly what it returns, so that what comes between the read and the write is kept for the next call.
 */
static inline uint32_t threshold_trigger_take(uintptr_t base, uint32_t events)
{
    uint32_t seen = *threshold_trigger_register(base, 16u) & events;
    if (seen != 0u) {
        *threshold_trigger_register(base, 16u) = seen;
    }
    return seen;
}

/* The channel that switched it on last. */
static inline unsigned threshold_trigger_channel(uintptr_t base)
{
    return (*threshold_trigger_register(base, 12u) >> 8) & 15u;
}

/* The largest ratio of the averages now, in sixteenths. */
static inline uint32_t threshold_trigger_ratio(uintptr_t base)
{
    return *threshold_trigger_register(base, 20u) & 0xFFFFu;
}

#endif
