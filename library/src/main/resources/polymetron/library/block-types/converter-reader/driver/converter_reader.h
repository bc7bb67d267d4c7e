/* Reads a serial converter at a steady rate. */
#ifndef DRIVER_CONVERTER_READER_H
#define DRIVER_CONVERTER_READER_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *converter_reader_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

static inline void converter_reader_start(uintptr_t base, uint32_t period)
{
    *converter_reader_register(base, 4u) = period;
    *converter_reader_register(base, 0u) = 1u;
}

static inline void converter_reader_stop(uintptr_t base)
{
    *converter_reader_register(base, 0u) = 0u;
}

static inline int32_t converter_reader_latest(uintptr_t base, unsigned channel)
{
    return (int32_t)*converter_reader_register(base, 16u + 4u * channel);
}

/* Whether a sample was lost since the last call. */
static inline bool converter_reader_take_lost(uintptr_t base)
{
    if ((*converter_reader_register(base, 8u) & 1u) == 0u) {
        return false;
    }
    *converter_reader_register(base, 8u) = 1u;
    return true;
}

#endif
