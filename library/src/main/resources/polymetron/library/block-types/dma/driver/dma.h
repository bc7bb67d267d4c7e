/* Moves data between memory and streams. Each direction is finished on its own: wait for both. */
#ifndef DRIVER_DMA_H
#define DRIVER_DMA_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *dma_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* Reads memory into the stream; length in bytes. */
static inline void dma_send(uintptr_t base, uintptr_t buffer, uint32_t length, bool interrupt)
{
    *dma_register(base, 0u) = 1u | (interrupt ? 4u : 0u);
    *dma_register(base, 4u) = 3u;
    *dma_register(base, 8u) = (uint32_t)buffer;
    *dma_register(base, 16u) = length;
}

/* Writes the stream into memory, length bytes or until a packet ends. */
static inline void dma_receive(uintptr_t base, uintptr_t buffer, uint32_t length, bool interrupt)
{
    *dma_register(base, 64u) = 1u | (interrupt ? 4u : 0u);
    *dma_register(base, 68u) = 3u;
    *dma_register(base, 72u) = (uint32_t)buffer;
    *dma_register(base, 80u) = length;
}

static inline bool dma_is_sent(uintptr_t base)
{
    return (*dma_register(base, 4u) & 1u) != 0u;
}

static inline bool dma_is_received(uintptr_t base)
{
    return (*dma_register(base, 68u) & 1u) != 0u;
}

/* Bytes that the last finished transfer from the stream brought. */
static inline uint32_t dma_received_bytes(uintptr_t base)
{
    return *dma_register(base, 80u);
}

/* Whether memory answered with an error, in either direction. */
static inline bool dma_has_failed(uintptr_t base)
{
    return ((*dma_register(base, 4u) | *dma_register(base, 68u)) & 2u) != 0u;
}

#endif
