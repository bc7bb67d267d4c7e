/* Writes a stream round and round into a buffer. */
#ifndef DRIVER_RING_WRITER_H
#define DRIVER_RING_WRITER_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *ring_writer_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* What was stored to memory is there before the next access to a register, and what was read comes after it. */
static inline void ring_writer_order(void)
{
#ifdef __riscv
    __asm__ volatile("fence" ::: "memory");
#else
    __asm__ volatile("" ::: "memory");
#endif
}

/* Events of ring_writer_take. */
enum { ring_writer_mark = 1, ring_writer_round = 2, ring_writer_error = 4, ring_writer_lost = 8 };

/* The size is a multiple of 64 bytes; mark is how many bytes lie between two interrupts, 0 for none. False
 * when the buffer lies where the block has no address lines for it. */
static inline bool ring_writer_start(uintptr_t base, uintptr_t buffer, uint32_t size, uint32_t mark)
{
    if ((uint64_t)buffer + size > 0x100000000u) {
        return false;
    }
    *ring_writer_register(base, 0u) = 0u;
    ring_writer_order();
    *ring_writer_register(base, 8u) = (uint32_t)buffer;
    *ring_writer_register(base, 16u) = size;
    *ring_writer_register(base, 32u) = mark;
    *ring_writer_register(base, 4u) = 15u;
    *ring_writer_register(base, 0u) = 1u | (mark != 0u ? 4u : 0u);
    return true;
}

static inline void ring_writer_stop(uintptr_t base)
{
    *ring_writer_register(base, 0u) = 0u;
}

/* Place of the next byte, counted from the buffer; what lies before it can be read from memory. */
static inline uint32_t ring_writer_written(uintptr_t base)
{
    uint32_t written = *ring_writer_register(base, 24u);
    ring_writer_order();
    return written;
}

/*
 * Which of some events have come since they were last taken.
 * Clears exactly what it returns, so that what comes between the read and the write is kept for the next call.
 */
static inline uint32_t ring_writer_take(uintptr_t base, uint32_t events)
{
    uint32_t seen = *ring_writer_register(base, 4u) & events;
    if (seen != 0u) {
        *ring_writer_register(base, 4u) = seen;
    }
    return seen;
}

/* How often the end of the buffer was passed, modulo 2^32. */
static inline uint32_t ring_writer_rounds(uintptr_t base)
{
    return *ring_writer_register(base, 36u);
}

#endif
