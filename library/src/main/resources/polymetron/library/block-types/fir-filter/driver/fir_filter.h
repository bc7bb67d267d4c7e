/* Filters samples with coefficients. */
#ifndef DRIVER_FIR_FILTER_H
#define DRIVER_FIR_FILTER_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *fir_filter_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* The newest sample's coefficient comes first. The filter drops samples meanwhile. */
static inline void fir_filter_load(uintptr_t base, const int32_t *coefficients, unsigned count)
{
    uint32_t control = *fir_filter_register(base, 0u);
    unsigned index;
    *fir_filter_register(base, 0u) = 0u;
    for (index = 0u; index < count; index++) {
        *fir_filter_register(base, 2048u + 4u * index) = (uint32_t)coefficients[index];
    }
    *fir_filter_register(base, 0u) = control | 1u;
}

/* Hands samples on as they are, or filters them again. */
static inline void fir_filter_bypass(uintptr_t base, bool on)
{
    *fir_filter_register(base, 0u) = on ? 3u : 1u;
}

/* Whether a result was too large since the last call. */
static inline bool fir_filter_take_clipped(uintptr_t base)
{
    if ((*fir_filter_register(base, 4u) & 1u) == 0u) {
        return false;
    }
    *fir_filter_register(base, 4u) = 1u;
    return true;
}

#endif
