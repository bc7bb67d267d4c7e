/* Moves data between memory and streams. Each direction is finished on its own: wait for both. */
#ifndef DRIVER_DMA_H
#define DRIVER_DMA_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *dma_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* What was stored to memory is there before the next access to a register, and what was read comes after it. */
static inline void dma_order(void)
{
#ifdef __riscv
    __asm__ volatile("fence" ::: "memory");
#else
    __asm__ volatile("" ::: "memory");
#endif
}

/* Reads memory into the stream; length in bytes. False when the buffer lies where the block has no address lines for it. */
static inline bool dma_send(uintptr_t base, uintptr_t buffer, uint32_t length, bool interrupt)
{
    if ((uint64_t)buffer + length > 0x100000000u) {
        return false;
    }
    *dma_register(base, 0u) = 1u | (interrupt ? 4u : 0u);
    *dma_register(base, 4u) = 3u;
    *dma_register(base, 8u) = (uint32_t)buffer;
    dma_order();
    *dma_register(base, 16u) = length;
    return true;
}

/* Writes the stream into memory, length bytes or until a packet ends. False as above. */
static inline bool dma_receive(uintptr_t base, uintptr_t buffer, uint32_t length, bool interrupt)
{
    if ((uint64_t)buffer + length > 0x100000000u) {
        return false;
    }
    *dma_register(base, 64u) = 1u | (interrupt ? 4u : 0u);
    *dma_register(base, 68u) = 3u;
    *dma_register(base, 72u) = (uint32_t)buffer;
    dma_order();
    *dma_register(base, 80u) = length;
    return true;
}

/* Whether the transfer is done; then the buffer can be used again. */
static inline bool dma_is_sent(uintptr_t base)
{
    bool done = (*dma_register(base, 4u) & 1u) != 0u;
    dma_order();
    return done;
}

/* Whether the transfer is done; then the buffer can be read. */
static inline bool dma_is_received(uintptr_t base)
{
    bool done = (*dma_register(base, 68u) & 1u) != 0u;
    dma_order();
    return done;
}

/* Ends the interrupt of a transfer that is done, and tells whether one was. */
static inline bool dma_take_sent(uintptr_t base)
{
    if (!dma_is_sent(base)) {
        return false;
    }
    *dma_register(base, 4u) = 1u;
    return true;
}

static inline bool dma_take_received(uintptr_t base)
{
    if (!dma_is_received(base)) {
        return false;
    }
    *dma_register(base, 68u) = 1u;
    return true;
}

/* Bytes that the last finished transfer from the stream brought. */
static inline uint32_t dma_received_bytes(uintptr_t base)
{
    return *dma_register(base, 80u);
}

/* Whether memory answered with an error, in a direction that the block has. */
static inline bool dma_send_has_failed(uintptr_t base)
{
    return (*dma_register(base, 4u) & 2u) != 0u;
}

static inline bool dma_receive_has_failed(uintptr_t base)
{
    return (*dma_register(base, 68u) & 2u) != 0u;
}

#endif
