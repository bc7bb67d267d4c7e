/* Records words of a stream around an event. */
#ifndef DRIVER_SIGNAL_PROBE_H
#define DRIVER_SIGNAL_PROBE_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *signal_probe_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* Waits for the value under the mask, in the lowest 32 bits. */
static inline void signal_probe_arm(uintptr_t base, uint32_t mask, uint32_t value)
{
    *signal_probe_register(base, 8u) = mask;
    *signal_probe_register(base, 12u) = value;
    *signal_probe_register(base, 0u) = 1u;
}

static inline bool signal_probe_is_full(uintptr_t base)
{
    return (*signal_probe_register(base, 4u) & 2u) != 0u;
}

/* Reads the lowest 32 bits of the words of the record, oldest first. */
static inline void signal_probe_read(uintptr_t base, uint32_t *words, unsigned count)
{
    unsigned index;
    *signal_probe_register(base, 20u) = 0u;
    *signal_probe_register(base, 16u) = 0u;
    for (index = 0u; index < count; index++) {
        words[index] = *signal_probe_register(base, 24u);
    }
}

/* Records now, whatever is there. */
static inline void signal_probe_force(uintptr_t base)
{
    *signal_probe_register(base, 0u) = 3u;
}

static inline bool signal_probe_is_triggered(uintptr_t base)
{
    return (*signal_probe_register(base, 4u) & 1u) != 0u;
}

#endif
