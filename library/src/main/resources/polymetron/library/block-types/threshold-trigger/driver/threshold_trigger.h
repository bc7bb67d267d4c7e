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

/* Whether it went on since the last call. */
static inline bool threshold_trigger_take_on(uintptr_t base)
{
    bool on = (*threshold_trigger_register(base, 16u) & 1u) != 0u;
    *threshold_trigger_register(base, 16u) = 1u;
    return on;
}

#endif
