/* Resets the platform when software stops calling. */
#ifndef DRIVER_WATCHDOG_H
#define DRIVER_WATCHDOG_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *watchdog_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

static inline void watchdog_start(uintptr_t base, uint32_t cycles, bool lock)
{
    *watchdog_register(base, 4u) = cycles;
    *watchdog_register(base, 12u) = 0x5EEDCAFEu;
    *watchdog_register(base, 0u) = 1u | (lock ? 2u : 0u);
}

static inline void watchdog_renew(uintptr_t base)
{
    *watchdog_register(base, 12u) = 0x5EEDCAFEu;
}

/* Cycles that are left. */
static inline uint32_t watchdog_left(uintptr_t base)
{
    return *watchdog_register(base, 8u);
}

/* Whether the platform was started by the watchdog, told once. */
static inline bool watchdog_take_cause(uintptr_t base)
{
    if ((*watchdog_register(base, 16u) & 1u) == 0u) {
        return false;
    }
    *watchdog_register(base, 16u) = 1u;
    return true;
}

#endif
