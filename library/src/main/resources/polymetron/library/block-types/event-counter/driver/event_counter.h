/* Counts the words of a stream. */
#ifndef DRIVER_EVENT_COUNTER_H
#define DRIVER_EVENT_COUNTER_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *event_counter_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

static inline void event_counter_clear(uintptr_t base)
{
    *event_counter_register(base, 0u) |= 2u;
}

static inline uint32_t event_counter_words(uintptr_t base)
{
    return *event_counter_register(base, 4u);
}

static inline uint32_t event_counter_packets(uintptr_t base)
{
    return *event_counter_register(base, 8u);
}

/* Words in the last whole gate time. */
static inline uint32_t event_counter_rate(uintptr_t base)
{
    return *event_counter_register(base, 12u);
}

#endif
