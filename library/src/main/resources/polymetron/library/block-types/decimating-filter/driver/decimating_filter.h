/* Averages samples and lowers their rate. */
#ifndef DRIVER_DECIMATING_FILTER_H
#define DRIVER_DECIMATING_FILTER_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *decimating_filter_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

static inline void decimating_filter_enable(uintptr_t base, bool on)
{
    *decimating_filter_register(base, 0u) = on ? 1u : 0u;
}

static inline void decimating_filter_set_rate(uintptr_t base, uint32_t samples)
{
    *decimating_filter_register(base, 4u) = samples;
}

#endif
