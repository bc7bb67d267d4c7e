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

#endif
