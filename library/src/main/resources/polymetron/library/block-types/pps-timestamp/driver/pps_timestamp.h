/* Keeps time in step with a pulse each second. */
#ifndef DRIVER_PPS_TIMESTAMP_H
#define DRIVER_PPS_TIMESTAMP_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *pps_timestamp_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/*
 * Seconds now, and cycles since that second began. Reading the seconds holds the cycles: an interrupt handler that does
 * so in between changes them, so do it with that interrupt off.
 */
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

/* Events of pps_timestamp_take. */
enum { pps_timestamp_pulse = 1, pps_timestamp_missed = 2, pps_timestamp_stray = 4 };

/*
 * Which of some events have come since they were last taken.
 * Clears exactly what it returns, so that what comes between the read and the write is kept for the next call.
 */
static inline uint32_t pps_timestamp_take(uintptr_t base, uint32_t events)
{
    uint32_t seen = *pps_timestamp_register(base, 4u) & events;
    if (seen != 0u) {
        *pps_timestamp_register(base, 4u) = seen;
    }
    return seen;
}

static inline void pps_timestamp_interrupt(uintptr_t base, bool on)
{
    *pps_timestamp_register(base, 0u) = 1u | (on ? 2u : 0u);
}

#endif
