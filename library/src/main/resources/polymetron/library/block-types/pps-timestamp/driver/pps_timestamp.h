/* Keeps time in step with a pulse each second. */
#ifndef DRIVER_PPS_TIMESTAMP_H
#define DRIVER_PPS_TIMESTAMP_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *pps_timestamp_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* Seconds now, and cycles since that second began. */
static inline uint32_t pps_timestamp_now(uintptr_t base, uint32_t *cycles)
{
    uint32_t seconds = *pps_timestamp_register(base, 8u);
    *cycles = *pps_timestamp_register(base, 12u);
    return seconds;
}

static inline void pps_timestamp_set(uintptr_t base, uint32_t seconds)
{
    *pps_timestamp_register(base, 8u) = seconds;
}

/* Cycles of the last second: the clock's frequency as the receiver sees it. */
static inline uint32_t pps_timestamp_length(uintptr_t base)
{
    return *pps_timestamp_register(base, 16u);
}

static inline bool pps_timestamp_take_missed(uintptr_t base)
{
    bool missed = (*pps_timestamp_register(base, 4u) & 2u) != 0u;
    *pps_timestamp_register(base, 4u) = 2u;
    return missed;
}

#endif
