/* Measures voltages, in steps of 1/4096 of the full scale. */
#ifndef DRIVER_ANALOG_MONITOR_H
#define DRIVER_ANALOG_MONITOR_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *analog_monitor_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

static inline uint32_t analog_monitor_steps(uintptr_t base, unsigned channel)
{
    return *analog_monitor_register(base, 64u + 4u * channel);
}

/* Millivolts, for a full scale in millivolts. */
static inline uint32_t analog_monitor_millivolts(uintptr_t base, unsigned channel, uint32_t full_scale)
{
    return analog_monitor_steps(base, channel) * full_scale / 4096u;
}

/* Flag 0 in bit 0: which thresholds the first channel is above. */
static inline uint32_t analog_monitor_flags(uintptr_t base)
{
    return *analog_monitor_register(base, 4u);
}

static inline void analog_monitor_set_threshold(uintptr_t base, unsigned flag, uint32_t steps)
{
    *analog_monitor_register(base, 16u + 4u * flag) = steps;
}

/*
 * Which of some flags have changed since they were last taken; flag 0 in bit 0.
 * Clears exactly what it returns, so that what comes between the read and the write is kept for the next call.
 */
static inline uint32_t analog_monitor_take_changed(uintptr_t base, uint32_t events)
{
    uint32_t seen = *analog_monitor_register(base, 8u) & events;
    if (seen != 0u) {
        *analog_monitor_register(base, 8u) = seen;
    }
    return seen;
}

/* Measures, and raises the interrupt when a flag changes. */
static inline void analog_monitor_interrupt(uintptr_t base, bool on)
{
    *analog_monitor_register(base, 0u) = 1u | (on ? 2u : 0u);
}

static inline void analog_monitor_set_hysteresis(uintptr_t base, uint32_t steps)
{
    *analog_monitor_register(base, 12u) = steps;
}

#endif
