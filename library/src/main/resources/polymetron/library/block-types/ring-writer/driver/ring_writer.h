/* Writes a stream round and round into a buffer. */
#ifndef DRIVER_RING_WRITER_H
#define DRIVER_RING_WRITER_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *ring_writer_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* The size is a multiple of 64 bytes; mark is how many bytes lie between two interrupts, 0 for none. */
static inline void ring_writer_start(uintptr_t base, uintptr_t buffer, uint32_t size, uint32_t mark)
{
    *ring_writer_register(base, 0u) = 0u;
    *ring_writer_register(base, 8u) = (uint32_t)buffer;
    *ring_writer_register(base, 16u) = size;
    *ring_writer_register(base, 32u) = mark;
    *ring_writer_register(base, 4u) = 15u;
    *ring_writer_register(base, 0u) = 1u | (mark != 0u ? 4u : 0u);
}

static inline void ring_writer_stop(uintptr_t base)
{
    *ring_writer_register(base, 0u) = 0u;
}

/* Place of the next byte, counted from the buffer. */
static inline uint32_t ring_writer_written(uintptr_t base)
{
    return *ring_writer_register(base, 24u);
}

/* Whether a mark was passed since the last call. */
static inline bool ring_writer_take_mark(uintptr_t base)
{
    bool passed = (*ring_writer_register(base, 4u) & 1u) != 0u;
    *ring_writer_register(base, 4u) = 1u;
    return passed;
}

#endif
