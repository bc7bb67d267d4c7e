/* Clocked serial port. */
#ifndef DRIVER_SPI_CONTROLLER_H
#define DRIVER_SPI_CONTROLLER_H

#include <stdint.h>

static inline volatile uint32_t *spi_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* Mode 0 to 3: clock polarity in bit 1, clock phase in bit 0. The divider is even, from 2 on. */
static inline void spi_begin(uintptr_t base, unsigned mode, uint32_t divider)
{
    /* Words left from before are not the answer to the next exchange. */
    while ((*spi_register(base, 4u) & 2u) != 0u) {
        (void)*spi_register(base, 20u);
    }
    *spi_register(base, 8u) = divider;
    *spi_register(base, 0u) = 1u | ((mode >> 1) & 1u) << 1 | (mode & 1u) << 2;
}

static inline void spi_select(uintptr_t base, uint32_t lines)
{
    *spi_register(base, 12u) = lines;
}

/* Sends a word and waits for the one that comes back. */
static inline uint32_t spi_exchange(uintptr_t base, uint32_t word)
{
    while ((*spi_register(base, 4u) & 4u) == 0u) {
    }
    *spi_register(base, 16u) = word;
    while ((*spi_register(base, 4u) & 2u) == 0u) {
    }
    return *spi_register(base, 20u);
}

/* Events of spi_take and spi_interrupt. */
enum { spi_arrived = 1, spi_empty = 2, spi_lost = 4 };

/*
 * Which of some events have come since they were last taken.
 * Clears exactly what it returns, so that what comes between the read and the write is kept for the next call.
 */
static inline uint32_t spi_take(uintptr_t base, uint32_t events)
{
    uint32_t seen = *spi_register(base, 28u) & events;
    if (seen != 0u) {
        *spi_register(base, 28u) = seen;
    }
    return seen;
}

/* Which events raise the interrupt. */
static inline void spi_interrupt(uintptr_t base, uint32_t events)
{
    *spi_register(base, 24u) = events;
}

#endif
